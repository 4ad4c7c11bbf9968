package taxiomet.reports.html;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import taxiomet.finding.Cause;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.finding.LoadResult;
import taxiomet.finding.MapResult;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.html.CheckPage.CauseItem;
import taxiomet.reports.html.CheckPage.CellItem;
import taxiomet.reports.html.CheckPage.FindingItem;
import taxiomet.reports.html.CheckPage.Head;
import taxiomet.reports.html.CheckPage.LoadItem;
import taxiomet.reports.html.CheckPage.LoadedItem;
import taxiomet.reports.html.CheckPage.TableItem;
import taxiomet.reports.html.CheckPage.ValueItem;
import taxiomet.reports.map.MapSvg;
import taxiomet.reports.text.CheckText;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.words.CauseWords;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.FindingSentences;
import taxiomet.reports.words.LoadWords;

/** The result of a check as a page: the answer, where to begin, the tables, then each finding with its rows. */
public final class CheckHtml {
    private static final int CAUSES_SHOWN = 50;
    /** So many rows of a finding stand in the page, and so many of all findings together. */
    private static final int ROWS_SHOWN = 500;

    private static final int ROWS_IN_ALL = 20_000;
    private static final int VALUES_SHOWN = 10;

    private final CheckResult result;
    private final String charter;
    private final MapResult map;
    private int rowsLeft = ROWS_IN_ALL;

    private CheckHtml(CheckResult result, String charter, MapResult map) {
        this.result = result;
        this.charter = charter;
        this.map = map;
    }

    /**
     * Writes a result.
     *
     * @param charter as it was named
     * @param made when the result was made, and of what
     * @param map of the tables, with their health
     * @throws taxiomet.reports.OutputException when the file cannot be written
     */
    public static void write(CheckResult result, String charter, String made, MapResult map, Path file) {
        CheckPage page = new CheckHtml(result, charter, map).page();
        Page.write(
                "check.jte",
                Map.of("page", page, "shell", Shell.of("findings.js", made).withStyle(MapHtml.STYLE)),
                file);
    }

    private CheckPage page() {
        List<String> answer = new ArrayList<>();
        new CheckText(result, charter, LinePaper.unbroken(answer::add)).writeAnswer();
        FindingSentences sentences = new FindingSentences(result);
        List<FindingItem> findings = new ArrayList<>();
        for (Finding finding : result.findings()) {
            findings.add(finding(finding, sentences, findings.size() + 1));
        }
        int more = result.causes().size() - CAUSES_SHOWN;
        return new CheckPage(
                CellText.escaped(result.title()),
                result.answer(),
                result.isSound(),
                answer.subList(1, answer.size()).stream()
                        .map(line -> line + ".")
                        .toList(),
                result.causes().stream().limit(CAUSES_SHOWN).map(this::cause).toList(),
                more > 0 ? "and " + Counted.of(more, "more cause") + "; the workbook and the JSON have them all" : "",
                result.tables().stream().map(table -> table(table, sentences)).toList(),
                remarks(),
                MapSvg.inPage(map),
                result.load().map(CheckHtml::load).orElse(null),
                findings);
    }

    private CauseItem cause(Cause cause) {
        return new CauseItem(
                CellText.escaped(CauseWords.toDo(cause)),
                CellText.escaped(CauseWords.cures(cause)),
                CellText.escaped(CauseWords.command(cause, charter)));
    }

    private static TableItem table(TableResult table, FindingSentences sentences) {
        double share = table.rows() == 0 ? 0 : 100.0 * table.faultyRows() / table.rows();
        String kinds = sentences.kindsOf(table);
        // What is there at all is to be seen.
        double width = share > 0 ? Math.max(share, 1) : 0;
        return new TableItem(
                CellText.escaped(table.name()),
                Counted.grouped(table.rows()),
                table.faultyRows() == 0 ? "" : Counted.grouped(table.faultyRows()),
                String.format(Locale.ROOT, "%.1f in 100 rows", share),
                String.format(Locale.ROOT, "%.2f", width),
                kinds.isEmpty() ? "sound" : kinds);
    }

    private List<String> remarks() {
        List<String> remarks = new ArrayList<>();
        for (TableResult table : result.tables()) {
            table.remarks().forEach(remark -> remarks.add(CellText.escaped(table.name() + ": " + remark.text())));
        }
        return remarks;
    }

