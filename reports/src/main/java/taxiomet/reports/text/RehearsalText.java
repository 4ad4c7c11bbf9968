package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.charter.NotRead;
import taxiomet.charter.Severity;
import taxiomet.finding.ProofResult;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.Divergence;
import taxiomet.finding.RehearsalResult.EffectCount;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.finding.RehearsalResult.LinkActions;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.finding.RehearsalResult.TableChange;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.finding.RehearsalResult.Ways;
import taxiomet.finding.settled.DocketDecisions;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** The result of a rehearsal for a person: the answer first, then each change, then what it comes to as a whole; in one file, in
 * the order in which it is read. */
public final class RehearsalText implements ResultText {
    private static final int INDENT = 4;
    private static final int MOST_NAMED = 8;
    /** A statement is shown to so many characters; the JSON has it whole. */
    private static final int LONGEST = 120;

    private final RehearsalResult result;
    private final Optional<ProofResult> proof;
    private final Optional<DocketDecisions> decisions;
    private final Paper paper;

    /**
     * @param proof what a database made of it, where one was asked
     * @param paper takes it
     */
    public RehearsalText(RehearsalResult result, Optional<ProofResult> proof, Paper paper) {
        this(result, proof, Optional.empty(), paper);
    }

    /**
     * A rehearsal of what was decided in dockets.
     *
     * @param decisions what became of the decisions
     */
    public RehearsalText(
            RehearsalResult result, Optional<ProofResult> proof, Optional<DocketDecisions> decisions, Paper paper) {
        this.result = result;
        this.proof = proof;
        this.decisions = decisions;
        this.paper = paper;
    }

    @Override
    public void write() {
        writeAnswer();
        decisions.ifPresent(told -> {
            paper.gap();
            DocketText.writeDecisions(told, paper);
        });
        writeLinks();
        for (int i = 0; i < result.changes().size(); i++) {
            paper.gap();
            writeChange(i + 1, result.changes().get(i));
        }
        writeEnd();
        writeTables();
        writeFindings("findings added", Style.ERROR, result.added());
        writeFindings("findings mended", Style.GOOD, result.mended());
        writeElsewhere();
        writeNotRead();
        proof.ifPresent(done -> new ProofText(done, paper).write());
    }

    @Override
    public void writeAnswer() {
        boolean isAccepted = result.isAccepted();
        String answer = result.answer();
        String idle = idle();
        boolean isGood = result.added().isEmpty()
                && idle.isEmpty()
                && result.severities().noneMatch(severity -> severity.isAtLeast(Severity.WARNING));
        Style style = isAccepted ? isGood ? Style.GOOD : Style.WARNING : Style.ERROR;
        answer += idle;
        if (proof.isPresent() && proof.get().agrees()) {
            answer += ", and proved";
        } else if (proof.isPresent()) {
            answer += ", but the database does otherwise";
            style = Style.ERROR;
        }
        paper.answer(result.title(), answer, style);
        paragraph(summary(), 0);
    }

    /** Which changes meet no row: said with the answer, since nothing happened where something was meant to. */
    private String idle() {
        List<String> idle = new ArrayList<>();
        for (int i = 0; i < result.changes().size(); i++) {
            if (result.changes().get(i).isIdle()) {
                idle.add(String.valueOf(i + 1));
            }
        }
        if (idle.isEmpty()) {
            return "";
        }
        if (result.changes().size() == 1) {
            return ", but the change meets no row";
        }
        boolean isOne = idle.size() == 1;
        String which = idle.size() > MOST_NAMED
                ? String.join(", ", idle.subList(0, MOST_NAMED)) + " and " + (idle.size() - MOST_NAMED) + " more"
                : String.join(", ", idle);
        return ", but " + (isOne ? "change " : "changes ") + which + (isOne ? " meets" : " meet") + " no row";
    }

    private void writeNotRead() {
        if (result.notRead().isEmpty()) {
            return;
        }
        paper.gap();
        paper.paragraph(
                Style.WARNING.apply("declared, and not read", paper.hasColor()) + ": the rehearsal knows nothing of it",
                0,
                Paragraph.HANGING);
        for (NotRead lost : result.notRead()) {
            String at = lost.table().map(table -> table + ".").orElse("") + lost.name();
            paragraph(
                    CellText.escaped(lost.what().word() + " " + at + ": " + CellText.cut(lost.declared(), LONGEST)),
                    INDENT);
        }
    }

