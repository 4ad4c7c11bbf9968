package taxiomet.rehearse.reach;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.rehearse.reach.RowCondition.NamedKeys;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.rows.SievedRows;
import taxiomet.rows.Sought;
import taxiomet.rows.SoughtRows;
import taxiomet.rows.TableSource;
import taxiomet.work.RunContext;
import taxiomet.work.Workers;

/**
 * Reads the rows that are wanted, and what cascades from those that will be deleted, until nothing new is reached: one pass over a
 * table for all that is wanted of it together (C2).
 */
public final class RowGatherer {
    /** More keys than this are not looked for one by one: reading the table is sooner done. */
    private static final int MOST_SOUGHT = 20_000;

    /** How often a table is read before what its circles reach is walked over. */
    private static final int LEVELS_READ = 3;

    private final ReachedRows rows;
    private final Map<String, TableSource> sources;
    private final RunContext context;
    private final Watcher watcher;
    private final Map<ReachedTable, Integer> passes = new LinkedHashMap<>();
    private final Map<ReachedTable, long[]> walked = new LinkedHashMap<>();

    /** Is told which table is read. */
    public interface Watcher {
        void reading(String table);
    }

    /** @param watcher is told which table is being read */
    public RowGatherer(ReachedRows rows, Map<String, TableSource> sources, RunContext context, Watcher watcher) {
        this.rows = rows;
        this.sources = sources;
        this.context = context;
        this.watcher = watcher;
    }

    /** Counts the rows of all tables that would be changed and have not been read. */
    public void countRows() {
        for (ReachedTable table : rows.tables()) {
            if (!table.isCounted() && table.isChanged()) {
                if (sources.get(table.table().name()) instanceof SoughtRows elsewhere) {
                    table.setRowsAsRead(elsewhere.rowsInAll());
                } else {
                    pass(table);
                }
            }
        }
    }

    /** Reads all that is wanted. */
    public void gather() {
        for (ReachedTable table = next(); table != null; table = next()) {
            watcher.reading(table.table().name());
            pass(table);
        }
    }

    /**
     * Tables in circles are read level by level at first. When that goes on, what cascades reach is walked over in memory, and read at
     * once.
     */
    private void walkCircles(ReachedTable table, Map<KeyLookup, Set<Object>> gone) {
        if (passes.getOrDefault(table, 0) < LEVELS_READ) {
            return;
        }
        List<ReachedLink> circle = cascadesInCircle(table);
        Map<ReachedLink, Set<Object>> starts = new LinkedHashMap<>();
        for (ReachedLink link : circle) {
            Set<Object> keys = gone.getOrDefault(link.children, Set.of());
            if (!keys.isEmpty()) {
                starts.put(link, keys);
            }
        }
        if (!starts.isEmpty()) {
            passes.put(table, 0);
            walked.putAll(new CascadeWalk(circle, sources).reach(starts));
            walked.forEach((reached, refs) -> reached.wantWalked(refs.length > 0));
        }
    }

    /** The links that cascade deletes and lie on a way from a table to itself. */
    private List<ReachedLink> cascadesInCircle(ReachedTable table) {
        Set<ReachedTable> below = reachable(table, true);
        Set<ReachedTable> above = reachable(table, false);
        return rows.links().stream()
                .filter(link -> cascades(link) && below.contains(link.child) && above.contains(link.parent))
                .toList();
    }

    private Set<ReachedTable> reachable(ReachedTable from, boolean isDown) {
        Set<ReachedTable> reached = new LinkedHashSet<>(Set.of(from));
        Deque<ReachedTable> open = new ArrayDeque<>(List.of(from));
        while (!open.isEmpty()) {
            ReachedTable next = open.pop();
            for (ReachedLink link : rows.links()) {
                ReachedTable start = isDown ? link.parent : link.child;
                ReachedTable end = isDown ? link.child : link.parent;
                if (cascades(link) && start == next && reached.add(end)) {
                    open.push(end);
                }
            }
        }
        return reached;
    }

    private static boolean cascades(ReachedLink link) {
        return link.link.isEnforced() && link.link.onDelete().name() == ActionName.CASCADE;
    }

    /** A table of which rows are wanted: if it can be, one of whose ancestors no more rows are, so that it is read once. */
    private ReachedTable next() {
        List<ReachedTable> wanting =
                rows.tables().stream().filter(ReachedTable::isWanting).toList();
        for (ReachedTable table : wanting) {
            Set<ReachedTable> above = ancestorsOf(table);
            if (wanting.stream().noneMatch(other -> other != table && above.contains(other))) {
                return table;
            }
        }
        return wanting.isEmpty() ? null : wanting.get(0);
    }

    private static Set<ReachedTable> ancestorsOf(ReachedTable table) {
        Set<ReachedTable> above = new LinkedHashSet<>();
        Deque<ReachedTable> open = new ArrayDeque<>(List.of(table));
        while (!open.isEmpty()) {
            for (ReachedLink link : open.pop().linksOut) {
                if (above.add(link.parent)) {
                    open.push(link.parent);
                }
            }
        }
        return above;
    }

