package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import de.siegmar.fastcsv.writer.QuoteStrategies;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.OpenOption;
import java.nio.file.Path;

/** How all CSV files of results are written. */
final class CsvFile {
    private static final char BYTE_ORDER_MARK = '\uFEFF';

    private CsvFile() {}

    /**
     * Opens a file; what stands in it already stays where the options ask for it.
     *
     * @param hasMark whether a new file begins with a byte order mark, by which some spreadsheets know UTF-8
     */
    static CsvWriter open(Path file, boolean hasMark, OpenOption... how) throws IOException {
        boolean isNew = Files.notExists(file) || Files.size(file) == 0;
        Writer writer = Files.newBufferedWriter(file, StandardCharsets.UTF_8, how);
        if (hasMark && isNew) {
            writer.write(BYTE_ORDER_MARK);
        }
        return CsvWriter.builder()
                .lineDelimiter(LineDelimiter.LF)
                // An empty text is told from a null: only the text has quotes.
                .quoteStrategy(QuoteStrategies.EMPTY)
                .build(writer);
    }
}
