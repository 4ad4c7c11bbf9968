package taxiomet.reports.csv;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import taxiomet.finding.RosterResult.Section;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.RosterWords;

/** The list of the files that a roster was written into, one for each heading: a line for each. */
public final class RosterIndexCsv implements AutoCloseable {
    /** What the list is called. */
    public static final String FILE = "headings.csv";

    private final TableCsv csv;

    /**
     * Begins a list.
     *
     * @param folder exists
     * @param hasMark whether the file begins with a byte order mark
     * @throws OutputException when the file cannot be written
     */
    public RosterIndexCsv(Path folder, boolean hasMark) {
        csv = new TableCsv(folder.resolve(FILE), hasMark, List.of("file", "section", "heading", "children"));
    }

    /** Adds a file, with what stands in it. */
    public void add(String name, Section section, String heading, long children) {
        csv.add(Arrays.asList(
                name,
                section == Section.HEADING ? "heading" : RosterWords.section(section, ""),
                heading.isEmpty() ? null : SafeCell.of(heading),
                Long.toString(children)));
    }

    @Override
    public void close() {
        csv.close();
    }
}
