package taxiomet.cli.option;

import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charter.place.SheetRows;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.reports.csv.DocketCsv;
import taxiomet.reports.words.DocketWords;
import taxiomet.reports.xlsx.DocketWorkbook;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.settle.docket.Deciding;
import taxiomet.settle.docket.Deciding.Filled;
import taxiomet.sources.RowSources;
import taxiomet.sources.jdbc.DatabaseSessions;

/** A docket that somebody has filled in: a workbook, as a spreadsheet saves it, or a CSV file. */
public final class FilledDocket {
    private static final int MOST_HEAD = 4_096;
    private static final int CHUNK = 1 << 18;

    private final Path file;
    private final boolean isSheet;

    public FilledDocket(Path file) {
        this.file = file;
        String name = file.toString().toLowerCase(Locale.ROOT);
        this.isSheet = name.endsWith(".xlsx") || name.endsWith(".ods");
    }

    /** Whether a file is one, by its ending, or by its first line. */
    public static boolean isOne(Path file) {
        String name = file.toString().toLowerCase(Locale.ROOT);
        String head = name.endsWith(".csv") ? head(file) : "";
        return name.endsWith(".xlsx")
                || name.endsWith(".ods")
                || (head.contains(DocketWords.REFERENCE) && head.contains(DocketWords.DECISION));
    }

    private static String head(Path file) {
        try (BufferedReader reader = Files.newBufferedReader(file, StandardCharsets.ISO_8859_1)) {
            char[] head = new char[MOST_HEAD];
            int read = reader.read(head);
            String text = read <= 0 ? "" : new String(head, 0, read);
            return text.lines().findFirst().orElse("");
        } catch (IOException e) {
            return "";
        }
    }

    /**
     * Hands over all rows.
     *
     * @param takesOthers whether rows count that were made for another owner than the docket
     */
    public void read(Deciding deciding, DatabaseSessions sessions, boolean takesOthers) {
        List<Filled> rows = new ArrayList<>();
        // All of them have to be there.
        List<String> columns = DocketWords.COLUMNS;
        try (TableSource source = RowSources.open(table(columns), CHUNK, sessions)) {
            int[] all = new int[columns.size()];
            java.util.Arrays.setAll(all, i -> i);
            source.read(all, batch -> take(batch, columns, rows));
        }
        deciding.takeAll(rows, this::shown, takesOthers);
    }

    private Table table(List<String> columns) {
        return new Table(
                "docket",
                Optional.empty(),
                place(),
                columns.stream()
                        .map(name -> Column.of(name, ColumnType.of(ColumnType.Name.TEXT)))
                        .toList(),
                Optional.empty(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty());
    }

    private RowsPlace place() {
        Path folder = Path.of("").toAbsolutePath();
        if (isSheet) {
            return new SheetRows(folder, file.toString(), Optional.of(DocketWorkbook.SHEET), Optional.empty());
        }
        String head = head(file);
        char delimiter = ',';
        for (char other : List.of(';', '\t')) {
            delimiter = count(head, other) > count(head, delimiter) ? other : delimiter;
        }
        return new DelimitedFiles(folder, file.toString(), delimiter, '"', "UTF-8", true, Optional.empty(), List.of());
    }

    private static long count(String text, char letter) {
        return text.chars().filter(each -> each == letter).count();
    }

    private void take(RowBatch batch, List<String> columns, List<Filled> rows) {
        if (!batch.malformed().isEmpty()) {
            RowBatch.MalformedRow row = batch.malformed().get(0);
            throw new SourceException(
                    file + ", row " + RowRef.row(row.ref()), row.reason(), "save it as it was written");
        }
        for (int row = 0; row < batch.size(); row++) {
            Map<String, String> cells = new HashMap<>();
            for (int i = 0; i < columns.size(); i++) {
                cells.put(columns.get(i), batch.column(i).text(row));
            }
            if (cells.values().stream().allMatch(cell -> cell == null || cell.isBlank())) {
                continue;
            }
            rows.add(new Filled(
                    file + ", line " + (RowRef.row(batch.ref(row)) + 1),
                    cells.get(DocketWords.REFERENCE),
                    cells,
                    cells.get(DocketWords.DECISION),
                    cells.get(DocketWords.NEW_VALUE),
                    cells.get(DocketWords.UNTIL),
                    cells.get(DocketWords.REASON),
                    cells.get(DocketWords.DECIDED_BY)));
        }
    }

    /** What must stand there as it was written: the facts. How they are told may be told otherwise by another version. */
    private Map<String, String> shown(Item item) {
        Map<String, String> shown = new LinkedHashMap<>();
        Map<String, String> facts = DocketWords.shown(item);
        facts.keySet().removeAll(List.of("what is wrong", "proposed"));
        facts.forEach(
                (column, text) -> shown.put(column, isSheet ? DocketWorkbook.asShown(text) : DocketCsv.asShown(text)));
        return shown;
    }
}
