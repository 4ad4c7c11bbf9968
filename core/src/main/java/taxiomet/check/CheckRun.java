package taxiomet.check;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.LongPredicate;
import java.util.function.LongSupplier;
import taxiomet.cause.Causes;
import taxiomet.charter.Charter;
import taxiomet.charter.Key;
import taxiomet.charter.Owner;
import taxiomet.charter.Table;
import taxiomet.check.pass.CheckOptions;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Reading;
import taxiomet.check.pass.SecondLook;
import taxiomet.check.pass.TablePass;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult;
import taxiomet.load.Loading;
import taxiomet.personal.VeiledCheck;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;
import taxiomet.rows.Undeclared;
import taxiomet.spill.SpillFolder;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;

/**
 * A check of rows against a charter. The result can be read, and its evidence fetched, until the run is closed; closing it
 * closes the sources and removes all temporary files.
 */
public final class CheckRun implements AutoCloseable {
    private final Charter charter;
    private final CheckOptions options;
    private final SpillFolder spill;
    private final CheckPlan plan;
    private final Map<String, TableSource> sources = new LinkedHashMap<>();
    /** For each table that was asked about, the numbers of its parts by their names. */
    private final Map<String, Map<String, Integer>> parts = new HashMap<>();

    private final Map<String, TablePass> passes = new LinkedHashMap<>();
    private final Map<String, TableFigures> figures = new HashMap<>();
    private final RunContext context;
    private final Sieve sieve;
    private final AcceptedFaults accepted;
    private CheckResult result;

    private CheckRun(Charter charter, CheckOptions options, RunContext context) {
        this.charter = charter;
        this.options = options;
        this.spill = new SpillFolder(context.temporary(), context.budget());
        this.plan = new CheckPlan(charter, options, spill, context);
        this.context = context;
        this.accepted = new AcceptedFaults(charter, options.today());
        this.sieve = new Sieve(charter, plan.plan(), options, sources);
    }

    /**
     * Checks all tables that the options name.
     *
     * @param open opens the rows of a table with all its declared columns
     * @throws taxiomet.rows.SourceException when rows cannot be read
     * @throws taxiomet.spill.SpillException when temporary files cannot be written
     */
    public static CheckRun start(
            Charter charter, CheckOptions options, Function<Table, TableSource> open, RunContext context) {
        CheckRun run = new CheckRun(charter, options, context);
        try {
            run.run(open);
            return run;
        } catch (RuntimeException | Error e) {
            run.close();
            throw e;
        }
    }

    private void run(Function<Table, TableSource> open) {
        CheckProgress progress = context.progress();
        List<Table> order = plan.order();
        for (Table table : order) {
            sources.put(table.name(), open.apply(table));
            plan.plan().leaveOutNeedless(table, sources.get(table.name()));
        }
        if (options.isInside()) {
            sieve.run(order, context.threadsFor(Long.MAX_VALUE));
        }
        planPasses(order);
        long inAll = sources.values().stream().mapToLong(TableSource::bytes).sum();
        String[] current = {""};
        Reading reading = new Reading(List.copyOf(passes.values()), context.threadsFor(inAll), table -> {
            if (!current[0].equals(table.name())) {
                current[0] = table.name();
                progress.reading(table.name());
            }
            progress.advanced(this::bytesRead, inAll);
        });
        reading.run();
        passes.forEach((name, pass) -> figures.put(
                name,
                new TableFigures(
                        sieve.rowsOf(charter.table(name)).orElse(pass.rows()),
                        pass.malformed(),
                        sources.get(name).emptyLines(),
                        sources.get(name).undeclared().names())));
        conclude(inAll);
    }

    /** All rows have been looked at, here or elsewhere. */
    private void conclude(long inAll) {
        context.progress().concluding();
        plan.plan().resolve();
        lookAgain(inAll);
        plan.plan().lookUp(sources);
        accepted.look(faults(), sources);
        List<Finding> findings =
                new FindingAssembler(plan.plan(), sources, accepted).assemble(plan.findingsWithoutRows());
        plan.plan().told();
        CheckResult whole =
                new CheckResult(charter.name(), tableResults(), plan.linkResults(), plan.ruleResults(), findings);
        CheckResult veiled = new VeiledCheck(charter, context.secret()).of(whole);
        result = options.hinted() == 0 ? veiled : veiled.with(Causes.of(charter, veiled));
    }

    /**
     * Brings the states of pieces together, which were checked apart and perhaps elsewhere ({@link PieceCheck}).
     *
     * @param open opens the rows of a table with all its declared columns: those that findings show are read again
     * @param states of all pieces of all tables, in any order, each as the longs that were written
     * @param context with the secret under which the pieces were checked
     * @throws IllegalArgumentException when a piece is missing, comes twice, or belongs to another check
     */
    public static CheckRun merge(
            Charter charter,
            CheckOptions options,
            Function<Table, TableSource> open,
            List<LongSupplier> states,
            RunContext context) {
        CheckRun run = new CheckRun(charter, options, context);
        try {
            run.plan.keepKeysApart();
            run.plan.order().forEach(table -> run.sources.put(table.name(), open.apply(table)));
            run.figures.putAll(new PieceStates(charter, run.plan, context.secret()).read(states));
            run.conclude(0);
            return run;
        } catch (RuntimeException | Error e) {
            run.close();
            throw e;
        }
    }

    private long bytesRead() {
        long sum = 0;
        for (TableSource source : sources.values()) {
            sum += source.bytesRead();
        }
        return sum;
    }

