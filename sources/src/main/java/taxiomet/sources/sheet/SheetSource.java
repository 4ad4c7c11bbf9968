package taxiomet.sources.sheet;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.NearestWord;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SheetRows.Area;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.RowBatch;
import taxiomet.rows.SourceException;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.CursorSource;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.FileParts;
import taxiomet.values.ValueCells;

/** A sheet of a workbook. */
public final class SheetSource extends CursorSource {
    private final SheetRows rows;
    private final List<String> columns;
    private final Path path;
    private final DataFile file;
    private final Area area;
    private final Map<String, Integer> there;
    private final String sheetName;
    private Optional<String> mergedCells = Optional.empty();
    /** Its merged cells are known then. */
    private boolean isReadOnce;

    private SheetSource(SheetRows rows, List<String> columns) throws IOException {
        this.rows = rows;
        List<Path> paths = FileParts.find(rows.folder(), rows.path());
        if (paths.size() > 1) {
            throw new SourceException(
                    rows.path(), paths.size() + " files have such a name, and a sheet stands in one", "name one");
        }
        this.path = paths.get(0);
        this.file = new DataFile(path);
        this.columns = List.copyOf(columns);
        this.area = rows.range().flatMap(SheetRows::area).orElse(Area.ALL);
        try (Workbook workbook = Workbook.open(path)) {
            this.sheetName = sheetOf(workbook);
            this.there = header(workbook, sheetName, area, rows.path());
        }
        for (String column : columns) {
            if (!there.containsKey(column)) {
                List<String> names = List.copyOf(there.keySet());
                throw new SourceException(
                        partName(0),
                        "there is no column `" + column + "`" + ColumnNames.near(column, names),
                        names.isEmpty() ? "the first row names the columns" : "it has " + ColumnNames.listed(names));
            }
        }
    }

    /**
     * Opens a sheet.
     *
     * @param columns names of the columns wanted
     * @throws SourceException when the workbook cannot be read, or lacks the sheet or a column
     */
    public static SheetSource open(SheetRows rows, List<String> columns) {
        try {
            return new SheetSource(rows, columns);
        } catch (SourceException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            // The reader's own faults are those of a file that is none.
            throw unreadable(rows.path(), e);
        }
    }

    /**
     * The sheets of a workbook, with the names in their first rows.
     *
     * @throws SourceException when it cannot be read
     */
    public static Map<String, List<String>> sheetsOf(Path file) {
        Map<String, List<String>> sheets = new LinkedHashMap<>();
        try {
            try (Workbook workbook = Workbook.open(file)) {
                for (String sheet : workbook.sheets()) {
                    List<String> names = List.copyOf(
                            header(workbook, sheet, Area.ALL, file.toString()).keySet());
                    if (!names.isEmpty()) {
                        sheets.put(sheet, names);
                    }
                }
            }
        } catch (SourceException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            throw unreadable(file.toString(), e);
        }
        return sheets;
    }

    private static SourceException unreadable(String place, Exception e) {
        String said = e.getMessage() == null
                ? "it is not as such a file is made"
                : e.getMessage()
                        .replaceAll("(?:[a-z]+\\.)+[A-Z]\\w*(?:Exception|Error)(?:: *)?", "")
                        .lines()
                        .findFirst()
                        .orElse("");
        return new SourceException(
                place,
                "the workbook cannot be read (" + (said.isEmpty() ? "it is cut off" : said) + ")",
                "save it again, or export the sheet as CSV");
    }

    private String sheetOf(Workbook workbook) throws IOException {
        List<String> names = workbook.sheets();
        String wanted = rows.sheet().orElse(names.get(0));
        if (names.contains(wanted)) {
            return wanted;
        }
        throw new SourceException(
                rows.path(),
                "there is no sheet `" + wanted + "` in it"
                        + NearestWord.of(wanted, names)
                                .map(near -> "; did you mean `" + near + "`?")
                                .orElse(""),
                "it has " + ColumnNames.listed(names));
    }

