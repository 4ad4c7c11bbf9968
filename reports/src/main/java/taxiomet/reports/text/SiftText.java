package taxiomet.reports.text;

import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.settled.SiftResult;
import taxiomet.finding.settled.SiftResult.SiftedTable;
import taxiomet.finding.settled.SiftResult.Why;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.SiftWords;

/** Which rows are sound together and why others are not, table by table, in lines. */
public final class SiftText implements ResultText {
    private static final int INDENT = 2;

    private final SiftResult result;
    private final Paper paper;

    /** @param paper takes it */
    public SiftText(SiftResult result, Paper paper) {
        this.result = result;
        this.paper = paper;
    }

    @Override
    public void writeAnswer() {
        paper.answer(result.title(), SiftWords.answer(result), result.aside() == 0 ? Style.GOOD : Style.ERROR);
    }

    @Override
    public void write() {
        writeAnswer();
        if (result.mended() > 0) {
            paper.paragraph(
                    Counted.of(result.mended(), "value") + (result.mended() == 1 ? " was" : " were")
                            + " mended first; mendings.csv lists each, and undo.json takes them back",
                    INDENT);
        }
        paper.gap();
        Grid grid = new Grid();
        grid.addColumn("table", Grid.Kind.TEXT);
        grid.addColumn("rows", Grid.Kind.NUMBER);
        grid.addColumn("sound", Grid.Kind.NUMBER);
        grid.addColumn("aside", Grid.Kind.NUMBER);
        grid.addColumn("why", Grid.Kind.TEXT);
        for (SiftedTable table : result.tables()) {
            String why = table.reasons().stream()
                    .map(aside ->
                            Counted.grouped(aside.rows()) + " " + CellText.escaped(SiftWords.reason(aside.reason())))
                    .collect(Collectors.joining(String.valueOf(Grid.NEXT_LINE)));
            grid.addRow(List.of(
                    Cell.of(CellText.escaped(table.name())),
                    Cell.of(Counted.grouped(table.rows())),
                    Cell.of(Counted.grouped(table.sound())),
                    table.aside() == 0 ? new Cell("none", Style.GOOD) : Cell.of(Counted.grouped(table.aside())),
                    Cell.of(why)));
        }
        paper.grid(grid, INDENT);
        writeRemarks();
    }

    private void writeRemarks() {
        boolean isNoneChosen = has(Why.NONE_CHOSEN);
        if (isNoneChosen || result.unread() > 0) {
            paper.gap();
        }
        if (isNoneChosen) {
            paper.paragraph(
                    "Of rows that share a key none stays unless it is said which: --keep first, last, most-complete,"
                            + " or --keep \"TABLE=COLUMN desc\".",
                    INDENT);
        }
        if (result.unread() > 0) {
            paper.paragraph(
                    Counted.of(result.unread(), "declaration")
                            + " could not be read, and nobody can say that the sound rows keep "
                            + (result.unread() == 1 ? "it" : "them") + "; taxiomet vet tells which",
                    INDENT);
        }
    }

    private boolean has(Why why) {
        return result.tables().stream()
                .flatMap(table -> table.reasons().stream())
                .anyMatch(aside -> aside.reason().why() == why);
    }
}
