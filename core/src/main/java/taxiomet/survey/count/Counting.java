package taxiomet.survey.count;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.link.AcyclicCheck;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.ParentsFirst;
import taxiomet.check.pass.Reading;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.TablePass;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.finding.FindingKind;
import taxiomet.keys.KeyCounts;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.rows.RefRanges;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.spill.SpillFolder;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.search.LinkRanking;
import taxiomet.survey.search.NameLikeness;
import taxiomet.survey.search.Pair;
import taxiomet.work.RunContext;

/**
 * Counts candidates exactly: one pass over the columns of each table that they ask for, parents before their children; one more where tables
 * point at one another. What memory cannot hold is counted by a check, which has temporary files.
 */
public final class Counting {
    private static final int EXAMPLES = 5;
    /** A link of so many rows to their own table is looked at for rings only where its name speaks for it. */
    private static final long MANY_ROWS = 1_000_000;

    private final List<TableProfile> profiles;
    private final Map<TableProfile, List<int[]>> keys;
    private final List<Pair> pairs;
    private final long sample;
    private final NameLikeness names;
    private final Function<Table, TableSource> open;
    private final RunContext context;
    private final Counts counts = new Counts();

    private final Map<TableProfile, Table> tables = new HashMap<>();
    private final Map<TableProfile, TableSource> sources = new LinkedHashMap<>();
    private final IdentityHashMap<int[], KeyTally> tallies = new IdentityHashMap<>();
    private final IdentityHashMap<int[], KeyCounts> rooms = new IdentityHashMap<>();
    private final Map<Pair, LinkTally> links = new HashMap<>();
    private final Map<Pair, AcyclicCheck> rings = new HashMap<>();
    /** Of each key that links point at, how many of these are still to be counted. */
    private final IdentityHashMap<int[], Integer> pending = new IdentityHashMap<>();

    private final Set<int[]> keysWithoutRoom = java.util.Collections.newSetFromMap(new IdentityHashMap<>());
    private final List<Pair> pairsWithoutRoom = new ArrayList<>();

    private Counting(
            List<TableProfile> profiles,
            Map<TableProfile, List<int[]>> keys,
            List<Pair> pairs,
            long sample,
            NameLikeness names,
            Function<Table, TableSource> open,
            RunContext context) {
        this.sample = sample;
        this.profiles = profiles;
        this.keys = keys;
        this.pairs = pairs.stream().filter(pair -> !pair.isEmpty()).toList();
        this.names = names;
        this.open = open;
        this.context = context;
        this.pairs.forEach(pair -> pending.merge(pair.key(), 1, Integer::sum));
    }

    /**
     * Counts all candidates but links whose columns hold nothing.
     *
     * @param keys of each table
     * @param sample of tables that are sampled, how many rows are looked at; but all of them for keys that links point at
     * @param open opens the rows of a table with all its columns
     */
    public static Counts of(
            List<TableProfile> profiles,
            Map<TableProfile, List<int[]>> keys,
            List<Pair> pairs,
            long sample,
            NameLikeness names,
            Function<Table, TableSource> open,
            RunContext context) {
        return new Counting(profiles, keys, pairs, sample, names, open, context).run();
    }

    private Counts run() {
        try (SpillFolder spill = new SpillFolder(context.temporary(), context.budget())) {
            List<TableProfile> order = order();
            profiles.forEach(profile -> tables.put(profile, Declarations.typed(profile)));
            order.forEach(profile -> plan(profile, spill));
            pairs.forEach(pair -> plan(pair, spill));
            read(order);
            readLate();
            sources.values().forEach(TableSource::close);
            sources.clear();
        } finally {
            tallies.values().forEach(tally -> tally.keys().close());
            sources.values().forEach(TableSource::close);
        }
        if (!keysWithoutRoom.isEmpty() || !pairsWithoutRoom.isEmpty()) {
            new CountsByCheck(profiles, keys, open, context).addTo(counts, keysWithoutRoom, pairsWithoutRoom, EXAMPLES);
        }
        return counts;
    }

    /** Tables that anything is asked of, parents before their children where that can be. */
    private List<TableProfile> order() {
        List<TableProfile> asked = profiles.stream()
                .filter(profile -> !keys.getOrDefault(profile, List.of()).isEmpty()
                        || pairs.stream().anyMatch(pair -> pair.child().equals(profile) && !isKnown(pair)))
                .toList();
        Map<TableProfile, Set<TableProfile>> parents = pairs.stream()
                .filter(pair -> !isKnown(pair))
                .collect(Collectors.groupingBy(Pair::child, Collectors.mapping(Pair::parent, Collectors.toSet())));
        return ParentsFirst.order(asked, table -> parents.getOrDefault(table, Set.of()));
    }

