package taxiomet.vet;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.IntRange;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.finding.MapHealth;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.MapColumn;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;

/** What there is to draw of a charter: its tables and what their links mean, all or those around one table. */
public final class TableMap {
    private final Charter charter;
    private final MapHealth health;
    private final Map<String, Long> rows;

    /**
     * @param health what a check found; {@link MapHealth#unknown} where none was asked
     * @param rows how many rows the tables have, as far as they were counted
     */
    public TableMap(Charter charter, MapHealth health, Map<String, Long> rows) {
        this.charter = charter;
        this.health = health;
        this.rows = rows;
    }

    /** All tables. */
    public MapResult whole() {
        return of(charter.tables());
    }

    /**
     * The tables around one.
     *
     * @param reach how many links away they may be
     */
    public MapResult around(String table, int reach) {
        Set<String> near = new LinkedHashSet<>(Set.of(table));
        for (int i = 0; i < reach; i++) {
            Set<String> next = new LinkedHashSet<>(near);
            for (ForeignKey link : charter.links()) {
                if (near.contains(link.child())) {
                    next.add(link.parent());
                }
                if (near.contains(link.parent())) {
                    next.add(link.child());
                }
            }
            near = next;
        }
        Set<String> shown = near;
        return of(charter.tables().stream()
                .filter(each -> shown.contains(each.name()))
                .toList());
    }

    private MapResult of(List<Table> tables) {
        Set<String> names = new LinkedHashSet<>();
        tables.forEach(table -> names.add(table.name()));
        return new MapResult(
                charter.name(),
                tables.stream().map(this::table).toList(),
                charter.links().stream()
                        .filter(link -> names.contains(link.child()) && names.contains(link.parent()))
                        .map(this::link)
                        .toList(),
                charter.tables().size() - tables.size());
    }

    private MapTable table(Table table) {
        List<MapColumn> columns = new ArrayList<>();
        for (Column column : table.columns()) {
            columns.add(new MapColumn(
                    column.name(),
                    column.type().toString(),
                    table.isOfPrimaryKey(column.name()),
                    table.uniqueKeys().stream()
                            .filter(key -> key.columns().contains(column.name()))
                            .map(Key::name)
                            .toList(),
                    table.isRequired(column.name()),
                    table.links().stream().anyMatch(link -> link.columns().contains(column.name()))));
        }
        Long counted = rows.get(table.name());
        return new MapTable(
                table.name(),
                table.area(),
                table.label(),
                columns,
                counted != null
                        ? OptionalLong.of(counted)
                        : health.table(table.name())
                                .map(known -> OptionalLong.of(known.rows()))
                                .orElse(OptionalLong.empty()),
                health.table(table.name()));
    }

    private MapLink link(ForeignKey link) {
        Table child = charter.table(link.child());
        return new MapLink(
                link.name(),
                link.child(),
                link.columns(),
                link.parent(),
                link.parentColumns(),
                isRequired(child, link) ? "one" : "one or none",
                children(child, link),
                onDelete(link),
                LinkSentence.of(charter, link),
                link.isEnforced(),
                health.link(link.child(), link.name()));
    }

    /** Whether each row of the child has a parent. */
    static boolean isRequired(Table child, ForeignKey link) {
        return link.match() == Match.SIMPLE
                ? link.columns().stream().allMatch(child::isRequired)
                : link.columns().stream().anyMatch(child::isRequired);
    }

    /** How many children a parent has: as declared, or as keys of the child allow. */
    static IntRange childrenOf(Table child, ForeignKey link) {
        boolean isKey = child.keys().stream().anyMatch(key -> link.columns().containsAll(key.columns()));
        return link.children().orElse(new IntRange(0, isKey ? 1 : IntRange.NO_LIMIT));
    }

    private static String children(Table child, ForeignKey link) {
        IntRange range = childrenOf(child, link);
        if (range.most() == IntRange.NO_LIMIT) {
            return range.least() == 0 ? "any number" : range.least() + " or more";
        } else if (range.least() == range.most()) {
            return "exactly " + range.least();
        }
        return range.least() == 0 && range.most() == 1 ? "one or none" : range.least() + " to " + range.most();
    }

    private static String onDelete(ForeignKey link) {
        return switch (link.onDelete().name()) {
            case NO_ACTION, RESTRICT -> "delete refused";
            case CASCADE -> "delete takes them along";
            case SET_NULL -> "delete empties the link";
            case SET_DEFAULT -> "delete sets the default";
        };
    }
}
