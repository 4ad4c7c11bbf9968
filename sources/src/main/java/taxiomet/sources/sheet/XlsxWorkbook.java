package taxiomet.sources.sheet;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;
import org.dhatim.fastexcel.reader.Sheet;
import taxiomet.charter.place.SheetRows.Area;
import taxiomet.values.ValueCells;

/** A workbook in the format of ECMA-376 (.xlsx). */
final class XlsxWorkbook implements Workbook {
    /** Without formats of cells, which a workbook need not have, no number is a date. */
    private static final String STYLES = "xl/styles.xml";

    private static final String RELATIONS = "xl/_rels/workbook.xml.rels";
    private static final int MOST_RELATIONS = 1 << 20;

    private final ReadableWorkbook workbook;
    private final Path file;

    XlsxWorkbook(Path file) throws IOException {
        this.file = file;
        workbook = new ReadableWorkbook(file.toFile(), new ReadingOptions(hasStyles(file), true));
    }

    private static boolean hasStyles(Path file) throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            ZipEntry relations = zip.getEntry(RELATIONS);
            if (relations == null
                    || zip.stream().noneMatch(entry -> entry.getName().equalsIgnoreCase(STYLES))) {
                return false;
            }
            try (InputStream in = zip.getInputStream(relations)) {
                return new String(in.readNBytes(MOST_RELATIONS), StandardCharsets.UTF_8)
                        .contains("relationships/styles");
            }
        }
    }

    @Override
    public List<String> sheets() {
        return workbook.getSheets().map(Sheet::getName).toList();
    }

    @Override
    public Rows rows(String sheet) throws IOException {
        return new XlsxRows(file, workbook.findSheet(sheet).orElseThrow(), new XlsxCells(workbook.isDate1904()));
    }

    @Override
    public void close() throws IOException {
        workbook.close();
    }

    private static final class XlsxRows implements Rows {
        private final Path file;
        private final String sheet;
        private final Stream<Row> stream;
        private final Iterator<Row> all;
        private final XlsxCells cells;
        private Row row;

        XlsxRows(Path file, Sheet sheet, XlsxCells cells) throws IOException {
            this.file = file;
            this.sheet = sheet.getName();
            this.stream = sheet.openStream();
            this.all = stream.iterator();
            this.cells = cells;
        }

        @Override
        public boolean next() {
            boolean hasNext = all.hasNext();
            row = hasNext ? all.next() : null;
            return hasNext;
        }

        @Override
        public long number() {
            return row.getRowNum();
        }

        @Override
        public int width() {
            return row.getCellCount();
        }

        private Cell cell(int column) {
            return column < row.getCellCount() ? row.getCell(column) : null;
        }

        @Override
        public List<Area> merged() throws IOException {
            try (ZipFile zip = new ZipFile(file.toFile())) {
                return XlsxMerges.of(zip, sheet);
            }
        }

        @Override
        public boolean isEmpty(int column) {
            Cell cell = cell(column);
            return cell == null || cell.getType() == CellType.EMPTY;
        }

        @Override
        public String text(int column) {
            return XlsxCells.text(cell(column));
        }

        @Override
        public long add(int column, ValueCells into) {
            return cells.add(cell(column), into);
        }

        @Override
        public void close() {
            stream.close();
        }
    }
}
