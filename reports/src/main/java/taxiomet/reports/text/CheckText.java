package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.charter.Severity;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.finding.Finding.Reason;
import taxiomet.finding.FindingKind;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.text.Grid.Cell;

/** The result of a check for a person: the answer first, then a line a table, then the findings, the worst first. */
public final class CheckText implements ResultText {
    private static final int VALUES_SHOWN = 3;
    private static final int GAPS_SHOWN = 12;
    private static final int INDENT = 4;
    private static final int LONGEST_DECLARED = 200;

    private final CheckResult result;
    private final int width;
    private final boolean hasColor;
    private final Consumer<String> out;
    private final String charter;

    /** For a result of which no command is to be told. */
    public CheckText(CheckResult result, int width, boolean hasColor, Consumer<String> out) {
        this(result, "charter.yaml", width, hasColor, out);
    }

    /**
     * @param charter as it was named
     * @param width of a line, in columns of a terminal
     * @param out takes one line at a time, without its end
     */
    public CheckText(CheckResult result, String charter, int width, boolean hasColor, Consumer<String> out) {
        this.result = result;
        this.charter = charter;
        this.width = width;
        this.hasColor = hasColor;
        this.out = out;
    }

    /** Some findings of a result, with their rows. */
    static void writeFindings(
            CheckResult result, List<Finding> findings, int width, boolean hasColor, Consumer<String> out) {
        CheckText report = new CheckText(result, width, hasColor, out);
        for (Finding finding : findings) {
            out.accept("");
            report.writeFinding(finding);
        }
    }

    @Override
    public void write() {
        writeAnswer();
        out.accept("");
        writeTables();
        new CausesText(result.causes(), charter, width, hasColor, out).write();
        for (Finding finding : result.findings()) {
            out.accept("");
            writeFinding(finding);
        }
        writeRemarks();
    }

    @Override
    public void writeAnswer() {
        String answer = result.answer();
        Style style = result.isSound() ? Style.GOOD : Style.ERROR;
        Paragraph.answer(result.title(), answer, style, hasColor, width).forEach(out);
        String findings = result.findings().isEmpty()
                ? "no findings"
                : Counted.of(result.findings().size(), "finding") + " (" + bySeverity() + ")";
        String rows = result.faultyRows() == 0
                ? Counted.of(result.rows(), "row") + ", none at fault"
                : Counted.grouped(result.faultyRows()) + " of " + Counted.of(result.rows(), "row") + " at fault";
        Paragraph.lines(findings + " in " + Counted.of(result.tables().size(), "table") + "; " + rows, 0, width)
                .forEach(out);
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
        grid.lines(0, width, hasColor).forEach(out);
    }

    private Cell findingsOf(TableResult table) {
        TreeMap<FindingKind, Long> kinds = new TreeMap<>();
        result.findings().stream()
                .filter(finding -> finding.table().equals(table.name()))
                .forEach(finding -> kinds.merge(finding.kind(), finding.rows(), Long::sum));
        if (kinds.isEmpty()) {
            return new Cell("sound", Style.GOOD);
        }
        String text = kinds.entrySet().stream()
                .map(kind -> kind.getKey().hasNoRows()
                        ? kind.getKey().words()
                        : kind.getKey().words() + " " + Counted.grouped(kind.getValue()))
                .collect(Collectors.joining(", "));
        return Cell.of(text);
    }

