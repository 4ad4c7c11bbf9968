package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.charter.Severity;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.ResultComparison;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.CompareWords;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.FindingSentences;

/** The result of a check for a person: the answer first, then a line a table, then the findings, the worst first. */
public final class CheckText implements ResultText {
    private static final int INDENT = 4;

    private final CheckResult result;
    private final Paper paper;
    private final String charter;

    /** For a charter of the usual name. */
    public CheckText(CheckResult result, Paper paper) {
        this(result, "charter.yaml", paper);
    }

    /**
     * @param charter as it was named
     * @param paper takes it
     */
    public CheckText(CheckResult result, String charter, Paper paper) {
        this.result = result;
        this.charter = charter;
        this.paper = paper;
    }

    /** Some findings of a result, with their rows. */
    static void writeFindings(CheckResult result, List<Finding> findings, Paper paper) {
        CheckText report = new CheckText(result, paper);
        for (Finding finding : findings) {
            paper.gap();
            report.writeFinding(finding);
        }
    }

    @Override
    public void write() {
        writeAnswer();
        result.since().ifPresent(this::writeSince);
        paper.gap();
        writeTables();
        new CausesText(result.causes(), charter, paper).write();
        result.load().ifPresent(load -> LoadText.write(load, paper));
        for (Finding finding : result.findings()) {
            paper.gap();
            writeFinding(finding);
        }
        writeRemarks();
    }

    @Override
    public void writeAnswer() {
        String answer = result.answer();
        Style style = result.isSound() ? Style.GOOD : Style.ERROR;
        paper.answer(result.title(), answer, style);
        String findings = result.findings().isEmpty()
                ? "no findings"
                : Counted.of(result.findings().size(), "finding") + " (" + bySeverity() + ")";
        String rows = result.faultyRows() == 0
                ? Counted.of(result.rows(), "row") + ", none at fault"
                : Counted.grouped(result.faultyRows()) + " of " + Counted.of(result.rows(), "row") + " at fault";
        paper.paragraph(findings + " in " + Counted.of(result.tables().size(), "table") + "; " + rows, 0);
    }

    private void writeSince(ResultComparison since) {
        paper.gap();
        String about = "since " + CompareWords.moment(since.earlier().made());
        paper.paragraph(
                Style.STRONG.apply(about, paper.hasColor()) + ": " + CompareWords.answer(since), 0, Paragraph.HANGING);
        if (!since.areRowsKnown()) {
            paper.paragraph(CompareWords.UNDER_OTHER_KEYS, INDENT);
        }
        if (!since.shifts().isEmpty()) {
            ShiftsText.write(since.shifts(), paper);
        }
    }

    private String bySeverity() {
        return Stream.of(Severity.values())
                .filter(severity -> result.count(severity) > 0)
                .map(severity -> Counted.of(result.count(severity), severity.word()))
                .collect(Collectors.joining(", "));
    }

    private void writeTables() {
        Grid grid = new Grid();
        grid.addColumn("table", Grid.Kind.TEXT);
        grid.addColumn("rows", Grid.Kind.NUMBER);
        grid.addColumn("at fault", Grid.Kind.NUMBER);
        grid.addColumn("rows by kind", Grid.Kind.TEXT);
        for (TableResult table : result.tables()) {
            grid.addRow(List.of(
                    Cell.of(CellText.escaped(table.name())),
                    Cell.of(Counted.grouped(table.rows())),
                    Cell.of(table.faultyRows() == 0 ? "" : Counted.grouped(table.faultyRows())),
                    findingsOf(table)));
        }
        paper.grid(grid, 0);
    }

    private Cell findingsOf(TableResult table) {
        String kinds = new FindingSentences(result).kindsOf(table);
        return kinds.isEmpty() ? new Cell("sound", Style.GOOD) : Cell.of(kinds);
    }