    private String summary() {
        long blocked = result.changes().stream().filter(c -> !c.isAccepted()).count();
        String changes = Counted.of(result.changes().size(), "change");
        if (blocked == 1 && result.changes().size() == 1) {
            changes += ", blocked";
        } else if (blocked > 0) {
            changes += ", " + Counted.grouped(blocked) + " of them blocked";
        }
        String rows;
        if (result.tables().isEmpty()) {
            rows = "no row would change";
        } else {
            long deleted =
                    result.tables().stream().mapToLong(TableChange::deleted).sum();
            long changed =
                    result.tables().stream().mapToLong(TableChange::changed).sum();
            long inserted =
                    result.tables().stream().mapToLong(TableChange::inserted).sum();
            List<String> parts = new ArrayList<>();
            addPart(parts, deleted, "deleted");
            addPart(parts, changed, "changed");
            addPart(parts, inserted, "inserted");
            rows = String.join(", ", parts) + " in "
                    + Counted.of(result.tables().size(), "table");
        }
        return changes + "; " + rows + "; rehearsed as " + behaviour()
                + (result.behaviour().equals("standard") ? " has it" : " does it");
    }

    private static void addPart(List<String> parts, long count, String what) {
        if (count > 0) {
            parts.add(Counted.of(count, "row") + " " + what);
        }
    }

    private String behaviour() {
        return switch (result.behaviour()) {
            case "postgresql" -> "PostgreSQL";
            case "sqlite" -> "SQLite";
            case "mariadb" -> "MariaDB";
            default -> "the SQL standard";
        };
    }

    private void paragraph(String text, int indent) {
        paper.paragraph(text, indent);
    }

    /** The links that the proposal meets, with what the charter has them do. */
    private void writeLinks() {
        if (result.links().isEmpty()) {
            return;
        }
        paper.gap();
        Grid grid = new Grid();
        grid.addColumn("link", Grid.Kind.KEPT);
        grid.addColumn("from", Grid.Kind.TEXT);
        grid.addColumn("to", Grid.Kind.TEXT);
        grid.addColumn("on delete", Grid.Kind.KEPT);
        grid.addColumn("on update", Grid.Kind.TEXT);
        for (LinkActions link : result.links()) {
            String note = link.isEnforced() ? "" : " (not enforced)";
            grid.addRow(List.of(
                    Cell.of(CellText.escaped(link.name())),
                    Cell.of(CellText.escaped(link.child())),
                    Cell.of(CellText.escaped(link.parent())),
                    Cell.of(link.onDelete()),
                    Cell.of(link.onUpdate() + note)));
        }
        paper.grid(grid, 0);
    }

    private void writeChange(int number, ChangeResult change) {
        String answer = change.answer();
        Style style = change.isAccepted() ? Style.GOOD : Style.ERROR;
        paper.paragraph(
                style.apply(answer, paper.hasColor()) + "  " + Style.STRONG.apply("change " + number, paper.hasColor())
                        + ": " + CellText.escaped(CellText.cut(change.words(), LONGEST)),
                0,
                Paragraph.HANGING);
        paragraph(
                (inserts(change) ? "inserts " : "selects ")
                        + (change.isIdle()
                                ? Style.WARNING.apply("no row", paper.hasColor())
                                : Counted.of(change.direct(), "row"))
                        + (change.place().isEmpty() ? "" : " (" + CellText.escaped(change.place()) + ")"),
                INDENT);
        writeRefusals(change.refusals());
        if (change.passesAfter() > 0) {
            paragraph("it would pass if change " + change.passesAfter() + " came before it", INDENT);
        }
        writeEffects(change);
        if (change.isAccepted()) {
            writeTotals(change.totals(), INDENT);
        }
        if (change.keptByTwins() > 0) {
            paragraph(
                    "of " + Counted.of(change.keptByTwins(), "row")
                            + " the key stands in another row as well (a duplicate): nothing"
                            + " that points at it was touched",
                    INDENT);
        }
    }

    private static boolean inserts(ChangeResult change) {
        return change.effects().stream()
                .anyMatch(effect -> effect.steps() == 0 && effect.kind() == EffectKind.INSERTED);
    }

