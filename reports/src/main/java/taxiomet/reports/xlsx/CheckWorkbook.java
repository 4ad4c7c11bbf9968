package taxiomet.reports.xlsx;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import taxiomet.charter.Charter;
import taxiomet.finding.Cause;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.OutputException;
import taxiomet.reports.text.CheckText;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.words.CauseWords;
import taxiomet.reports.words.FindingSentences;
import taxiomet.reports.words.LoadWords;
import taxiomet.reports.xlsx.Sheet.Head;

/** The result of a check as a workbook: a sheet with the answer, one with where to begin, and one with all rows of each finding. */
public final class CheckWorkbook {
    /** Two numbers are asked for, whatever they are. */
    private static final String FORM = "1.0";

    private static final int NUMBER_WIDTH = 9;
    private static final int TEXT_WIDTH = 22;
    private static final int SENTENCE_WIDTH = 48;

    private final CheckResult result;
    private final Charter charter;
    private final String charterName;
    private final Workbook workbook;
    private final int mostRows;
    private final SheetNames names = new SheetNames();

    private CheckWorkbook(CheckResult result, Charter charter, String charterName, Workbook workbook, int mostRows) {
        this.result = result;
        this.charter = charter;
        this.charterName = charterName;
        this.workbook = workbook;
        this.mostRows = mostRows;
    }

    /**
     * Writes a result.
     *
     * @param charter by which the result is told: its types say what becomes a number or a date
     * @param charterName the charter as it was named
     * @throws OutputException when the file cannot be written
     */
    public static void write(CheckResult result, Charter charter, String charterName, Path file) {
        write(result, charter, charterName, file, Worksheet.MAX_ROWS);
    }

