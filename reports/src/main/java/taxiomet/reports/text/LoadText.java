package taxiomet.reports.text;

import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import taxiomet.finding.LoadResult;
import taxiomet.finding.LoadResult.LoadedTable;
import taxiomet.reports.text.Grid.Cell;

/** What a load would take in and refuse, table by table, in lines. */
final class LoadText {
    private LoadText() {}

    static void write(LoadResult load, int width, boolean hasColor, Consumer<String> out) {
        out.accept("");
        Paragraph.lines(
                        Style.STRONG.apply("a load in this order", hasColor) + ": "
                                + CellText.escaped(LoadWords.answer(load)),
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
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
        grid.lines(2, width, hasColor).forEach(out);
        for (String remark : LoadWords.remarks(load)) {
            Paragraph.lines(CellText.escaped(remark), 2, width)
                    .forEach(line -> out.accept(Style.FAINT.apply(line, hasColor)));
        }
    }
}
