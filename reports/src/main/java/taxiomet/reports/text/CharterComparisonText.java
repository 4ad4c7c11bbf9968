package taxiomet.reports.text;

import java.util.List;
import taxiomet.finding.settled.CharterComparison;
import taxiomet.finding.settled.CharterComparison.Change;
import taxiomet.finding.settled.CharterComparison.Fate;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** What is different between two charters, in lines. */
public final class CharterComparisonText implements ResultText {
    private static final int INDENT = 2;

    private final CharterComparison comparison;
    private final Paper paper;

    /** @param paper takes it */
    public CharterComparisonText(CharterComparison comparison, Paper paper) {
        this.comparison = comparison;
        this.paper = paper;
    }

    @Override
    public void writeAnswer() {
        long lost = count(Fate.LOST);
        paper.answer(
                comparison.title(),
                comparison.changes().isEmpty()
                        ? "the same declarations"
                        : Counted.of(comparison.changes().size(), "declaration")
                                + (comparison.changes().size() == 1 ? " differs" : " differ") + ": "
                                + Counted.grouped(count(Fate.GAINED)) + " gained, " + Counted.grouped(lost) + " lost, "
                                + Counted.grouped(count(Fate.CHANGED)) + " changed",
                lost > 0 ? Style.ERROR : Style.PLAIN);
    }

    private long count(Fate fate) {
        return comparison.changes().stream()
                .filter(change -> change.fate() == fate)
                .count();
    }

    @Override
    public void write() {
        writeAnswer();
        if (comparison.changes().isEmpty()) {
            return;
        }
        paper.gap();
        Grid grid = new Grid();
        grid.addColumn("", Grid.Kind.TEXT);
        grid.addColumn("what", Grid.Kind.TEXT);
        grid.addColumn("where", Grid.Kind.TEXT);
        grid.addColumn("declared", Grid.Kind.TEXT);
        for (Change change : comparison.changes()) {
            grid.addRow(List.of(
                    new Cell(change.fate().word(), style(change.fate())),
                    Cell.of(change.what()),
                    Cell.of(CellText.escaped(
                            change.what().equals("table") ? change.table() : change.table() + "." + change.name())),
                    Cell.of(CellText.escaped(declared(change)))));
        }
        paper.grid(grid, INDENT);
        paper.gap();
        paper.paragraph("tables touched: " + CellText.escaped(Counted.listed(comparison.touched())), INDENT);
    }

    private static Style style(Fate fate) {
        return switch (fate) {
            case LOST -> Style.ERROR;
            case GAINED -> Style.GOOD;
            case CHANGED -> Style.WARNING;
        };
    }

    private static String declared(Change change) {
        return switch (change.fate()) {
            case LOST -> change.before();
            case GAINED -> change.now();
            case CHANGED -> change.now() + " (was: " + change.before() + ")";
        };
    }
}