    private void writeFinding(Finding finding) {
        String place = finding.kind() == FindingKind.MALFORMED_ROW
                ? finding.table()
                : finding.table().isEmpty() ? finding.at() : finding.table() + "." + finding.at();
        String kind = finding.kind().words() + " at " + CellText.escaped(place);
        String where = finding.details() instanceof Finding.Undeclared lost
                ? CellText.escaped(lost.place())
                : finding.details() instanceof Finding.Gaps gaps
                        ? Counted.of(gaps.missing(), "number") + " in " + Counted.of(gaps.ranges(), "gap")
                        : Counted.of(finding.rows(), "row");
        Paragraph.lines(
                        Style.of(finding.severity()).apply(finding.severity().word(), hasColor) + "  "
                                + Style.STRONG.apply(kind, hasColor) + ": " + where,
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
        for (String sentence : sentences(finding)) {
            Paragraph.lines(sentence, INDENT, width).forEach(out);
        }
        writeExamples(finding);
    }

    /** What there is to say about a finding as a whole. */
    private List<String> sentences(Finding finding) {
        List<String> sentences = new ArrayList<>();
        Finding.Details details = finding.details();
        if (details instanceof Finding.Missing missing) {
            sentences.add(linkSentence(finding, missing));
            sentences.add(missingSentence(finding, missing));
            missing.consequences().forEach(consequence -> sentences.add(consequenceSentence(consequence)));
        } else if (details instanceof Finding.Duplicates duplicates) {
            sentences.add("(" + String.join(", ", finding.columns()) + "): " + Counted.of(duplicates.groups(), "value")
                    + (duplicates.groups() == 1 ? " stands" : " stand") + " more than once, "
                    + Counted.of(duplicates.excess(), "row") + " beyond the first");
        } else if (details instanceof Finding.Rings rings) {
            sentences.add(Counted.of(rings.rings(), "ring") + " over (" + String.join(", ", finding.columns())
                    + "): whoever follows the link from such a row comes back to it");
        } else if (details instanceof Finding.Children children) {
            sentences.add("each row should have " + wanted(children.range()) + " in " + children.child() + " (link "
                    + children.link() + ")");
        } else if (details instanceof Finding.Undeclared lost) {
            sentences.add("a " + lost.what() + " is left out: "
                    + CellText.escaped(CellText.cut(lost.declared(), LONGEST_DECLARED)));
            sentences.add(CellText.escaped(lost.problem()));
        } else if (details instanceof Finding.Gaps gaps) {
            sentences.add("no row has "
                    + gaps.first().stream()
                            .limit(GAPS_SHOWN)
                            .map(gap -> gap.from() == gap.to()
                                    ? String.valueOf(gap.from())
                                    : gap.from() + " to " + gap.to())
                            .collect(Collectors.joining(", "))
                    + (gaps.ranges() > GAPS_SHOWN ? ", ..." : ""));
        } else if (details instanceof Finding.Broken broken) {
            sentences.add(CellText.escaped(broken.condition()));
            ruleSentence(finding).ifPresent(sentences::add);
        } else if (details instanceof Finding.Reasons reasons) {
            if (!reasons.declared().isEmpty()) {
                sentences.add("declared: " + CellText.escaped(CellText.cut(reasons.declared(), LONGEST_DECLARED)));
            }
            if (reasons.reasons().size() > 1) {
                sentences.add(reasons.reasons().stream()
                        .limit(VALUES_SHOWN)
                        .map(CheckText::counted)
                        .collect(Collectors.joining("; ")));
            }
        }
        return sentences;
    }

    /** How many children there should be, in words. */
    private static String wanted(String range) {
        int dots = range.indexOf("..");
        String least = dots < 0 ? range : range.substring(0, dots);
        String most = dots < 0 ? range : range.substring(dots + 2);
        String children = (most.isEmpty() ? least : most).equals("1") ? " child" : " children";
        if (most.isEmpty()) {
            return "at least " + least + children;
        } else if (least.equals(most)) {
            return "exactly " + most + children;
        }
        return least.equals("0") ? "at most " + most + children : least + " to " + most + children;
    }

    private static String counted(Reason reason) {
        return Counted.of(reason.rows(), "row") + ": " + reason.words();
    }

    private Optional<String> ruleSentence(Finding finding) {
        return result.rules().stream()
                .filter(rule ->
                        rule.table().equals(finding.table()) && rule.name().equals(finding.at()))
                .filter(rule -> rule.notJudged() > 0)
                .findFirst()
                .map((RuleResult rule) -> Counted.of(rule.notJudged(), "row")
                        + (rule.notJudged() == 1 ? " was" : " were") + " not judged: a value "
                        + (rule.asksChildren() ? "of theirs or of their children " : "") + "is not of its type"
                        + (rule.asksParents() ? ", or there is no parent" : ""));
    }

    private String linkSentence(Finding finding, Finding.Missing missing) {
        LinkResult link = result.links().stream()
                .filter(l -> l.child().equals(finding.table()) && l.name().equals(missing.link()))
                .findFirst()
                .orElseThrow();
        List<String> asides = new ArrayList<>();
        if (link.nulls() > 0) {
            asides.add(Counted.grouped(link.nulls()) + " null");
        }
        if (link.halfNulls() > 0) {
            asides.add(Counted.grouped(link.halfNulls()) + " half-null");
        }
        if (link.illTyped() > 0) {
            asides.add(Counted.grouped(link.illTyped()) + " ill-typed");
        }
        return "(" + String.join(", ", link.columns()) + ") points at " + link.parent() + " ("
                + String.join(", ", link.parentColumns()) + "): " + Counted.grouped(link.orphans()) + " of "
                + Counted.grouped(link.judged()) + " judged " + (link.judged() == 1 ? "row" : "rows")
                + (link.orphans() == 1 ? " has" : " have")
                + " no parent"
                + (asides.isEmpty() ? "" : "; " + String.join(", ", asides));
    }

    private static String missingSentence(Finding finding, Finding.Missing missing) {
        String values = missing.commonest().stream()
                .limit(VALUES_SHOWN)
                .map(value -> shown(value) + (value.rows() == 1 ? "" : " (" + Counted.of(value.rows(), "row") + ")"))
                .collect(Collectors.joining(", "));
        if (missing.distinct() == 1) {
            return finding.rows() == 1 ? "missing: " + values : "one value explains them all: " + values;
        }
        String all = Counted.of(missing.distinct(), "value") + " missing";
        return all + (missing.distinct() > VALUES_SHOWN ? ", the commonest " : ": ") + values;
    }

    private static String consequenceSentence(Finding.Consequence consequence) {
        String rows = Counted.of(consequence.rows(), "row") + (consequence.rows() == 1 ? " bears" : " bear")
                + " the key of a row of " + CellText.escaped(consequence.table()) + " that ";
        return rows
                + switch (consequence.kind()) {
                    case MALFORMED_ROW -> "is malformed";
                    case NULL_IN_KEY -> "has a null in it";
                    default -> "has it otherwise than its type asks";
                }
                + (consequence.rows() == 1 ? ": it follows from that" : ": they follow from that");
    }

    private static String shown(MissingValue value) {
        String cells = value.values().stream().map(CellText::of).collect(Collectors.joining(", "));
        return value.values().size() == 1 ? cells : "(" + cells + ")";
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
        grid.addColumn("row", Grid.Kind.NUMBER);
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
            cells.add(Cell.of(Counted.grouped(row.row())));
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
        grid.lines(INDENT, width, hasColor).forEach(out);
        long more = finding.rows() - finding.examples().size();
        if (more > 0) {
            Paragraph.lines(Style.FAINT.apply("and " + Counted.of(more, "more row"), hasColor), INDENT, width)
                    .forEach(out);
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
            out.accept("");
            remarks.forEach(remark -> Paragraph.lines(CellText.escaped(remark), 0, width)
                    .forEach(line -> out.accept(Style.FAINT.apply(line, hasColor))));
        }
    }
}