    private void planPasses(List<Table> order) {
        for (Table table : order) {
            int[] columns = plan.plan().columnsOf(table);
            TablePass pass = new TablePass(
                    table,
                    () -> sources.get(table.name()).scan(columns, RefRanges.ALL),
                    columns,
                    plan.plan().checksOf(table),
                    plan.malformedOf(table),
                    context.secret(),
                    () -> plan.plan().ended(table.name()));
            // A parent that comes later, in a circle of links, is asked when all tables have been read.
            plan.plan()
                    .awaitedBy(table)
                    .forEach(parent -> Optional.ofNullable(passes.get(parent)).ifPresent(pass::waitFor));
            passes.put(table.name(), pass);
        }
    }

    /** Reads again what some checks must see a second time. */
    private void lookAgain(long bytes) {
        List<TablePass> again = new ArrayList<>();
        List<SecondLook> all = new ArrayList<>();
        sources.forEach((name, source) -> {
            List<SecondLook> looks = plan.plan().secondLooksAt(name);
            if (looks.isEmpty()) {
                return;
            }
            RefRanges some = RefRanges.none();
            boolean areSome = true;
            for (SecondLook look : looks) {
                areSome &= look.addRowsTo(some);
            }
            RefRanges wanted = areSome ? some : RefRanges.ALL;
            again.add(TablePass.again(charter.table(name), source, looks, wanted, context.secret()));
            all.addAll(looks);
        });
        new Reading(again, context.threadsFor(bytes), table -> {}).run();
        all.forEach(SecondLook::conclude);
    }

    /** Takes rows that are at fault. */
    @FunctionalInterface
    public interface FaultSink {
        /**
         * One row.
         *
         * @param ref its reference in its table
         */
        void fault(FindingKind kind, String table, String at, long ref);
    }

    /** Hands over every row behind every finding, place by place, without looking it up. */
    public void forEachFault(FaultSink sink) {
        for (FaultLog log : plan.plan().logs()) {
            log.forEachRow(ref -> sink.fault(log.kind(), log.table(), log.at(), ref));
        }
    }

    /**
     * What a load of all rows would come to, with all constraints on; the rows are read once more.
     *
     * @throws taxiomet.rows.SourceException when they cannot be read, or the keys of those that get in do not fit into memory
     */
    public LoadResult load() {
        return new Loading(charter, sources, plan.plan().logs(), context).result();
    }

    /** The rows behind the findings, place by place, those of notes among them; some have none. */
    public List<FaultLog> faults() {
        return plan.plan().logs();
    }

    /** The reference of a row of evidence in its table. */
    public long ref(String table, Evidence row) {
        Map<String, Integer> ofTable = parts.computeIfAbsent(table, name -> {
            Map<String, Integer> numbers = new HashMap<>();
            TableSource source = sources.get(name);
            for (int part = 0; part < source.partCount(); part++) {
                numbers.put(source.partName(part), part);
            }
            return numbers;
        });
        return RowRef.of(ofTable.get(row.part()), row.row());
    }

    /** Which rows of some faults the charter bears. */
    public LongPredicate accepted(FaultLog log) {
        return ref -> accepted.isBorne(log, ref);
    }

    /** The tables that were read, by name; the run closes them. */
    public Map<String, TableSource> sources() {
        return Collections.unmodifiableMap(sources);
    }

    /** What the check came to. */
    public CheckResult result() {
        return result;
    }

    private List<TableResult> tableResults() {
        List<TableResult> results = new ArrayList<>();
        for (Table table : charter.tables()) {
            if (!options.judges(table.name()) && !plan.plan().hasFaults(table)) {
                continue;
            }
            TableSource source = sources.get(table.name());
            List<String> files = new ArrayList<>();
            for (int part = 0; part < source.partCount(); part++) {
                files.add(source.partName(part));
            }
            List<Remark> remarks = new ArrayList<>();
            if (!options.judges(table.name())) {
                remarks.add(new Remark(
                        "judged in part", "only how many children its rows have is judged, for the tables asked for"));
            } else if (table.primaryKey().isEmpty()) {
                remarks.add(new Remark("no primary key", "no primary key is declared: equal rows are not noticed"));
            }
            remarks.addAll(plan.remarks(table));
            remarks.addAll(accepted.remarks(table));
            if (options.isInside()) {
                remarks.add(sieve.remark(table));
            }
            source.mergedCells().ifPresent(text -> remarks.add(new Remark("merged cells", text)));
            TableFigures counted = figures.get(table.name());
            Undeclared undeclared = source.undeclared().with(counted.undeclared());
            if (!undeclared.names().isEmpty()) {
                remarks.add(new Remark("undeclared column", undeclared.text()));
            }
            results.add(new TableResult(
                    table.name(),
                    files,
                    table.columns().stream().map(c -> c.name()).toList(),
                    table.namingKey(),
                    table.primaryKey().flatMap(Key::declaredName),
                    table.label(),
                    table.owner().map(o -> o instanceof Owner.InColumn in ? in.column() : null),
                    table.owner().map(o -> o instanceof Owner.Named named ? named.name() : null),
                    counted.rows(),
                    counted.malformed(),
                    FindingAssembler.faultyRows(table, plan.plan().logs(), accepted),
                    counted.emptyLines(),
                    remarks));
        }
        return results;
    }

    @Override
    public void close() {
        sources.values().forEach(TableSource::close);
        plan.close();
        spill.close();
    }
}
