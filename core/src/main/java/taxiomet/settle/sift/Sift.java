package taxiomet.settle.sift;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.ParentsFirst;
import taxiomet.check.pass.Reading;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.TablePass;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.FindingKind;
import taxiomet.finding.settled.SiftResult;
import taxiomet.finding.settled.SiftResult.Reason;
import taxiomet.finding.settled.SiftResult.SiftedTable;
import taxiomet.finding.settled.SiftResult.Why;
import taxiomet.keys.KeyForm;
import taxiomet.keys.RowSet;
import taxiomet.rows.RefRanges;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;
import taxiomet.work.RunContext;

/**
 * The rows that obey a charter together. Rows are judged in this order:
 *
 * <ol>
 *   <li>S1: a row that is at fault by itself is set aside: malformed, a value that is not of its type or not allowed, a null, a half-null
 *       link, a rule over its own columns.
 *   <li>S2: of rows that share a key one stays, as was chosen ({@link Keeping}), among those left by S1; the others are set aside.
 *   <li>S3: a row without a parent is set aside, and with it every row whose parent is, to the end of all links. What is left then is the
 *       greatest set in which every row has its parents: rows outside it could come in with none of them.
 *   <li>S4: a row that is its own ancestor, or breaks a rule over its parents, is set aside, and S3 followed again.
 *   <li>S5: a parent with too few or too many children that are left, or that breaks a rule over them, is set aside, and S3 followed; what
 *       is left is judged anew until it is sound. There is no greatest set here: with other rows left out, more might stay.
 * </ol>
 *
 * <p>A link counts whether anything enforces it or not, and a warning as an error does; notes do not count.
 */
public final class Sift implements AutoCloseable {
    /** The check whose faults are known keeps its keys meanwhile. */
    private static final int SHARE_OF_MEMORY = 4;

    private final Charter charter;
    private final CheckRun run;
    private final RunContext context;
    private final SpillFolder spill;
    private final Map<String, TableSource> sources;
    private final List<Table> order;
    private final Map<String, AsideRows> aside = new LinkedHashMap<>();
    private final Map<String, List<LinkSift>> linksToParent = new HashMap<>();
    /** Of each child, the links whose children are looked for by reading it again. */
    private final Map<String, List<ParentsLost>> readAgain = new HashMap<>();

    private Sift(Charter charter, CheckRun run, RunContext context) {
        this.charter = charter;
        this.run = run;
        this.context = context;
        this.spill = new SpillFolder(context.temporary(), context.budget());
        this.sources = run.sources();
        this.order = ParentsFirst.order(
                charter.tables(),
                table -> table.links().stream()
                        .map(link -> charter.table(link.parent()))
                        .toList());
        charter.tables().forEach(table -> aside.put(table.name(), new AsideRows(spill)));
        MemoryBudget budget = new MemoryBudget(context.budget().limit() / SHARE_OF_MEMORY);
        for (ForeignKey link : charter.links()) {
            LinkSift sift = sift(link, budget);
            if (sift instanceof ParentsLost lost) {
                readAgain
                        .computeIfAbsent(link.child(), name -> new ArrayList<>())
                        .add(lost);
            }
            linksToParent
                    .computeIfAbsent(link.parent(), name -> new ArrayList<>())
                    .add(sift);
        }
    }

    /** Takes a row that is set aside. */
    @FunctionalInterface
    public interface AsideSink {
        /**
         * One row.
         *
         * @param ref its reference in its table
         * @param cause the row that caused it, in the table that the reason names; negative where it is the row itself
         */
        void aside(long ref, Reason reason, long cause);
    }

    /**
     * Sifts all rows.
     *
     * @param run a check of all tables of the charter, still open
     * @param keeping which row stays of several that share a key
     * @throws taxiomet.rows.SourceException when rows cannot be read, or keys of rows that are set aside do not fit into memory
     */
    public static Sift of(Charter charter, CheckRun run, Keeping keeping, RunContext context) {
        Sift sift = new Sift(charter, run, context);
        try {
            sift.settle(keeping);
            return sift;
        } catch (RuntimeException | Error e) {
            sift.close();
            throw e;
        }
    }

