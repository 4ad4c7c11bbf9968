package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import de.siegmar.fastcsv.writer.QuoteStrategies;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.OpenOption;
import java.nio.file.Path;

/** How all CSV files of results are written. */
final class CsvFile {
    private CsvFile() {}

    static CsvWriter open(Path file, OpenOption... how) throws IOException {
        return CsvWriter.builder()
                .lineDelimiter(LineDelimiter.LF)
                // An empty text is told from a null: only the text has quotes.
                .quoteStrategy(QuoteStrategies.EMPTY)
                .build(Files.newBufferedWriter(file, StandardCharsets.UTF_8, how));
    }
}
