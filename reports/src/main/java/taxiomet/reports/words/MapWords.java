package taxiomet.reports.words;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.Health;
import taxiomet.finding.MapResult.MapColumn;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;

/** What a map says, in words: once for all its forms. Names in them are as they are, to be escaped. */
public final class MapWords {
    private MapWords() {}

    /** How much there is. */
    public static String figures(MapResult map) {
        return Counted.of(map.tables().size(), "table") + ", "
                + Counted.of(map.links().size(), "link")
                + (map.left() == 0 ? "" : "; " + Counted.of(map.left(), "table") + " left out");
    }

    /** What is said of a table as a whole. */
    public static String table(MapTable table) {
        List<String> said = new ArrayList<>();
        table.rows().ifPresent(rows -> said.add(Counted.of(rows, "row")));
        if (!table.label().isEmpty()) {
            said.add("called by " + String.join(", ", table.label()));
        }
        table.area().ifPresent(area -> said.add("in " + area));
        table.health().ifPresent(health -> said.add(health(health)));
        return String.join("; ", said);
    }

    /** How it stands with a table. */
    public static String health(Health health) {
        return health.isSound() ? "sound" : Counted.of(health.faulty(), "row") + " at fault";
    }

    /** What is said of a column beside its type. */
    public static String column(MapColumn column) {
        List<String> said = new ArrayList<>();
        if (column.isOfPrimaryKey()) {
            said.add("primary key");
        }
        if (!column.keys().isEmpty()) {
            said.add("unique (" + String.join(", ", column.keys()) + ")");
        }
        if (!column.isOfPrimaryKey()) {
            said.add(column.isRequired() ? "not null" : "may be null");
        }
        if (column.isOfLink()) {
            said.add("points at another row");
        }
        return String.join(", ", said);
    }

    /** The columns that name a row, as a clause. */
    public static String key(MapTable table) {
        String key = table.columns().stream()
                .filter(MapColumn::isOfPrimaryKey)
                .map(MapColumn::name)
                .collect(Collectors.joining(", "));
        return key.isEmpty() ? "no primary key" : "key " + key;
    }

    /** A link from its child's side, without the names of the tables. */
    public static String link(MapLink link) {
        return "by " + String.join(", ", link.columns()) + ", " + link.parents() + "; of each " + link.children() + "; "
                + link.onDelete() + (link.isEnforced() ? "" : "; not enforced");
    }

    /** How it stands with a link; empty where nobody asked. */
    public static String linkHealth(MapLink link) {
        return link.health()
                .map(health -> health.isSound() ? "sound" : String.join("; ", health.findings()))
                .orElse("");
    }
}