    private LinkSift sift(ForeignKey link, MemoryBudget budget) {
        Table child = charter.table(link.child());
        Table parent = charter.table(link.parent());
        boolean isPartial = link.match() == Match.PARTIAL && link.columns().size() > 1;
        return !isPartial && isInCircle(link)
                ? new Kinship(
                        link,
                        child,
                        parent,
                        context.secret(),
                        aside.get(link.child()),
                        (table, check) -> read(table, List.of(check)))
                : new ParentsLost(link, child, parent, context.secret(), budget, () -> areKeysShared(link));
    }

    /** Whether links lead from the parent back to the child. */
    private boolean isInCircle(ForeignKey link) {
        Set<String> reached = new HashSet<>();
        List<String> open = new ArrayList<>(List.of(link.parent()));
        while (!open.isEmpty()) {
            String table = open.remove(open.size() - 1);
            if (reached.add(table)) {
                charter.table(table).links().forEach(each -> open.add(each.parent()));
            }
        }
        return reached.contains(link.child());
    }

    /** Whether several parents may have one key over a link: not where a declared key without duplicates is meant, compared likewise. */
    private boolean areKeysShared(ForeignKey link) {
        Table parent = charter.table(link.parent());
        List<KeyForm> forms = KeyForm.of(charter.table(link.child()), parent, link);
        return parent.keys().stream()
                .filter(key -> key.columns().equals(link.parentColumns())
                        && key.where().isEmpty()
                        && KeyForm.of(parent, key).equals(forms))
                .map(Key::name)
                .noneMatch(
                        key -> faults(FindingKind.DUPLICATE, parent.name(), key).allMatch(log -> log.size() == 0));
    }

    private Stream<FaultLog> faults(FindingKind kind, String table, String at) {
        return run.faults().stream().filter(log -> log.isOf(kind, table, at));
    }

    private void settle(Keeping keeping) {
        List<FaultLog> faults =
                run.faults().stream().filter(FaultLog::hasFaults).toList();
        faults.stream().filter(this::isOfRowAlone).forEach(this::setAside);
        boolean areDoubles = faults.stream().anyMatch(log -> log.kind() == FindingKind.DUPLICATE);
        charter.tables()
                .forEach(table -> new Doubles(
                                table, sources.get(table.name()), keeping.of(table.name()), aside.get(table.name()))
                        .settle(faults));
        faults.stream().filter(log -> log.kind() == FindingKind.ORPHAN).forEach(this::setAside);
        if (!areDoubles) {
            // Parents are the same with the rows that are left: what was found of them holds.
            faults.stream()
                    .filter(log -> log.kind() == FindingKind.OWN_ANCESTOR || isRule(log, Asks.PARENTS))
                    .forEach(this::setAside);
        }
        follow();
        boolean haveChanged =
                aside.values().stream().anyMatch(rows -> rows.rows().size() > 0);
        boolean areChildrenAtFault =
                faults.stream().anyMatch(log -> isOfChildren(log.kind()) || isRule(log, Asks.CHILDREN));
        if (areChildrenAtFault || (haveChanged && (asksChildren() || (areDoubles && asksParents())))) {
            judgeAnew();
        }
    }

    private static boolean isOfChildren(FindingKind kind) {
        return kind == FindingKind.TOO_FEW_CHILDREN || kind == FindingKind.TOO_MANY_CHILDREN;
    }

    private boolean asksChildren() {
        return charter.links().stream().anyMatch(link -> link.children().isPresent())
                || rules().anyMatch(rule -> Asks.of(rule) == Asks.CHILDREN);
    }

    private boolean asksParents() {
        return charter.links().stream().anyMatch(ForeignKey::isAcyclic)
                || rules().anyMatch(rule -> Asks.of(rule) == Asks.PARENTS);
    }

    private Stream<Rule> rules() {
        return charter.tables().stream().flatMap(table -> table.rules().stream());
    }

    /** Of which rows a rule asks. */
    private enum Asks {
        ROW,
        PARENTS,
        CHILDREN;

        static Asks of(Rule rule) {
            return !rule.condition().childrenRead().isEmpty()
                    ? CHILDREN
                    : !rule.condition().parentsRead().isEmpty() ? PARENTS : ROW;
        }
    }

    private boolean isRule(FaultLog log, Asks asks) {
        return log.kind() == FindingKind.BROKEN_RULE
                && charter.table(log.table()).rules().stream()
                        .anyMatch(rule -> rule.name().equals(log.at()) && Asks.of(rule) == asks);
    }