    private void plan(TableProfile profile, SpillFolder spill) {
        for (int[] key : keys.getOrDefault(profile, List.of())) {
            KeyEncoder encoder = new KeyEncoder(key, formsOf(profile, key), context.secret());
            tallies.put(key, new KeyTally(encoder, keysOf(profile, key, spill)));
        }
    }

    /** Where the keys of a candidate go: into as little room as tells what is asked of it. */
    private KeyTally.Keys keysOf(TableProfile profile, int[] key, SpillFolder spill) {
        if (!isPointedAt(key) && areGrouped(profile, key)) {
            return new GroupedKeys();
        } else if (!isPointedAt(key) && profile.rows > MANY_ROWS) {
            return new RepeatedKeys(spill, context.budget(), key.length);
        }
        KeyCounts room = roomFor(profile, key);
        rooms.put(key, room);
        return KeyTally.inMemory(room);
    }

    /** Whether the rows with one value of a key's first column stand together, which then are whole numbers as those of its second. */
    private static boolean areGrouped(TableProfile profile, int[] key) {
        return key.length == 2
                && profile.neverFalls[key[0]]
                && Arrays.stream(key)
                        .allMatch(column ->
                                profile.columns.get(column).guess().type().isInteger());
    }

    private KeyCounts roomFor(TableProfile profile, int[] key) {
        int first = key[0];
        return key.length == 1
                        && !profile.isSampled
                        && profile.columns.get(first).guess().type().isInteger()
                ? KeyCounts.ofNumbers(
                        profile.leastWhole[first], profile.greatestWhole[first], profile.rows, context.budget())
                : KeyCounts.ofAny(profile.rows, context.budget());
    }

    private void plan(Pair pair, SpillFolder spill) {
        List<KeyForm> forms = formsOf(pair.parent(), pair.key());
        KeyEncoder ofChild = new KeyEncoder(pair.columns(), forms, context.secret());
        links.put(pair, new LinkTally(ofChild, rooms.get(pair.key())));
        boolean isLookedAt =
                pair.isOfOneTable() && (pair.child().rows <= MANY_ROWS || LinkRanking.isNamed(pair, names));
        if (isLookedAt) {
            FaultLog log = new FaultLog(
                    spill,
                    FindingKind.OWN_ANCESTOR,
                    Severity.ERROR,
                    pair.child().name(),
                    "",
                    List.of());
            KeyEncoder own = new KeyEncoder(pair.key(), forms, context.secret());
            rings.put(pair, new AcyclicCheck(spill, context.budget(), own, ofChild.copy(), null, log));
        }
    }

    private List<KeyForm> formsOf(TableProfile profile, int[] columns) {
        return Arrays.stream(columns)
                .mapToObj(column -> KeyForm.of(tables.get(profile).columns().get(column)))
                .toList();
    }

    /** The first pass: all keys, and the links whose parents come before. */
    private void read(List<TableProfile> order) {
        Map<TableProfile, List<Pair>> known =
                pairs.stream().filter(Counting::isKnown).collect(Collectors.groupingBy(Pair::parent));
        List<TablePass> passes = new ArrayList<>();
        Map<TableProfile, TablePass> byTable = new HashMap<>();
        for (TableProfile profile : order) {
            List<RowCheck> checks = new ArrayList<>();
            List<int[]> ownKeys = keys.getOrDefault(profile, List.of());
            ownKeys.forEach(key -> checks.add(check(profile, key)));
            List<Pair> own = pairs.stream()
                    .filter(pair ->
                            pair.child().equals(profile) && byTable.containsKey(pair.parent()) && !isKnown(pair))
                    .toList();
            own.forEach(pair -> checks.add(ofSample(profile, links.get(pair))));
            pairs.stream()
                    .filter(pair -> pair.child().equals(profile) && rings.containsKey(pair))
                    .forEach(pair -> checks.add(ofSample(profile, rings.get(pair))));
            TablePass pass = pass(profile, checks, () -> {
                ownKeys.forEach(this::conclude);
                own.forEach(this::conclude);
                known.getOrDefault(profile, List.of()).forEach(this::countKnown);
            });
            own.forEach(pair -> pass.waitFor(byTable.get(pair.parent())));
            byTable.put(profile, pass);
            passes.add(pass);
        }
        run(passes);
    }