    private void writeFinding(Finding finding) {
        String kind = finding.kind().words() + " at " + FindingSentences.place(finding);
        paper.paragraph(
                Style.of(finding.severity()).apply(finding.severity().word(), paper.hasColor()) + "  "
                        + Style.STRONG.apply(kind, paper.hasColor()) + ": "
                        + FindingSentences.rows(finding),
                0,
                Paragraph.HANGING);
        for (String sentence : new FindingSentences(result).of(finding)) {
            paper.paragraph(sentence, INDENT);
        }
        writeExamples(finding);
    }

    private void writeExamples(Finding finding) {
        if (finding.examples().isEmpty()) {
            return;
        }
        EvidenceFields fields = new EvidenceFields(result, finding);
        boolean hasParts = fields.table().files().size() > 1;
        boolean isGrouped = finding.kind().isGrouped();
        boolean isMalformed = finding.kind() == FindingKind.MALFORMED_ROW;
        List<String> shown = isMalformed ? List.of() : fields.shown();
        Grid grid = new Grid();
        if (hasParts) {
            grid.addColumn("file", Grid.Kind.TEXT);
        }
        boolean areNumbered = fields.areNumbered();
        if (areNumbered) {
            grid.addColumn("row", Grid.Kind.NUMBER);
        }
        boolean hasLines = finding.examples().stream().anyMatch(row -> row.line() > 0);
        if (hasLines) {
            grid.addColumn("line", Grid.Kind.NUMBER);
        }
        if (isGrouped) {
            grid.addColumn("group", Grid.Kind.NUMBER);
        }
        shown.forEach(column -> grid.addColumn(
                CellText.escaped(column),
                finding.columns().contains(column) || fields.table().key().contains(column)
                        ? Grid.Kind.KEPT
                        : Grid.Kind.TEXT));
        grid.addColumn("", Grid.Kind.TEXT);
        for (Evidence row : finding.examples()) {
            List<Cell> cells = new ArrayList<>();
            if (hasParts) {
                cells.add(Cell.of(CellText.escaped(row.part())));
            }
            if (areNumbered) {
                cells.add(Cell.of(Counted.grouped(row.row())));
            }
            if (hasLines) {
                cells.add(Cell.of(Counted.grouped(row.line())));
            }
            if (isGrouped) {
                cells.add(Cell.of(Counted.grouped(row.group())));
            }
            for (String column : shown) {
                boolean isAtFault = finding.columns().contains(column);
                String cell = fields.cell(row, column).orElse(null);
                cells.add(new Cell(
                        CellText.of(cell), isAtFault ? Style.VALUE : cell == null ? Style.FAINT : Style.PLAIN));
            }
            String remark = CellText.escaped(remark(finding, row));
            cells.add(Cell.of(row.raw().isEmpty() ? remark : remark + Grid.NEXT_LINE + CellText.shortened(row.raw())));
            grid.addRow(cells);
        }
        paper.grid(grid, INDENT);
        long more = finding.rows() - finding.examples().size();
        if (more > 0) {
            paper.paragraph(Style.FAINT.apply("and " + Counted.of(more, "more row"), paper.hasColor()), INDENT);
        }
    }

    /** What is to be said about one row; that a condition is false needs no saying where it stands above. */
    private static String remark(Finding finding, Evidence row) {
        String remark = EvidenceFields.remark(row);
        boolean isFalseAlone = finding.details() instanceof Finding.Broken broken
                && broken.reasons().size() == 1
                && broken.reasons().get(0).words().equals(Finding.Broken.FALSE);
        if (!isFalseAlone || !remark.startsWith(Finding.Broken.FALSE)) {
            return remark;
        }
        String more = remark.substring(Finding.Broken.FALSE.length());
        return more.startsWith(": ") ? more.substring(2) : more;
    }

    private void writeRemarks() {
        List<String> remarks = new ArrayList<>();
        for (TableResult table : result.tables()) {
            table.remarks().forEach(remark -> remarks.add(table.name() + ": " + remark.text()));
            if (table.emptyLines() > 0) {
                remarks.add(table.name() + ": " + Counted.of(table.emptyLines(), "empty line") + " passed over");
            }
        }
        if (!remarks.isEmpty()) {
            paper.gap();
            remarks.forEach(remark -> paper.faint(CellText.escaped(remark), 0, 0));
        }
    }
}
