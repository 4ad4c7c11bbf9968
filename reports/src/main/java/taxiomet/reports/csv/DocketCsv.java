package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.DocketWords;

/** A docket as CSV, for those without a spreadsheet: a line for each faulty row, with its choices in a column. */
public final class DocketCsv {
    private static final String CHOICES = "choices";

    private DocketCsv() {}

    /**
     * Writes a docket.
     *
     * @param hasMark whether the file begins with a byte order mark
     * @throws OutputException when the file cannot be written
     */
    public static void write(Docket docket, Path file, boolean hasMark) {
        try (CsvWriter writer = CsvFile.open(file, hasMark, StandardOpenOption.CREATE)) {
            List<String> columns = new ArrayList<>(DocketWords.COLUMNS);
            columns.add(columns.indexOf(DocketWords.DECISION), CHOICES);
            if (!docket.items().isEmpty()) {
                writer.writeRecord(columns);
            }
            for (Item item : docket.items()) {
                Map<String, String> shown = DocketWords.shown(item);
                List<String> cells = new ArrayList<>();
                for (String column : columns) {
                    cells.add(cell(item, shown, column));
                }
                writer.writeRecord(cells);
            }
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static String cell(Item item, Map<String, String> shown, String column) {
        if (column.equals(CHOICES)) {
            return item.choices().stream().map(DocketWords::words).collect(Collectors.joining(" | "));
        } else if (column.equals(DocketWords.REFERENCE)) {
            return item.reference();
        }
        String text = shown.getOrDefault(column, "");
        return text.isEmpty() ? null : SafeCell.of(text);
    }

    /** What a cell of such a file shows for a text. */
    public static String asShown(String text) {
        return SafeCell.of(text);
    }
}
