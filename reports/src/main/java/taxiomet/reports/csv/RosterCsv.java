package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.RosterWords;

/** A roster as CSV: a line for each child, and one for each heading without children. */
public final class RosterCsv {
    private RosterCsv() {}

    /**
     * Writes a roster.
     *
     * @param content hands it over
     * @param hasMark whether the file begins with a byte order mark
     * @throws OutputException when the file cannot be written
     */
    public static void write(RosterResult roster, Consumer<RosterResult.Reader> content, Path file, boolean hasMark) {
        Set<String> columns = new LinkedHashSet<>();
        roster.groups()
                .forEach(group ->
                        columns.addAll(group.columns(group.orphans() > 0 ? Section.PARENT_MISSING : Section.HEADING)));
        List<String> heads = new ArrayList<>(List.of("section", roster.table(), "children_of", "link"));
        columns.forEach(column -> heads.add(SafeCell.of(column)));
        try (CsvWriter writer = CsvFile.open(file, hasMark)) {
            writer.writeRecord(heads);
            content.accept(new Lines(writer, List.copyOf(columns)));
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static final class Lines implements RosterResult.Reader {
        private final CsvWriter writer;
        private final List<String> columns;
        private String section = "";
        private String name = "";
        private Group group;
        private List<String> shown = List.of();

        Lines(CsvWriter writer, List<String> columns) {
            this.writer = writer;
            this.columns = columns;
        }

        @Override
        public void section(Section which, String called, long children) {
            section = which == Section.HEADING ? "heading" : RosterWords.section(which, called);
            name = called;
            if (children == 0) {
                write(null, null, List.of());
            }
        }

        private void write(String table, String link, List<String> cells) {
            List<String> record = new ArrayList<>();
            record.add(section);
            record.add(SafeCell.of(name));
            record.add(SafeCell.of(table));
            record.add(SafeCell.of(link));
            for (String column : columns) {
                int place = cells.isEmpty() ? -1 : shown.indexOf(column);
                record.add(place < 0 ? null : SafeCell.of(cells.get(place)));
            }
            writer.writeRecord(record);
        }

        @Override
        public void group(Group next, List<String> heads) {
            group = next;
            shown = heads;
        }

        @Override
        public void row(List<String> cells) {
            write(group.table(), group.link(), cells);
        }

        @Override
        public void endGroup(Group which, long rows, List<Sum> subtotals) {
            // Whoever reads it adds up.
        }
    }
}
