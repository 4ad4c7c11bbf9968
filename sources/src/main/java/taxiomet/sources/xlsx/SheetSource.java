package taxiomet.sources.xlsx;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Enumeration;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
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
    /** What the texts of a workbook, which stand in memory, may come to when they are unpacked, in bytes. */
    private static final long MOST_TEXTS = 512L << 20;

    private static final String TEXTS = "xl/sharedStrings.xml";

    private final SheetRows rows;
    private final List<String> columns;
    private final Path path;
    private final DataFile file;
    private final Area area;
    private final Map<String, Integer> there;
    private final String sheetName;

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
        requireBounded(path);
        try (ReadableWorkbook workbook = open(path)) {
            Sheet sheet = sheetOf(workbook);
            this.sheetName = sheet.getName();
            this.there = header(sheet, area, rows.path());
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
            requireBounded(file);
            try (ReadableWorkbook workbook = open(file);
                    Stream<Sheet> all = workbook.getSheets()) {
                for (Sheet sheet : all.toList()) {
                    List<String> names =
                            List.copyOf(header(sheet, Area.ALL, file.toString()).keySet());
                    if (!names.isEmpty()) {
                        sheets.put(sheet.getName(), names);
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

    private static ReadableWorkbook open(Path file) throws IOException {
        return new ReadableWorkbook(file.toFile(), new ReadingOptions(true, true));
    }

    private static SourceException unreadable(String place, Exception e) {
        String said = e.getMessage() == null
                ? e.getClass().getSimpleName()
                : e.getMessage()
                        .replaceFirst("^(?:[a-z]+\\.)+[A-Z]\\w*: ", "")
                        .lines()
                        .findFirst()
                        .orElse("");
        return new SourceException(
                place,
                "the workbook cannot be read (" + said + ")",
                "save it as .xlsx again, or export the sheet as CSV");
    }

    /** Texts of a workbook stand in memory as a whole: a small file may unpack to any size. */
    private static void requireBounded(Path file) throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            Enumeration<? extends ZipEntry> entries = zip.entries();
            while (entries.hasMoreElements()) {
                ZipEntry entry = entries.nextElement();
                if (entry.getName().equalsIgnoreCase(TEXTS) && entry.getSize() > MOST_TEXTS) {
                    throw new SourceException(
                            file.toString(),
                            "its texts come to " + (entry.getSize() >> 20) + " MB when they are unpacked, more than "
                                    + (MOST_TEXTS >> 20),
                            "export the sheet as CSV");
                }
            }
        }
    }

    private Sheet sheetOf(ReadableWorkbook workbook) {
        if (rows.sheet().isEmpty()) {
            return workbook.getFirstSheet();
        }
        String wanted = rows.sheet().get();
        return workbook.findSheet(wanted).orElseThrow(() -> {
            List<String> names = workbook.getSheets().map(Sheet::getName).toList();
            return new SourceException(
                    rows.path(),
                    "there is no sheet `" + wanted + "` in it"
                            + NearestWord.of(wanted, names)
                                    .map(near -> "; did you mean `" + near + "`?")
                                    .orElse(""),
                    "it has " + ColumnNames.listed(names));
        });
    }

    /** The names of the columns with their places in the sheet, in their order. */
    private static Map<String, Integer> header(Sheet sheet, Area area, String place) throws IOException {
        Map<String, Integer> names = new LinkedHashMap<>();
        try (Stream<Row> all = sheet.openStream()) {
            Iterator<Row> rows = all.iterator();
            while (rows.hasNext()) {
                Row row = rows.next();
                if (row.getRowNum() < area.firstRow() || isEmpty(row, area)) {
                    continue;
                }
                for (int i = area.firstColumn(); i < row.getCellCount() && i <= area.lastColumn(); i++) {
                    Cell cell = row.getCell(i);
                    if (cell != null
                            && cell.getType() != CellType.EMPTY
                            && names.put(SheetCells.text(cell), i) != null) {
                        throw new SourceException(
                                place + ", sheet " + sheet.getName() + ", row " + row.getRowNum(),
                                "two columns are named `" + SheetCells.text(cell) + "`",
                                "every column needs a name of its own");
                    }
                }
                return names;
            }
        }
        return names;
    }

    private static boolean isEmpty(Row row, Area area) {
        for (int i = area.firstColumn(); i < row.getCellCount() && i <= area.lastColumn(); i++) {
            Cell cell = row.getCell(i);
            if (cell != null && cell.getType() != CellType.EMPTY) {
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
        return new Rows(wanted);
    }

    private final class Rows implements Cursor {
        private final int[] places;
        private final ReadableWorkbook workbook;
        private final Stream<Row> stream;
        private final Iterator<Row> all;
        private final SheetCells cells;
        private Row row;
        private boolean isBehindHeader;
        private long empty;

        Rows(int[] wanted) throws IOException {
            places = new int[wanted.length];
            for (int i = 0; i < wanted.length; i++) {
                places[i] = there.get(columns.get(wanted[i]));
            }
            workbook = SheetSource.open(path);
            stream = sheetOf(workbook).openStream();
            all = stream.iterator();
            cells = new SheetCells(workbook.isDate1904());
        }

        @Override
        public boolean next() {
            try {
                return goOn();
            } catch (RuntimeException e) {
                throw unreadable(partName(0), e);
            }
        }

        private boolean goOn() {
            while (all.hasNext()) {
                row = all.next();
                if (row.getRowNum() < area.firstRow()) {
                    continue;
                } else if (row.getRowNum() > area.lastRow()) {
                    return false;
                }
                if (isEmpty(row, area)) {
                    empty += isBehindHeader ? 1 : 0;
                } else if (isBehindHeader) {
                    return true;
                } else {
                    isBehindHeader = true;
                }
            }
            return false;
        }

        @Override
        public Object place() {
            return null;
        }

        @Override
        public long line() {
            return row.getRowNum();
        }

        @Override
        public long emptyLines() {
            return empty;
        }

        @Override
        public long addTo(RowBatch batch) {
            long bytes = 0;
            for (int i = 0; i < places.length; i++) {
                Cell cell = places[i] < row.getCellCount() ? row.getCell(places[i]) : null;
                bytes += cells.add(cell, (ValueCells) batch.column(i));
            }
            return bytes;
        }

        @Override
        public void close() {
            stream.close();
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