    private boolean isOfRowAlone(FaultLog log) {
        return switch (log.kind()) {
            case DUPLICATE, ORPHAN, OWN_ANCESTOR, TOO_FEW_CHILDREN, TOO_MANY_CHILDREN -> false;
            // Likeness is no proof: nobody's row is set aside for it.
            case LIKELY_DOUBLE -> false;
            case BROKEN_RULE -> isRule(log, Asks.ROW);
            default -> true;
        };
    }

    private void setAside(FaultLog log) {
        Reason reason = new Reason(Why.FAULT, Optional.of(log.kind()), log.at(), Optional.empty());
        AsideRows rows = aside.get(log.table());
        log.forEachRow(ref -> rows.add(ref, reason, AsideRows.ITSELF));
    }

    /** S3: sets aside the children of all rows that are, until there are none. */
    private void follow() {
        boolean isOpen = true;
        while (isOpen) {
            for (Table table : order) {
                findChildren(table);
                List<LinkSift> links = linksToParent.getOrDefault(table.name(), List.of());
                AsideRows rows = aside.get(table.name());
                while (rows.hasFresh()) {
                    long[] fresh = rows.takeFresh();
                    links.forEach(link -> link.lose(fresh, sources.get(table.name())));
                }
                findHolders(table, links);
            }
            isOpen = aside.values().stream().anyMatch(AsideRows::hasFresh)
                    || readAgain.values().stream().flatMap(Collection::stream).anyMatch(ParentsLost::isDue);
        }
    }

    private void findChildren(Table table) {
        read(
                table,
                readAgain.getOrDefault(table.name(), List.of()).stream()
                        .filter(ParentsLost::isDue)
                        .map(link -> link.children(aside.get(table.name())))
                        .toList());
    }

    private void findHolders(Table table, List<LinkSift> links) {
        read(
                table,
                links.stream()
                        .flatMap(link -> link.holders(aside.get(table.name())).stream())
                        .toList());
    }

    private void read(Table table, List<RowCheck> checks) {
        if (checks.isEmpty()) {
            return;
        }
        TableSource source = sources.get(table.name());
        TablePass pass = TablePass.again(table, source, checks, RefRanges.ALL, context.secret());
        new Reading(List.of(pass), context.threadsFor(source.bytes()), each -> {}).run();
    }

    /** S4 and S5, where more is asked than the first check can tell: what is left is checked until nothing is found. */
    private void judgeAnew() {
        boolean isSound = false;
        while (!isSound) {
            try (CheckRun look = CheckRun.start(
                    charter,
                    new CheckOptions(Set.of(), 0, 0),
                    table -> new SoundRows(
                            sources.get(table.name()), aside.get(table.name()).rows()),
                    context)) {
                List<FaultLog> found =
                        look.faults().stream().filter(FaultLog::hasFaults).toList();
                List<FaultLog> first = found.stream()
                        .filter(log -> !isOfChildren(log.kind()) && !isRule(log, Asks.CHILDREN))
                        .toList();
                (first.isEmpty() ? found : first).forEach(this::setAside);
                isSound = found.isEmpty();
            }
            follow();
        }
    }

    /** The rows of a table that are set aside. */
    public RowSet aside(String table) {
        return aside.get(table).rows();
    }

    /** Hands over the rows of a table that are set aside, ascending, each with the first reason for it. */
    public void forEachAside(String table, AsideSink sink) {
        aside.get(table).forEach(sink);
    }

    /** The rows of a table that are left; closing it closes nothing. */
    public TableSource sound(String table) {
        return new SoundRows(sources.get(table), aside(table));
    }

    /** The rows of a table as they were sifted. */
    public TableSource source(String table) {
        return sources.get(table);
    }

    /**
     * What it came to.
     *
     * @param mended how many values were mended before
     */
    public SiftResult result(long mended) {
        List<SiftedTable> tables = new ArrayList<>();
        for (Table table : charter.tables()) {
            TableResult checked = run.result().table(table.name());
            AsideRows rows = aside.get(table.name());
            tables.add(new SiftedTable(table.name(), checked.rows(), rows.rows().size(), rows.counted()));
        }
        return new SiftResult(charter.name(), tables, charter.notRead().size(), mended);
    }

    @Override
    public void close() {
        linksToParent.values().forEach(links -> links.forEach(LinkSift::close));
        aside.values().forEach(AsideRows::close);
        spill.close();
    }
}
