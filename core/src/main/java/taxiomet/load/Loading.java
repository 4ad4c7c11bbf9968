package taxiomet.load;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.ParentsFirst;
import taxiomet.expression.RowFilter;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult;
import taxiomet.finding.LoadResult.LoadedTable;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.RunContext;

/**
 * A load of all rows into an empty database that holds the charter's constraints: tables with parents first, rows as they stand, each
 * judged by what is in by then. A row is refused for its own faults first, then as a duplicate, then for its links; its own row counts as
 * there when a link leads from a table to itself. Links that nothing enforces, and rules over other rows, are in no database's way.
 */
public final class Loading {
    /** The check whose faults are known keeps its keys meanwhile. */
    private static final int SHARE_OF_MEMORY = 2;

    private final Charter charter;
    private final Map<String, TableSource> sources;
    private final List<FaultLog> logs;
    private final RunContext context;
    private final MemoryBudget budget;
    private final List<Table> order;
    private final List<ForeignKey> links;
    private final Map<List<Object>, LoadedKeys> pointedAt = new HashMap<>();
    private final Map<String, List<LoadedKeys>> keysOf = new HashMap<>();

    /**
     * @param sources of all tables, which have been read once
     * @param logs the faults that a check of them has found
     */
    public Loading(Charter charter, Map<String, TableSource> sources, List<FaultLog> logs, RunContext context) {
        this.charter = charter;
        this.sources = sources;
        this.logs = logs;
        this.context = context;
        this.budget = new MemoryBudget(context.budget().limit() / SHARE_OF_MEMORY);
        this.links = charter.links().stream().filter(ForeignKey::isEnforced).toList();
        this.order = ParentsFirst.order(
                charter.tables(),
                table -> linksOf(table)
                        .map(ForeignKey::parent)
                        .map(charter::table)
                        .toList());
    }

    private Stream<ForeignKey> linksOf(Table table) {
        return links.stream().filter(link -> link.child().equals(table.name()));
    }

    /**
     * What the load would come to.
     *
     * @throws taxiomet.rows.SourceException when rows cannot be read, or the keys of those that get in do not fit into memory
     */
    public LoadResult result() {
        Map<String, List<LinkInLoad>> linksIn = new HashMap<>();
        for (ForeignKey link : links) {
            linksIn.computeIfAbsent(link.child(), name -> new ArrayList<>()).add(plan(link));
        }
        try {
            List<LoadedTable> loaded = new ArrayList<>();
            for (Table table : order) {
                context.progress().reading(table.name());
                loaded.add(load(table, linksIn.getOrDefault(table.name(), List.of())));
            }
            return new LoadResult(loaded, names(notHeld()), names(inCircle()));
        } finally {
            pointedAt.values().forEach(LoadedKeys::close);
        }
    }

    private Stream<ForeignKey> notHeld() {
        return charter.links().stream().filter(link -> !link.isEnforced());
    }

    private Stream<ForeignKey> inCircle() {
        return links.stream()
                .filter(link ->
                        order.indexOf(charter.table(link.parent())) > order.indexOf(charter.table(link.child())));
    }

    private static List<String> names(Stream<ForeignKey> some) {
        return some.map(link -> link.child() + "." + link.name()).toList();
    }

    /** A link with the keys that it asks: those of all its columns, and for a partial match those of each part of them. */
    private LinkInLoad plan(ForeignKey link) {
        Table child = charter.table(link.child());
        Table parent = charter.table(link.parent());
        List<KeyForm> forms = KeyForm.of(child, parent, link);
        int all = (1 << forms.size()) - 1;
        Map<Integer, KeyEncoder> parts = new LinkedHashMap<>();
        Map<Integer, LoadedKeys> parents = new LinkedHashMap<>();
        for (int there = link.match() == Match.PARTIAL ? 1 : all; there <= all; there++) {
            int[] places = places(there);
            List<KeyForm> formsThere =
                    Arrays.stream(places).mapToObj(forms::get).toList();
            int[] parentColumns = picked(parent.indexesOf(link.parentColumns()), places);
            int[] childColumns = picked(child.indexesOf(link.columns()), places);
            parts.put(there, new KeyEncoder(childColumns, formsThere, context.secret()));
            List<Object> name = List.of(parent.name(), Arrays.toString(parentColumns), formsThere);
            parents.put(there, pointedAt.computeIfAbsent(name, key -> {
                LoadedKeys keys = new LoadedKeys(
                        parent, new KeyEncoder(parentColumns, formsThere, context.secret()), false, null, budget);
                keysOf.computeIfAbsent(parent.name(), table -> new ArrayList<>())
                        .add(keys);
                return keys;
            }));
        }
        return new LinkInLoad(link, parts, parents);
    }

    private static int[] places(int bits) {
        return BitSet.valueOf(new long[] {bits}).stream().toArray();
    }

    private static int[] picked(int[] all, int[] places) {
        return Arrays.stream(places).map(place -> all[place]).toArray();
    }

    private LoadedTable load(Table table, List<LinkInLoad> linksIn) {
        Map<String, LoadedKeys> own = new LinkedHashMap<>();
        table.keys()
                .forEach(key -> own.put(
                        key.name(),
                        new LoadedKeys(
                                table,
                                new KeyEncoder(
                                        table.indexesOf(key.columns()), KeyForm.of(table, key), context.secret()),
                                key.nullsAreEqual(),
                                RowFilter.of(key.where()),
                                budget)));
        try {
            List<LoadedKeys> asParents = keysOf.getOrDefault(table.name(), List.of());
            OwnFaults faults = new OwnFaults(charter, table.name(), logs);
            return new TableLoad(table, sources.get(table.name()), own, asParents, linksIn, faults, orphansOf(table))
                    .run(context.secret());
        } finally {
            own.values().forEach(LoadedKeys::close);
        }
    }

    private Map<String, OwnFaults> orphansOf(Table table) {
        Map<String, OwnFaults> orphans = new HashMap<>();
        logs.stream()
                .filter(log -> log.kind() == FindingKind.ORPHAN && log.table().equals(table.name()))
                .forEach(log -> orphans.put(log.at(), OwnFaults.ofLog(log)));
        return orphans;
    }
}