    private void writeRefusals(List<RefusalResult> refusals) {
        for (RefusalResult refusal : refusals) {
            String row = refusal.kind() == RefusalKind.STILL_REFERENCED
                    ? Counted.of(refusal.rows(), "row") + " of " + CellText.escaped(refusal.table()) + " still "
                            + (refusal.rows() == 1 ? "points" : "point")
                            + (refusal.isOfKey() ? " at the key that would change" : " at what would go")
                    : refusal.kind().words() + (refusal.rows() == 0 ? "" : " in " + Counted.of(refusal.rows(), "row"));
            paragraph(
                    Style.ERROR.apply(CellText.escaped(refusal.table() + "." + refusal.at()), paper.hasColor()) + ": "
                            + row,
                    INDENT);
            String names = names(refusal.examples(), refusal.rows());
            if (!names.isEmpty()) {
                paragraph(names, INDENT * 2);
            }
            writeTotals(refusal.totals(), INDENT * 2);
            if (!refusal.remedy().isEmpty()) {
                paragraph(refusal.remedy(), INDENT * 2);
            }
        }
    }

    private static String names(List<RowName> rows, long all) {
        String named = rows.stream().map(RehearsalText::name).collect(Collectors.joining(", "));
        return rows.size() < all && !rows.isEmpty()
                ? named + ", and " + Counted.grouped(all - rows.size()) + " more"
                : named;
    }

    /** A row by its key and, in parentheses, its label. */
    static String name(RowName row) {
        String key = row.key().values().stream().map(CellText::of).collect(Collectors.joining(", "));
        String label = row.label().values().stream()
                .filter(text -> text != null && !row.key().containsValue(text))
                .map(CellText::escaped)
                .collect(Collectors.joining(" "));
        if (row.key().size() > 1) {
            key = "(" + key + ")";
        }
        if (key.isEmpty()) {
            key = row.isNew() ? "new row" : "row " + Counted.grouped(row.row());
        }
        return label.isEmpty() ? key : key + " (" + label + ")";
    }

    private void writeEffects(ChangeResult change) {
        boolean showsMore = change.isAccepted() || change.effects().stream().anyMatch(effect -> effect.steps() > 0);
        if (change.effects().isEmpty() || !showsMore) {
            return;
        }
        if (!change.isAccepted()) {
            paragraph("if nothing stood in its way:", INDENT);
        }
        Grid grid = new Grid();
        grid.addColumn("steps", Grid.Kind.NUMBER);
        grid.addColumn("table", Grid.Kind.TEXT);
        grid.addColumn("rows", Grid.Kind.NUMBER);
        grid.addColumn("are", Grid.Kind.KEPT);
        grid.addColumn("by link", Grid.Kind.TEXT);
        grid.addColumn("such as", Grid.Kind.TEXT);
        for (EffectCount effect : change.effects()) {
            String steps = effect.farthest() > effect.steps()
                    ? effect.steps() + " to " + Counted.grouped(effect.farthest())
                    : String.valueOf(effect.steps());
            grid.addRow(List.of(
                    Cell.of(steps),
                    Cell.of(CellText.escaped(effect.table())),
                    Cell.of(Counted.grouped(effect.rows())),
                    new Cell(
                            effect.kind().words()
                                    + (effect.writes() > effect.rows()
                                            ? " (" + Counted.grouped(effect.writes()) + " times)"
                                            : ""),
                            styleOf(effect.kind())),
                    Cell.of(effect.link().map(CellText::escaped).orElse("")),
                    Cell.of(effect.examples().stream().map(RehearsalText::name).collect(Collectors.joining(", ")))));
        }
        paper.grid(grid, INDENT);
    }

    private static Style styleOf(EffectKind kind) {
        return switch (kind) {
            case DELETED -> Style.ERROR;
            case EMPTIED, DEFAULTED -> Style.WARNING;
            case REPOINTED, CHANGED -> Style.NOTE;
            case INSERTED -> Style.GOOD;
            case IN_THE_WAY -> Style.WARNING;
        };
    }

    private void writeTotals(List<TotalSum> totals, int indent) {
        for (TotalSum total : totals) {
            paragraph(
                    "at stake: " + CellText.escaped(total.table() + "." + total.text()) + " = "
                            + Style.STRONG.apply(Counted.amount(total.sum()), paper.hasColor()) + " over "
                            + Counted.of(total.rows(), "row")
                            + " " + total.rowsAre(),
                    indent);
        }
    }

    private void writeEnd() {
        if (!result.atEnd().isEmpty()) {
            paper.gap();
            paper.paragraph(
                    Style.ERROR.apply("blocked", paper.hasColor()) + "  "
                            + Style.STRONG.apply("the whole, at its end", paper.hasColor())
                            + ": links that waited do not hold",
                    0,
                    Paragraph.HANGING);
            writeRefusals(result.atEnd());
        } else if (result.isUndone()) {
            paper.gap();
            paragraph("All or nothing: since a change is blocked, none of them stays.", 0);
        }
    }