    /** The names of the columns with their places in the sheet, in their order. */
    private static Map<String, Integer> header(Workbook workbook, String sheet, Area area, String place)
            throws IOException {
        Map<String, Integer> names = new LinkedHashMap<>();
        try (Workbook.Rows rows = workbook.rows(sheet)) {
            while (rows.next()) {
                if (rows.number() < area.firstRow() || isEmpty(rows, area)) {
                    continue;
                }
                for (int i = area.firstColumn(); i < rows.width() && i <= area.lastColumn(); i++) {
                    if (!rows.isEmpty(i) && names.put(rows.text(i), i) != null) {
                        throw new SourceException(
                                place + ", sheet " + sheet + ", row " + rows.number(),
                                "two columns are named `" + rows.text(i) + "`",
                                "every column needs a name of its own");
                    }
                }
                return names;
            }
        }
        return names;
    }

    private static boolean isEmpty(Workbook.Rows row, Area area) {
        for (int i = area.firstColumn(); i < row.width() && i <= area.lastColumn(); i++) {
            if (!row.isEmpty(i)) {
                return false;
            }
        }
        return true;
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return rows.path() + (sheetName == null ? "" : ", sheet " + sheetName);
    }

    @Override
    public Undeclared undeclared() {
        List<String> others = new ArrayList<>(there.keySet());
        others.removeAll(columns);
        return Undeclared.columns(others);
    }

    @Override
    public Optional<String> mergedCells() {
        return mergedCells;
    }

    @Override
    public long bytes() {
        try {
            return Files.size(path);
        } catch (IOException e) {
            return 0;
        }
    }

    @Override
    protected RowBatch batchOf(int width) {
        return RowBatch.ofValues(width);
    }

    @Override
    protected SourceException refused(Exception e) {
        return unreadable(partName(0), e);
    }

    @Override
    protected void requireUnchanged() {
        file.requireUnchanged();
    }

    @Override
    protected Cursor open(int[] wanted, Object place) throws IOException {
        return new SheetCursor(wanted);
    }

    private final class SheetCursor implements Cursor {
        private final int[] places;
        private final Workbook workbook;
        private final Workbook.Rows all;
        private boolean isBehindHeader;
        private long header;
        private long empty;

        SheetCursor(int[] wanted) throws IOException {
            places = new int[wanted.length];
            for (int i = 0; i < wanted.length; i++) {
                places[i] = there.get(columns.get(wanted[i]));
            }
            file.requireUnchanged();
            workbook = Workbook.openAgain(path);
            all = workbook.rows(sheetName);
        }

        @Override
        public boolean next() {
            try {
                return goOn();
            } catch (IOException | RuntimeException e) {
                throw unreadable(partName(0), e);
            }
        }

        private boolean goOn() throws IOException {
            while (all.next()) {
                if (all.number() < area.firstRow()) {
                    continue;
                } else if (all.number() > area.lastRow()) {
                    break;
                }
                if (isEmpty(all, area)) {
                    empty += isBehindHeader ? 1 : 0;
                } else if (isBehindHeader) {
                    return true;
                } else {
                    isBehindHeader = true;
                    header = all.number();
                }
            }
            if (!isReadOnce) {
                isReadOnce = true;
                mergedCells = MergedCells.remark(
                        all.merged(), new Area(header + 1, area.lastRow(), area.firstColumn(), lastColumn()));
            }
            return false;
        }

        private int lastColumn() {
            return there.values().stream().mapToInt(Integer::intValue).max().orElse(0);
        }

        @Override
        public Object place() {
            return null;
        }

        @Override
        public long line() {
            return all.number();
        }

        @Override
        public long emptyLines() {
            return empty;
        }

        @Override
        public long addTo(RowBatch batch) {
            long bytes = 0;
            for (int i = 0; i < places.length; i++) {
                bytes += all.add(places[i], (ValueCells) batch.column(i));
            }
            return bytes;
        }

        @Override
        public void close() {
            all.close();
            try {
                workbook.close();
            } catch (IOException e) {
                throw unreadable(rows.path(), e);
            }
        }
    }

    @Override
    public void close() {
        // Each cursor closes its workbook.
    }
}