    private static LoadItem load(LoadResult load) {
        List<LoadedItem> tables = new ArrayList<>();
        for (LoadResult.LoadedTable table : load.tables()) {
            tables.add(new LoadedItem(
                    String.valueOf(tables.size() + 1),
                    CellText.escaped(table.name()),
                    Counted.grouped(table.rows()),
                    Counted.grouped(table.loaded()),
                    table.refusals().stream()
                            .map(refusal -> CellText.escaped(LoadWords.refused(refusal)))
                            .toList()));
        }
        return new LoadItem(
                CellText.escaped(LoadWords.answer(load)),
                tables,
                LoadWords.remarks(load).stream().map(CellText::escaped).toList());
    }

    private FindingItem finding(Finding finding, FindingSentences sentences, int place) {
        List<Head> heads = new ArrayList<>();
        List<List<CellItem>> lines = new ArrayList<>();
        if (!finding.kind().hasNoRows()) {
            addRows(finding, heads, lines);
        }
        long more = finding.kind().hasNoRows() ? 0 : finding.rows() - lines.size();
        return new FindingItem(
                "finding-" + place,
                finding.severity().word(),
                finding.kind().words(),
                CellText.escaped(finding.table()),
                FindingSentences.place(finding),
                FindingSentences.rows(finding),
                sentences.of(finding),
                commonest(finding),
                heads,
                lines,
                more > 0
                        ? "and " + Counted.of(more, "more row")
                                + "; taxiomet check --report FILE.xlsx or --evidence DIR writes them all"
                        : "",
                "taxiomet meaning " + finding.kind().words().replace(' ', '-'));
    }

    private static List<ValueItem> commonest(Finding finding) {
        if (!(finding.details() instanceof Finding.Missing missing) || missing.distinct() < 2) {
            return List.of();
        }
        long most = missing.commonest().stream()
                .mapToLong(Finding.MissingValue::rows)
                .max()
                .orElse(1);
        return missing.commonest().stream()
                .limit(VALUES_SHOWN)
                .map(value -> new ValueItem(
                        String.join(
                                ", ", value.values().stream().map(CellText::of).toList()),
                        Counted.grouped(value.rows()),
                        String.format(Locale.ROOT, "%.2f", 100.0 * value.rows() / most),
                        value.hint().map(Hint::words).map(CellText::escaped).orElse("")))
                .toList();
    }

    private void addRows(Finding finding, List<Head> heads, List<List<CellItem>> lines) {
        EvidenceFields fields = new EvidenceFields(result, finding);
        boolean hasParts = fields.table().files().size() > 1;
        boolean isGrouped = finding.kind().isGrouped();
        boolean isMalformed = finding.kind() == FindingKind.MALFORMED_ROW;
        List<String> shown = isMalformed ? List.of() : fields.shown();
        if (hasParts) {
            heads.add(new Head("file", ""));
        }
        boolean areNumbered = fields.areNumbered();
        if (areNumbered) {
            heads.add(new Head("row", "n"));
            heads.add(new Head("line", "n"));
        }
        if (isGrouped) {
            heads.add(new Head("group", "n"));
        }
        for (String column : shown) {
            boolean isMarked = finding.columns().contains(column);
            heads.add(new Head(CellText.escaped(column) + (isMarked ? " (at fault)" : ""), isMarked ? "mark" : ""));
        }
        heads.add(new Head(isMalformed ? "the line as it stands" : "what is wrong", ""));
        int most = Math.min(ROWS_SHOWN, rowsLeft);
        finding.evidence().first(most, row -> {
            List<CellItem> cells = new ArrayList<>();
            if (hasParts) {
                cells.add(new CellItem(CellText.escaped(row.part()), ""));
            }
            if (areNumbered) {
                cells.add(new CellItem(Counted.grouped(row.row()), "n"));
                cells.add(new CellItem(row.line() > 0 ? Counted.grouped(row.line()) : "", "n"));
            }
            if (isGrouped) {
                cells.add(new CellItem(Counted.grouped(row.group()), "n"));
            }
            for (String column : shown) {
                String cell = fields.cell(row, column).orElse(null);
                cells.add(new CellItem(
                        cell == null ? null : CellText.of(cell),
                        finding.columns().contains(column) ? "mark" : ""));
            }
            cells.add(new CellItem(remark(row, isMalformed), "remark"));
            lines.add(cells);
        });
        rowsLeft -= lines.size();
    }

    private static String remark(Evidence row, boolean isMalformed) {
        String remark = CellText.escaped(EvidenceFields.remark(row));
        return isMalformed ? remark + ": " + CellText.shortened(row.raw()) : remark;
    }
}