    private void pass(ReachedTable table) {
        passes.merge(table, 1, Integer::sum);
        Map<KeyLookup, Set<Object>> keys = new LinkedHashMap<>();
        Map<KeyLookup, Set<Object>> gone = new LinkedHashMap<>();
        for (KeyLookup lookup : table.lookupsWanting()) {
            gone.put(lookup, lookup.takeGone());
            keys.put(lookup, lookup.takeWanted());
        }
        walkCircles(table, gone);
        table.wantWalked(false);
        long[] refs = walked.containsKey(table) ? walked.remove(table) : new long[0];
        Set<RowCondition> conditions = table.takeWanted();
        int[] greatest = table.takeGreatestWanted();
        TableSource source = sources.get(table.table().name());
        List<BatchMatcher> matchers = new ArrayList<>();
        Optional<SievedRows> sought =
                greatest.length == 0 && refs.length == 0 ? sought(source, table, keys, conditions) : Optional.empty();
        read(sought.isPresent() ? sought.get() : source, table, () -> {
            BatchMatcher matcher = new BatchMatcher(table, keys, conditions, greatest, refs);
            synchronized (matchers) {
                matchers.add(matcher);
            }
            return matcher;
        });
        if (sought.isEmpty()) {
            table.setRowsAsRead(
                    matchers.stream().mapToLong(BatchMatcher::rowsSeen).sum());
        }
        for (int i = 0; i < greatest.length; i++) {
            int place = i;
            Optional<BatchMatcher> holder = matchers.stream()
                    .filter(m -> m.refsOfGreatest[place] != 0)
                    .max(Comparator.comparingLong(m -> m.greatest[place]));
            table.setGreatestOfOthers(
                    greatest[i],
                    holder.map(m -> m.greatest[place]).orElse(0L),
                    holder.map(m -> m.refsOfGreatest[place]).orElse(0L));
        }
        List<BatchMatcher.Found> found = new ArrayList<>();
        matchers.forEach(matcher -> found.addAll(matcher.found));
        found.sort(Comparator.comparingLong(BatchMatcher.Found::ref));
        for (BatchMatcher.Found row : found) {
            table.addRead(row.ref(), row.values());
        }
        for (BatchMatcher.Found row : found) {
            boolean isWalked = Arrays.binarySearch(refs, row.ref()) >= 0;
            expect(table.rows.get(row.ref()), gone, conditions, isWalked);
        }
    }

    /** The rows with some keys, and of conditions, where their place can look for them; empty where the table has to be read. */
    private static Optional<SievedRows> sought(
            TableSource source, ReachedTable table, Map<KeyLookup, Set<Object>> keys, Set<RowCondition> conditions) {
        if (!(source instanceof SoughtRows elsewhere)) {
            return Optional.empty();
        }
        List<NamedKeys> wanted = new ArrayList<>();
        keys.forEach((lookup, own) -> wanted.add(new NamedKeys(lookup.columns, lookup.forms, own)));
        for (RowCondition condition : conditions) {
            Optional<NamedKeys> only = condition.onlyKeys();
            if (only.isEmpty()) {
                return Optional.empty();
            }
            wanted.add(only.get());
        }
        List<Sought> all = new ArrayList<>();
        if (wanted.stream().mapToInt(each -> each.keys().size()).sum() > MOST_SOUGHT) {
            return Optional.empty();
        }
        for (NamedKeys each : wanted) {
            Optional<Sought> sought = SoughtKeys.of(table, each);
            if (sought.isEmpty()) {
                return Optional.empty();
            }
            all.add(sought.get());
        }
        return elsewhere.seek(all);
    }

    /** A row that will be deleted has its children read along. */
    private void expect(
            ReachedRow row, Map<KeyLookup, Set<Object>> gone, Set<RowCondition> conditions, boolean isWalked) {
        if (!row.isExpectedToGo && (isWalked || isExpectedToGo(row, gone, conditions))) {
            row.isExpectedToGo = true;
            for (ReachedLink link : row.table.linksIn) {
                Object key = link.parents.keyOf(row.original);
                if (key != null && link.link.isEnforced()) {
                    link.child.wantOfDeleted(link.children, key);
                }
            }
        }
    }

    private static boolean isExpectedToGo(
            ReachedRow row, Map<KeyLookup, Set<Object>> gone, Set<RowCondition> conditions) {
        for (RowCondition condition : conditions) {
            if (row.table.deletes(condition) && condition.holds(row.ref, row.original)) {
                return true;
            }
        }
        for (ReachedLink link : row.table.linksOut) {
            Set<Object> keys = gone.getOrDefault(link.children, Set.of());
            if (link.link.onDelete().name() == ActionName.CASCADE && !keys.isEmpty()) {
                Object key = link.children.keyOf(row.original);
                if (key != null && keys.contains(key)) {
                    return true;
                }
            }
        }
        return false;
    }

    private interface NewMatcher {
        BatchMatcher make();
    }

    private void read(TableSource source, ReachedTable table, NewMatcher matchers) {
        int threads = Math.max(1, context.threadsFor(source.bytes()));
        try (Scan scan = source.scan(table.columnsKept(), RefRanges.ALL)) {
            Workers.run(threads, "gathering", all -> work(scan, matchers.make(), all));
        }
    }

    private static void work(Scan scan, BatchMatcher matcher, Workers all) {
        try (Scan.BatchReader reader = scan.reader()) {
            RowBatch batch = reader.next();
            while (batch != null && !all.haveFailed()) {
                matcher.match(batch);
                batch = reader.next();
            }
        }
    }
}
