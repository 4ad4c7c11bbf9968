package taxiomet.charter.place;

import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Rows of a sheet in a workbook (.xlsx, .ods).
 *
 * @param path of the workbook's file
 * @param sheet its name; empty for the first
 * @param range where the rows stand, the names of the columns in its first row: {@code A3:H} or {@code A3:H200}; empty for all of the sheet
 */
public record SheetRows(Path folder, String path, Optional<String> sheet, Optional<String> range) implements RowsPlace {
    private static final Pattern NAMES =
            Pattern.compile(".+\\.(?:xlsx|ods)", Pattern.CASE_INSENSITIVE | Pattern.DOTALL);
    private static final Pattern RANGE = Pattern.compile("([A-Za-z]{1,3})([0-9]{1,7}):([A-Za-z]{1,3})([0-9]{1,7})?");
    private static final int LETTERS = 26;

    /** Whether a file is a workbook by its name or path. */
    public static boolean isNamedSo(String file) {
        return NAMES.matcher(file).matches();
    }

    /**
     * Where rows stand.
     *
     * @param firstRow that with the names, 1 for the first of the sheet
     * @param lastRow the last one, inclusive
     * @param firstColumn 0 for A
     * @param lastColumn inclusive
     */
    public record Area(long firstRow, long lastRow, int firstColumn, int lastColumn) {
        /** All of a sheet. */
        public static final Area ALL = new Area(1, Long.MAX_VALUE, 0, Integer.MAX_VALUE);
    }

    /** The area that a range names; empty where it names none. */
    public static Optional<Area> area(String range) {
        Matcher parts = RANGE.matcher(range.strip());
        if (!parts.matches()) {
            return Optional.empty();
        }
        Area area = new Area(
                Long.parseLong(parts.group(2)),
                parts.group(4) == null ? Long.MAX_VALUE : Long.parseLong(parts.group(4)),
                column(parts.group(1)),
                column(parts.group(3)));
        return area.firstRow < 1 || area.lastRow < area.firstRow || area.lastColumn < area.firstColumn
                ? Optional.empty()
                : Optional.of(area);
    }

    private static int column(String letters) {
        int column = 0;
        for (char letter : letters.toUpperCase(java.util.Locale.ROOT).toCharArray()) {
            column = column * LETTERS + letter - 'A' + 1;
        }
        return column - 1;
    }
}
