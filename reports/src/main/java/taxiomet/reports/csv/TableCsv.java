package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import taxiomet.reports.OutputException;

/** A CSV file that stays open while rows are added: cells as they are given, a null as nothing, an empty text in quotes. */
public final class TableCsv implements Closeable {
    private final Path file;
    private final CsvWriter writer;

    /**
     * Begins a file.
     *
     * @param hasMark whether it begins with a byte order mark
     * @throws OutputException when it cannot be written, or is there already
     */
    public TableCsv(Path file, boolean hasMark, List<String> columns) {
        this.file = file;
        try {
            this.writer = CsvFile.open(file, hasMark, StandardOpenOption.CREATE_NEW);
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
        add(columns);
    }

    /** @param cells one for each column, null for null */
    public void add(List<String> cells) {
        try {
            writer.writeRecord(cells);
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        }
    }

    @Override
    public void close() {
        try {
            writer.close();
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }
}
