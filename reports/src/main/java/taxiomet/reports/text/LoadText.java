package taxiomet.reports.text;

import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.LoadResult;
import taxiomet.finding.LoadResult.LoadedTable;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.LoadWords;

/** What a load would take in and refuse, table by table, in lines. */
final class LoadText {
    private LoadText() {}

    static void write(LoadResult load, Paper paper) {
        paper.gap();
        paper.paragraph(
                Style.STRONG.apply("a load in this order", paper.hasColor()) + ": "
                        + CellText.escaped(LoadWords.answer(load)),
                0,
                Paragraph.HANGING);
        Grid grid = new Grid();
        grid.addColumn("", Grid.Kind.NUMBER);
        grid.addColumn("table", Grid.Kind.TEXT);
        grid.addColumn("rows", Grid.Kind.NUMBER);
        grid.addColumn("get in", Grid.Kind.NUMBER);
        grid.addColumn("refused", Grid.Kind.TEXT);
        int place = 0;
        for (LoadedTable table : load.tables()) {
            String refused = table.refusals().stream()
                    .map(refusal -> CellText.escaped(LoadWords.refused(refusal)))
                    .collect(Collectors.joining(String.valueOf(Grid.NEXT_LINE)));
            grid.addRow(List.of(
                    Cell.of(String.valueOf(++place)),
                    Cell.of(CellText.escaped(table.name())),
                    Cell.of(Counted.grouped(table.rows())),
                    Cell.of(Counted.grouped(table.loaded())),
                    refused.isEmpty() ? new Cell("none", Style.GOOD) : Cell.of(refused)));
        }
        paper.grid(grid, 2);
        for (String remark : LoadWords.remarks(load)) {
            paper.faint(CellText.escaped(remark), 2, 2);
        }
    }
}
