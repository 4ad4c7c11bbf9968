package taxiomet.reports.xlsx;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.RosterWords;
import taxiomet.reports.xlsx.Sheet.Head;

/** A roster as a workbook: a sheet for each link, with a line for each child and its heading before it. */
public final class RosterWorkbook {
    private static final String FORM = "1.0";
    private static final int HEADING_WIDTH = 32;
    private static final int WIDTH = 20;

    private RosterWorkbook() {}

    /**
     * Writes a roster.
     *
     * @param content hands it over; it is asked once for each link
     * @param charter by which it is told: its types say what becomes a number or a date
     * @throws OutputException when the file cannot be written
     */
    public static void write(RosterResult roster, Consumer<RosterResult.Reader> content, Charter charter, Path file) {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file));
                Workbook workbook = new Workbook(out, "taxiomet", FORM)) {
            SheetNames names = new SheetNames();
            for (Group group : roster.groups()) {
                write(roster, group, content, charter, workbook, names);
            }
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static void write(
            RosterResult roster,
            Group group,
            Consumer<RosterResult.Reader> content,
            Charter charter,
            Workbook workbook,
            SheetNames names) {
        List<String> columns = group.columns(group.orphans() > 0 ? Section.PARENT_MISSING : Section.HEADING);
        Table child = charter.table(group.table());
        List<Optional<CellValue>> values = columns.stream()
                .map(column -> declared(charter, child, column).map(CellValue::new))
                .toList();
        List<Head> heads = new ArrayList<>(List.of(new Head(roster.table(), HEADING_WIDTH, false)));
        columns.forEach(column -> heads.add(new Head(column, WIDTH, false)));
        List<String> above = List.of(
                roster.title() + ": " + group.table() + " under " + roster.table(),
                RosterWords.whole(group) + RosterWords.sums(group.sums()));
        try (Sheet sheet =
                new Sheet(workbook, names, group.table() + " " + group.link(), above, heads, Worksheet.MAX_ROWS)) {
            content.accept(new Lines(group, columns, values, sheet));
        }
    }

    /** The column that a head names: an own one, or one of what a link points at. */
    private static Optional<Column> declared(Charter charter, Table child, String head) {
        if (child.indexOf(head) >= 0) {
            return Optional.of(child.column(head));
        }
        int dot = head.indexOf('.');
        return dot < 0
                ? Optional.empty()
                : child.link(head.substring(0, dot))
                        .map(link -> charter.table(link.parent()))
                        .filter(parent -> parent.indexOf(head.substring(dot + 1)) >= 0)
                        .map(parent -> parent.column(head.substring(dot + 1)));
    }

    private static final class Lines implements RosterResult.Reader {
        private final Group wanted;
        private final List<String> columns;
        private final List<Optional<CellValue>> values;
        private final Sheet sheet;
        private String heading = "";
        private List<String> shown = List.of();
        private boolean isWanted;

        Lines(Group wanted, List<String> columns, List<Optional<CellValue>> values, Sheet sheet) {
            this.wanted = wanted;
            this.columns = columns;
            this.values = values;
            this.sheet = sheet;
        }

        @Override
        public void section(Section section, String name, long children) {
            heading = section == Section.HEADING ? name : RosterWords.section(section, name);
            if (children == 0) {
                sheet.add(List.of(heading));
            }
        }

        @Override
        public void group(Group group, List<String> heads) {
            isWanted = group.equals(wanted);
            shown = heads;
        }

        @Override
        public void row(List<String> cells) {
            if (!isWanted) {
                return;
            }
            List<Object> row = new ArrayList<>(List.of(heading));
            for (int i = 0; i < columns.size(); i++) {
                int place = shown.indexOf(columns.get(i));
                String cell = place < 0 ? null : cells.get(place);
                row.add(values.get(i).map(value -> value.of(cell)).orElse(cell));
            }
            sheet.add(row);
        }

        @Override
        public void endGroup(Group group, long rows, List<Sum> subtotals) {
            // The totals stand above; filters add up what is wanted.
        }
    }
}
