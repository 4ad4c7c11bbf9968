package taxiomet.reports.csv;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import taxiomet.reports.OutputException;

/** Which file or folder is whose, where there is one for each owner: names of files are not always those of people. */
public final class OwnersCsv implements AutoCloseable {
    /** What the list is called. */
    public static final String FILE = "owners.csv";

    private final TableCsv csv;

    /**
     * Begins a list.
     *
     * @param folder exists
     * @param hasMark whether the file begins with a byte order mark
     * @throws OutputException when the file cannot be written
     */
    public OwnersCsv(Path folder, boolean hasMark) {
        csv = new TableCsv(folder.resolve(FILE), hasMark, List.of("name", "owner", "rows"));
    }

    /**
     * Adds one.
     *
     * @param name of the folder, or of files without their ending
     * @param owner empty for what nobody owns
     */
    public void add(String name, String owner, long rows) {
        csv.add(Arrays.asList(name, owner.isEmpty() ? null : SafeCell.of(owner), Long.toString(rows)));
    }

    @Override
    public void close() {
        csv.close();
    }
}
