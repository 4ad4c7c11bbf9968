package taxiomet.reports.text;

import java.util.List;
import taxiomet.finding.ResultComparison;
import taxiomet.finding.ResultComparison.Standing;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.CompareWords;
import taxiomet.reports.words.Counted;

/** What is new and what is gone between results, in lines; of more than two also how it went on from each to the next. */
public final class CompareText implements ResultText {
    private static final int INDENT = 2;
    private static final int BAR = 12;

    private final List<ResultComparison> steps;
    private final ResultComparison last;
    private final Paper paper;

    /**
     * @param steps from each result to the next, at least one
     * @param paper takes it
     */
    public CompareText(List<ResultComparison> steps, Paper paper) {
        this.steps = List.copyOf(steps);
        this.last = steps.get(steps.size() - 1);
        this.paper = paper;
    }

    @Override
    public void writeAnswer() {
        paper.answer(last.title(), CompareWords.answer(last), last.isAnythingNew() ? Style.ERROR : Style.GOOD);
        paper.paragraph(CompareWords.standing(last), 0);
    }

    @Override
    public void write() {
        writeAnswer();
        if (!last.areRowsKnown()) {
            paper.paragraph(CompareWords.UNDER_OTHER_KEYS, 0);
        }
        if (steps.size() > 1) {
            writeTrend();
        }
        paper.gap();
        ShiftsText.write(last.shifts(), paper);
    }

    private void writeTrend() {
        paper.gap();
        Grid grid = new Grid();
        grid.addColumn("result of", Grid.Kind.TEXT);
        grid.addColumn("errors", Grid.Kind.NUMBER);
        grid.addColumn("warnings", Grid.Kind.NUMBER);
        grid.addColumn("at fault", Grid.Kind.NUMBER);
        grid.addColumn("new", Grid.Kind.NUMBER);
        grid.addColumn("gone", Grid.Kind.NUMBER);
        grid.addColumn("accepted", Grid.Kind.NUMBER);
        grid.addColumn("trend", Grid.Kind.TEXT);
        long most = Math.max(1, steps.get(0).earlier().faultyRows());
        for (ResultComparison step : steps) {
            most = Math.max(most, step.later().faultyRows());
        }
        add(grid, steps.get(0).earlier(), "", "", most);
        for (ResultComparison step : steps) {
            add(grid, step.later(), counted(step.newFaults()), counted(step.goneFaults()), most);
        }
        paper.grid(grid, INDENT);
    }

    private static String counted(long rows) {
        return rows == 0 ? "" : Counted.grouped(rows);
    }

    private static void add(Grid grid, Standing standing, String come, String gone, long most) {
        grid.addRow(List.of(
                Cell.of(CellText.escaped(CompareWords.moment(standing.made()))),
                Cell.of(counted(standing.errors())),
                Cell.of(counted(standing.warnings())),
                Cell.of(Counted.grouped(standing.faultyRows())),
                new Cell(come, Style.ERROR),
                new Cell(gone, Style.GOOD),
                Cell.of(counted(standing.accepted())),
                new Cell("▪".repeat((int) (standing.faultyRows() * BAR / most)), Style.FAINT)));
    }
}