    private void writeTables() {
        if (result.tables().isEmpty()) {
            return;
        }
        paper.gap();
        Grid grid = new Grid();
        grid.addColumn("table", Grid.Kind.TEXT);
        for (String head : List.of("rows before", "after", "deleted", "changed", "inserted")) {
            grid.addColumn(head, Grid.Kind.NUMBER);
        }
        grid.addColumn("", Grid.Kind.TEXT);
        for (TableChange table : result.tables()) {
            grid.addRow(List.of(
                    Cell.of(CellText.escaped(table.table())),
                    Cell.of(Counted.grouped(table.rowsBefore())),
                    Cell.of(Counted.grouped(table.rowsAfter())),
                    count(table.deleted(), Style.ERROR),
                    count(table.changed(), Style.NOTE),
                    count(table.inserted(), Style.GOOD),
                    Cell.of("")));
        }
        paper.grid(grid, 0);
    }

    private static Cell count(long count, Style style) {
        return new Cell(count == 0 ? "" : Counted.grouped(count), style);
    }

    private void writeFindings(String title, Style style, List<FindingChange> findings) {
        if (findings.isEmpty()) {
            return;
        }
        paper.gap();
        paper.paragraph(style.apply(title, paper.hasColor()), 0, Paragraph.HANGING);
        for (FindingChange finding : findings) {
            paragraph(
                    finding.kind().words() + " at " + CellText.escaped(finding.table() + "." + finding.at()) + ": "
                            + Counted.of(finding.rows(), "row")
                            + (finding.examples().isEmpty() ? "" : ": " + names(finding.examples(), finding.rows())),
                    INDENT);
        }
    }

    private void writeElsewhere() {
        if (result.elsewhere().isEmpty()) {
            return;
        }
        paper.gap();
        paper.paragraph(Style.WARNING.apply("elsewhere it ends differently", paper.hasColor()), 0, Paragraph.HANGING);
        for (Divergence divergence : result.elsewhere()) {
            String rows = divergence.rows() == 0
                    ? ""
                    : "; " + Counted.of(divergence.rows(), "row") + (divergence.rows() == 1 ? " ends" : " end")
                            + " differently: " + places(divergence);
            paragraph(CellText.escaped(divergence.where() + " " + divergence.words()) + rows, INDENT);
        }
    }

    private static String places(Divergence divergence) {
        String named = divergence.examples().stream()
                .map(row -> CellText.escaped(row.table()) + " " + name(row))
                .collect(Collectors.joining(", "));
        long more = divergence.rows() - divergence.examples().size();
        return more > 0 ? named + ", and " + Counted.grouped(more) + " more" : named;
    }

    /** Tells why a row is touched: the way from the change, link by link. */
    public static void writeWays(String row, Ways why, Paper paper) {
        if (why.ways().isEmpty() && why.inTheWay().isEmpty()) {
            paper.paragraph(
                    Style.STRONG.apply(CellText.escaped(row), paper.hasColor()) + ": no change touches it",
                    0,
                    Paragraph.HANGING);
        }
        for (EffectRow blocking : why.inTheWay()) {
            paper.paragraph(
                    Style.STRONG.apply(CellText.escaped(row), paper.hasColor()) + " stands "
                            + styleOf(blocking.kind()).apply("in the way", paper.hasColor()) + " of change "
                            + blocking.change() + ": "
                            + CellText.escaped(blocking.refusal().orElse("")),
                    0);
        }
        for (List<EffectRow> way : why.ways()) {
            EffectRow last = way.get(way.size() - 1);
            String would = last.isAccepted() ? "is " : "would be ";
            paper.paragraph(
                    Style.STRONG.apply(CellText.escaped(row), paper.hasColor()) + " " + would
                            + styleOf(last.kind()).apply(last.kind().words(), paper.hasColor()) + " by change "
                            + last.change()
                            + (last.isAccepted() ? "" : ", which is blocked"),
                    0,
                    Paragraph.HANGING);
            for (EffectRow step : way) {
                String by = step.link()
                        .map(link -> "by link " + CellText.escaped(link))
                        .orElse("named by the change itself");
                paper.paragraph(
                        step.steps() + "  "
                                + CellText.escaped(step.row().table()) + " " + name(step.row()) + " is "
                                + step.kind().words() + ", " + by,
                        INDENT);
            }
        }
    }
}
