package taxiomet.reports.csv;

import java.io.Closeable;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.settled.SiftResult.AsideRow;
import taxiomet.finding.settled.SiftResult.CauseRow;
import taxiomet.finding.settled.SiftResult.Mend;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.SiftWords;

/** The lists of a sift as CSV: why each row is set aside, and what was mended. */
public final class SiftCsv implements Closeable {
    /** The list of rows that are set aside. */
    public static final String REASONS = "reasons.csv";
    /** The list of values that were mended. */
    public static final String MENDINGS = "mendings.csv";

    private final TableCsv csv;

    private SiftCsv(Path file, boolean hasMark, String... header) {
        csv = new TableCsv(file, hasMark, List.of(header));
    }

    /**
     * Begins the list of rows that are set aside.
     *
     * @param hasMark whether it begins with a byte order mark
     * @throws OutputException when it cannot be written
     */
    public static SiftCsv reasons(Path folder, boolean hasMark) {
        return new SiftCsv(
                folder.resolve(REASONS),
                hasMark,
                "table",
                "file",
                "row",
                "line",
                "key",
                "row_aside",
                "why",
                "finding",
                "at",
                "cause_table",
                "cause_file",
                "cause_row",
                "cause_key",
                "reason");
    }

    /** Begins the list of values that were mended; as {@link #reasons}. */
    public static SiftCsv mendings(Path folder, boolean hasMark) {
        return new SiftCsv(
                folder.resolve(MENDINGS),
                hasMark,
                "table",
                "file",
                "row",
                "column",
                "before",
                "after",
                "finding",
                "at");
    }

    /** @param rowAside its number in the file of rows that are set aside, 1 for the first */
    public void add(AsideRow row, long rowAside) {
        CauseRow cause = row.cause().orElse(null);
        write(
                row.table(),
                row.part(),
                String.valueOf(row.row()),
                row.line() > 0 ? String.valueOf(row.line()) : null,
                key(row.key().values()),
                String.valueOf(rowAside),
                row.reason().why().word(),
                row.reason().finding().map(kind -> kind.words()).orElse(null),
                row.reason().at(),
                cause == null ? null : cause.table(),
                cause == null ? null : cause.part(),
                cause == null ? null : String.valueOf(cause.row()),
                cause == null ? null : key(cause.key().values()),
                SiftWords.reason(row));
    }

    private static String key(Collection<String> cells) {
        return cells.stream().map(cell -> cell == null ? "null" : cell).collect(Collectors.joining(", "));
    }

    public void add(Mend mend) {
        write(
                mend.table(),
                mend.part(),
                String.valueOf(mend.row()),
                mend.column(),
                mend.before(),
                mend.after(),
                mend.finding().words(),
                mend.at());
    }

    private void write(String... cells) {
        csv.add(Arrays.stream(cells).map(SafeCell::of).toList());
    }

    @Override
    public void close() {
        csv.close();
    }
}