    static void write(CheckResult result, Charter charter, String charterName, Path file, int mostRows) {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file));
                Workbook workbook = new Workbook(out, "taxiomet", FORM)) {
            new CheckWorkbook(result, charter, charterName, workbook, mostRows).write();
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private void write() {
        FindingSentences sentences = new FindingSentences(result);
        writeAnswer(sentences);
        writeCauses();
        result.load().ifPresent(this::writeLoad);
        writeFindings(sentences);
        for (int i = 0; i < result.findings().size(); i++) {
            if (!result.findings().get(i).kind().hasNoRows()) {
                writeRows(result.findings().get(i), sentences, i + 1);
            }
        }
    }

    private Sheet sheet(String name, List<String> above, List<Head> heads) {
        return new Sheet(workbook, names, name, above, heads, mostRows);
    }

    private static Head number(String text) {
        return new Head(text, NUMBER_WIDTH, false);
    }

    private static Head text(String text) {
        return new Head(text, TEXT_WIDTH, false);
    }

    private static Head sentence(String text) {
        return new Head(text, SENTENCE_WIDTH, false);
    }

    private void writeAnswer(FindingSentences sentences) {
        List<String> above = new ArrayList<>();
        new CheckText(result, charterName, LinePaper.unbroken(above::add)).writeAnswer();
        if (!result.findings().isEmpty()) {
            above.add(
                    "Sheet \"findings\" lists what was found; behind it stands a sheet for each finding, with all of its rows.");
        }
        List<Head> heads = List.of(text("table"), number("rows"), number("at fault"), sentence("rows by kind"));
        try (Sheet sheet = sheet("answer", above, heads)) {
            for (TableResult table : result.tables()) {
                String kinds = sentences.kindsOf(table);
                sheet.add(List.of(table.name(), table.rows(), table.faultyRows(), kinds.isEmpty() ? "sound" : kinds));
            }
            for (TableResult table : result.tables()) {
                for (CheckResult.Remark remark : table.remarks()) {
                    sheet.add(List.of(table.name() + ": " + remark.text()));
                }
            }
        }
    }

    private void writeCauses() {
        if (result.causes().isEmpty()) {
            return;
        }
        List<Head> heads =
                List.of(number(""), sentence("do this"), sentence("what that cures"), sentence("goes on with"));
        String title = "Where to begin: in this order nothing undoes what was mended before it";
        try (Sheet sheet = sheet("where to begin", List.of(title), heads)) {
            long place = 0;
            for (Cause cause : result.causes()) {
                sheet.add(List.of(
                        ++place,
                        CauseWords.toDo(cause),
                        CauseWords.cures(cause),
                        CauseWords.command(cause, charterName)));
            }
        }
    }

    private void writeLoad(LoadResult load) {
        List<String> above = new ArrayList<>(List.of("A load in this order", LoadWords.answer(load)));
        above.addAll(LoadWords.remarks(load));
        List<Head> heads = List.of(number(""), text("table"), number("rows"), number("get in"), sentence("refused"));
        try (Sheet sheet = sheet("load", above, heads)) {
            long place = 0;
            for (LoadResult.LoadedTable table : load.tables()) {
                String refused =
                        table.refusals().stream().map(LoadWords::refused).collect(Collectors.joining("; "));
                sheet.add(List.of(++place, table.name(), table.rows(), table.loaded(), refused));
            }
        }
    }

    private void writeFindings(FindingSentences sentences) {
        if (result.findings().isEmpty()) {
            return;
        }
        List<Head> heads = List.of(
                number("sheet"),
                text("severity"),
                text("finding"),
                text("table"),
                text("at"),
                number("rows"),
                sentence("what it is"));
        try (Sheet sheet = sheet("findings", List.of("Findings, in the order in which they are best mended"), heads)) {
            long place = 0;
            for (Finding finding : result.findings()) {
                sheet.add(List.of(
                        ++place,
                        finding.severity().word(),
                        finding.kind().words(),
                        finding.table(),
                        finding.at(),
                        finding.rows(),
                        String.join("; ", sentences.of(finding))));
            }
        }
    }

    private void writeRows(Finding finding, FindingSentences sentences, int place) {
        EvidenceFields fields = new EvidenceFields(result, finding);
        boolean isMalformed = finding.kind() == FindingKind.MALFORMED_ROW;
        boolean isGrouped = finding.kind().isGrouped();
        List<String> above = new ArrayList<>(List.of(finding.severity().word() + ": "
                + finding.kind().words() + " at " + FindingSentences.place(finding) + ", "
                + FindingSentences.rows(finding)));
        above.addAll(sentences.of(finding));
        List<Head> heads = new ArrayList<>(List.of(number("row"), number("line"), text("file")));
        if (isGrouped) {
            heads.add(number("group"));
        }
        heads.add(text("what is wrong"));
        heads.add(text("hint"));
        List<CellValue> values = new ArrayList<>();
        if (isMalformed) {
            heads.add(sentence("the line as it stands"));
        } else {
            for (String column : fields.table().columns()) {
                boolean isMarked = finding.columns().contains(column);
                heads.add(new Head(column + (isMarked ? " (at fault)" : ""), TEXT_WIDTH, isMarked));
                values.add(new CellValue(charter.table(finding.table()).column(column)));
            }
        }
        try (Sheet sheet = sheet(place + " " + finding.kind().words() + " " + finding.at(), above, heads)) {
            finding.evidence().forEach(row -> sheet.add(cells(finding, row, isGrouped, isMalformed, values)));
        }
    }

    private static List<Object> cells(
            Finding finding, Evidence row, boolean isGrouped, boolean isMalformed, List<CellValue> values) {
        List<Object> cells = new ArrayList<>();
        cells.add(row.row());
        cells.add(row.line() > 0 ? row.line() : null);
        cells.add(row.part());
        if (isGrouped) {
            cells.add(row.group());
        }
        String differs = row.differsIn().isEmpty() ? "" : "differs in " + String.join(", ", row.differsIn());
        String problem = row.problem().isEmpty() ? finding.kind().words() : row.problem();
        cells.add(differs.isEmpty() || problem.contains(differs) ? problem : problem + "; " + differs);
        cells.add(row.hint().map(hint -> hint.words()).orElse(null));
        if (isMalformed) {
            cells.add(row.raw());
        }
        for (int i = 0; i < row.values().size() && i < values.size(); i++) {
            cells.add(values.get(i).of(row.values().get(i)));
        }
        return cells;
    }
}
