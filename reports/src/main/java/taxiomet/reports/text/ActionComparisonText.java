package taxiomet.reports.text;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.finding.ActionComparison;
import taxiomet.finding.ActionComparison.Entry;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** One proposal under each action of a link, side by side. */
public final class ActionComparisonText {

    private ActionComparisonText() {}

    /** @param out takes one line at a time, without its end */
    public static void write(ActionComparison comparison, int width, boolean hasColor, Consumer<String> out) {
        Paragraph.lines(
                        Style.STRONG.apply(CellText.escaped(comparison.title()), hasColor)
                                + ": the proposal under each action of " + CellText.escaped(comparison.link()) + " "
                                + comparison.event(),
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
        out.accept("");
        Grid grid = new Grid();
        grid.addColumn(comparison.event(), Grid.Kind.KEPT);
        grid.addColumn("answer", Grid.Kind.KEPT);
        for (EffectKind kind : shown(comparison)) {
            grid.addColumn(kind.words(), Grid.Kind.NUMBER);
        }
        grid.addColumn("in the way", Grid.Kind.NUMBER);
        grid.addColumn("by link or rule, or at stake", Grid.Kind.TEXT);
        for (Entry entry : comparison.entries()) {
            grid.addRow(row(entry, shown(comparison)));
        }
        grid.lines(0, width, hasColor).forEach(out);
        out.accept("");
        Paragraph.lines("* as the charter declares it", 0, width).forEach(out);
    }

    private static List<EffectKind> shown(ActionComparison comparison) {
        return Stream.of(EffectKind.values())
                .filter(kind -> comparison.entries().stream().anyMatch(entry -> rows(entry.result(), kind) > 0))
                .toList();
    }

    private static long rows(RehearsalResult result, EffectKind kind) {
        return accepted(result).mapToLong(change -> change.rows(kind)).sum();
    }

    private static Stream<ChangeResult> accepted(RehearsalResult result) {
        return result.changes().stream().filter(change -> change.isAccepted() && !result.isUndone());
    }

    private static List<Cell> row(Entry entry, List<EffectKind> kinds) {
        RehearsalResult result = entry.result();
        List<Cell> cells = new ArrayList<>();
        cells.add(new Cell(
                entry.action() + (entry.isDeclared() ? " *" : ""), entry.isDeclared() ? Style.STRONG : Style.PLAIN));
        cells.add(result.isAccepted() ? new Cell("accepted", Style.GOOD) : new Cell("blocked", Style.ERROR));
        for (EffectKind kind : kinds) {
            long rows = rows(result, kind);
            cells.add(Cell.of(rows == 0 ? "" : Counted.grouped(rows)));
        }
        List<RefusalResult> refusals = Stream.concat(
                        result.changes().stream().flatMap(change -> change.refusals().stream()),
                        result.atEnd().stream())
                .toList();
        long blocking = refusals.stream().mapToLong(RefusalResult::rows).sum();
        cells.add(Cell.of(blocking == 0 ? "" : Counted.grouped(blocking)));
        cells.add(Cell.of(refusals.isEmpty() ? totals(result) : places(refusals)));
        return cells;
    }

    private static String places(List<RefusalResult> refusals) {
        return refusals.stream()
                .map(refusal -> CellText.escaped(refusal.at())
                        + (refusal.kind() == RefusalKind.STILL_REFERENCED
                                ? " "
                                : ": " + refusal.kind().words() + " ")
                        + Counted.grouped(refusal.rows()))
                .distinct()
                .collect(Collectors.joining(", "));
    }

    private static String totals(RehearsalResult result) {
        Map<String, BigDecimal> sums = new LinkedHashMap<>();
        accepted(result)
                .flatMap(change -> change.totals().stream())
                .forEach((TotalSum total) ->
                        sums.merge(total.table() + "." + total.text(), total.sum(), BigDecimal::add));
        return sums.entrySet().stream()
                .map(sum -> CellText.escaped(sum.getKey()) + " = " + Counted.amount(sum.getValue()))
                .collect(Collectors.joining(", "));
    }
}
