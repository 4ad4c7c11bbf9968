package taxiomet.reports.html;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.Health;
import taxiomet.finding.MapResult.MapColumn;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;
import taxiomet.reports.html.MapPage.ColumnItem;
import taxiomet.reports.html.MapPage.LinkItem;
import taxiomet.reports.html.MapPage.TableItem;
import taxiomet.reports.map.MapSvg;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.MapWords;

/** The map as a page: the picture, to be moved and brought closer, and below it what is said of each table. */
public final class MapHtml {
    /** The style of the picture. */
    static final String STYLE = "/taxiomet/reports/map/map.css";

    private MapHtml() {}

    /**
     * Writes a page.
     *
     * @param made when it was made, and of what
     * @throws taxiomet.reports.OutputException when the file cannot be written
     */
    public static void write(MapResult map, String made, Path file) {
        MapPage page = new MapPage(
                CellText.escaped(map.title()),
                MapWords.figures(map) + ".",
                MapSvg.inPage(map),
                map.tables().stream().map(table -> table(map, table)).toList());
        Page.write(
                "map.jte",
                Map.of("page", page, "shell", Shell.of("map.js", made).withStyle(STYLE)),
                file);
    }

    private static TableItem table(MapResult map, MapTable table) {
        List<LinkItem> links = new ArrayList<>();
        for (MapLink link : map.links()) {
            if (link.child().equals(table.name()) || link.parent().equals(table.name())) {
                links.add(new LinkItem(
                        CellText.escaped(link.child() + "." + link.name()),
                        CellText.escaped(link.sentence()),
                        link.health().map(MapHtml::found).orElse("")));
            }
        }
        return new TableItem(
                CellText.escaped(table.name()),
                CellText.escaped(MapWords.table(table)),
                table.health().map(Health::findings).orElse(List.of()).stream()
                        .map(CellText::escaped)
                        .toList(),
                table.columns().stream().map(MapHtml::column).toList(),
                links);
    }

    private static String found(Health health) {
        return CellText.escaped(String.join("; ", health.findings()));
    }

    private static ColumnItem column(MapColumn column) {
        return new ColumnItem(
                CellText.escaped(column.name()),
                CellText.escaped(column.type()),
                CellText.escaped(MapWords.column(column)),
                column.isOfPrimaryKey() ? "key" : column.isRequired() ? "plain" : "open");
    }
}
