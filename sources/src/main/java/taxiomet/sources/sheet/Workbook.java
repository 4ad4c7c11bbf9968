package taxiomet.sources.sheet;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import taxiomet.charter.place.SheetRows.Area;
import taxiomet.values.ValueCells;

/** An open workbook. What is wrong with its file may come as an {@link IOException} or a runtime exception of whoever reads it. */
interface Workbook extends AutoCloseable {
    /** The names of its sheets in their order; at least one. */
    List<String> sheets() throws IOException;

    /** The rows of a sheet, from the first on. */
    Rows rows(String sheet) throws IOException;

    @Override
    void close() throws IOException;

    /** Opens a file as its ending says, once it has been looked over. */
    static Workbook open(Path file) throws IOException {
        if (!isOds(file)) {
            XlsxBounds.require(file);
        }
        return openAgain(file);
    }

    /** Opens a file that {@link #open} has opened before, and that has not changed since. */
    static Workbook openAgain(Path file) throws IOException {
        return isOds(file) ? new OdsWorkbook(file) : new XlsxWorkbook(file);
    }

    private static boolean isOds(Path file) {
        return file.toString().toLowerCase(Locale.ROOT).endsWith(".ods");
    }

    /** Goes over rows, of which those without any cell may be left out. */
    interface Rows extends AutoCloseable {
        boolean next() throws IOException;

        /** The number of the row in its sheet, 1 for the first. */
        long number();

        /** How many columns it has up to its last cell that is not empty, or more. */
        int width();

        /** @param column 0 for A */
        boolean isEmpty(int column);

        /** A cell that is not empty, as text. */
        String text(int column);

        /** Adds a cell to a column, an empty one as null, and gives about how many bytes it takes. */
        long add(int column, ValueCells into);

        /** The merged cells of the sheet; all of them when the last row has been read. */
        List<Area> merged() throws IOException;

        @Override
        void close();
    }
}
