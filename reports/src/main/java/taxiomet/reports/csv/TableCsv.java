package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import taxiomet.reports.OutputException;

/** A table as CSV that is read again: cells as they are, a null as nothing, an empty text in quotes. */
public final class TableCsv implements Closeable {
    private final Path file;
    private final CsvWriter writer;

    /** @throws OutputException when it cannot be written */
    public TableCsv(Path file, List<String> columns) {
        this.file = file;
        try {
            this.writer = CsvFile.open(file, false, StandardOpenOption.CREATE_NEW);
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