    private RowCheck check(TableProfile profile, int[] key) {
        return isPointedAt(key) ? tallies.get(key) : ofSample(profile, tallies.get(key));
    }

    /** Links whose parents were not read before their children. */
    private void readLate() {
        List<TablePass> passes = new ArrayList<>();
        for (TableProfile profile : profiles) {
            List<Pair> own = pairs.stream()
                    .filter(pair -> pair.child().equals(profile) && links.containsKey(pair))
                    .toList();
            if (!own.isEmpty()) {
                List<RowCheck> checks = own.stream()
                        .map(pair -> ofSample(profile, links.get(pair)))
                        .toList();
                passes.add(pass(profile, checks, () -> own.forEach(this::conclude)));
            }
        }
        run(passes);
    }

    /** Whether all values of the child's column are known, so that its rows need not be read. */
    private static boolean isKnown(Pair pair) {
        return pair.isSingle() && pair.child().known(pair.columns()[0]).isPresent();
    }

    private void countKnown(Pair pair) {
        int column = pair.columns()[0];
        links.get(pair)
                .count(
                        pair.child().known(column).orElseThrow(),
                        pair.child().columns.get(column).nulls(),
                        tables.get(pair.child()).columns().get(column),
                        context.secret());
        conclude(pair);
    }

    private boolean isPointedAt(int[] key) {
        return pending.containsKey(key);
    }

    private RowCheck ofSample(TableProfile profile, RowCheck check) {
        return profile.isSampled ? new FirstRows(check, sample) : check;
    }

    private Scan scan(TableProfile profile, TableSource source, int[] columns, boolean isWhole) {
        Scan all = source.scan(columns, RefRanges.ALL);
        return profile.isSampled && !isWhole ? new FirstScan(all, sample) : all;
    }

    private TablePass pass(TableProfile profile, List<? extends RowCheck> checks, Runnable onEnd) {
        int[] columns = checks.stream()
                .flatMapToInt(check -> Arrays.stream(check.columns()))
                .sorted()
                .distinct()
                .toArray();
        boolean isWhole = checks.stream().anyMatch(check -> !(check instanceof FirstRows));
        Table table = tables.get(profile);
        TableSource source = sources.computeIfAbsent(profile, p -> open.apply(table));
        return new TablePass(
                table,
                () -> scan(profile, source, columns, isWhole),
                columns,
                checks,
                Optional.empty(),
                context.secret(),
                onEnd);
    }

    private void run(List<TablePass> passes) {
        if (passes.isEmpty()) {
            return;
        }
        long bytes = sources.values().stream().mapToLong(TableSource::bytes).sum();
        new Reading(
                        passes,
                        context.threadsFor(bytes),
                        table -> context.progress()
                                .advanced(
                                        () -> sources.values().stream()
                                                .mapToLong(TableSource::bytesRead)
                                                .sum(),
                                        bytes))
                .run();
    }

    private void conclude(int[] key) {
        KeyTally tally = tallies.get(key);
        tally.keys().seal();
        if (tally.keys().isFull()) {
            keysWithoutRoom.add(key);
        } else {
            counts.add(key, tally.counted());
        }
        if (!isPointedAt(key)) {
            tally.keys().close();
        }
    }

    /** A link has been counted: what is known of it stays, and its parents go when nobody else asks for them. */
    private void conclude(Pair pair) {
        LinkTally tally = links.remove(pair);
        KeyTally parent = tallies.get(pair.key());
        if (tally.hasRoom()) {
            counts.add(
                    pair,
                    new CountedLink(result(pair, tally, parent), tally.commonestMissing(EXAMPLES), hasRings(pair)));
        } else {
            pairsWithoutRoom.add(pair);
        }
        if (pending.merge(pair.key(), -1, Integer::sum) == 0) {
            parent.keys().close();
        }
    }

    private boolean hasRings(Pair pair) {
        AcyclicCheck check = rings.get(pair);
        if (check == null) {
            return false;
        }
        check.resolve();
        boolean has = check.rings() > 0;
        check.close();
        return has;
    }

    private static LinkResult result(Pair pair, LinkTally tally, KeyTally parent) {
        SortedMap<Long, Long> byChildren = new TreeMap<>(tally.parentsByChildren());
        if (parent.keyless() > 0) {
            byChildren.merge(0L, parent.keyless(), Long::sum);
        }
        return CountedLink.result(pair, tally.rows(), ChildrenTally.of(byChildren));
    }
}
