package taxiomet.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Owner;
import taxiomet.charter.Table;
import taxiomet.check.key.RepeatedRows;
import taxiomet.check.link.ChildrenCheck;
import taxiomet.check.link.LinkCheck;
import taxiomet.check.pass.Reading;
import taxiomet.check.pass.TablePass;
import taxiomet.check.rule.JudgedRule;
import taxiomet.check.rule.ParentRuleCheck;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Finding;
import taxiomet.rows.RefRanges;
import taxiomet.rows.TableSource;
import taxiomet.spill.SpillFolder;
import taxiomet.work.CheckProgress;
import taxiomet.work.Resources;

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
    private final Map<String, TablePass> passes = new LinkedHashMap<>();
    private final Resources resources;
    private CheckResult result;

    private CheckRun(Charter charter, CheckOptions options, Resources resources) {
        this.charter = charter;
        this.options = options;
        this.spill = new SpillFolder(resources.temporary(), resources.budget());
        this.plan = new CheckPlan(charter, options, spill, resources.budget());
        this.resources = resources;
    }

    /**
     * Checks all tables that the options name.
     *
     * @param open opens the rows of a table with all its declared columns
     * @throws taxiomet.rows.SourceException when rows cannot be read
     * @throws taxiomet.spill.SpillException when temporary files cannot be written
     */
    public static CheckRun start(
            Charter charter,
            CheckOptions options,
            Function<Table, TableSource> open,
            Resources resources,
            CheckProgress progress) {
        CheckRun run = new CheckRun(charter, options, resources);
        try {
            run.run(open, progress);
            return run;
        } catch (RuntimeException | Error e) {
            run.close();
            throw e;
        }
    }

    private void run(Function<Table, TableSource> open, CheckProgress progress) {
        List<Table> order = plan.order();
        for (Table table : order) {
            sources.put(table.name(), open.apply(table));
        }
        planPasses(order);
        long inAll = sources.values().stream().mapToLong(TableSource::bytes).sum();
        String[] current = {""};
        Reading reading = new Reading(List.copyOf(passes.values()), resources.threadsFor(inAll), table -> {
            if (!current[0].equals(table.name())) {
                current[0] = table.name();
                progress.reading(table.name());
            }
            progress.advanced(this::bytesRead, inAll);
        });
        reading.run();
        progress.concluding();
        plan.resolve();
        findRepeatedRows(inAll);
        List<Finding> findings = new FindingAssembler(charter, plan, options, sources).assemble();
        plan.closeIndexes();
        result = new CheckResult(charter.name(), tableResults(), linkResults(), ruleResults(), findings);
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
            TablePass pass = new TablePass(
                    table,
                    sources.get(table.name()),
                    plan.columnsOf(table),
                    plan.checksOf(table),
                    plan.malformedOf(table),
                    RefRanges.ALL,
                    () -> plan.seal(table));
            // A parent that comes later, in a circle of links, is asked when all tables have been read.
            plan.parentsOf(table)
                    .forEach(parent -> Optional.ofNullable(passes.get(parent)).ifPresent(pass::waitFor));
            passes.put(table.name(), pass);
        }
    }

    /** Reads again what is needed to know all rows of keys that are repeated. */
    private void findRepeatedRows(long bytes) {
        List<TablePass> again = new ArrayList<>();
        List<RepeatedRows> all = new ArrayList<>();
        sources.forEach((name, source) -> {
            Table table = charter.table(name);
            List<RepeatedRows> repeated = plan.repeatedIn(table);
            if (repeated.isEmpty()) {
                return;
            }
            RefRanges some = RefRanges.none();
            boolean areSome = true;
            for (RepeatedRows rows : repeated) {
                areSome &= rows.addRowsTo(some);
            }
            int[] columns = repeated.stream()
                    .flatMapToInt(rows -> Arrays.stream(rows.columns()))
                    .sorted()
                    .distinct()
                    .toArray();
            again.add(new TablePass(
                    table, source, columns, repeated, Optional.empty(), areSome ? some : RefRanges.ALL, () -> {}));
            all.addAll(repeated);
        });
        new Reading(again, resources.threadsFor(bytes), table -> {}).run();
        all.forEach(RepeatedRows::conclude);
    }

    /** What the check came to. */
    public CheckResult result() {
        return result;
    }

    private List<TableResult> tableResults() {
        List<TableResult> results = new ArrayList<>();
        for (Table table : charter.tables()) {
            if (!options.judges(table.name()) && !plan.hasFaults(table)) {
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
            plan.rules().stream()
                    .filter(planned ->
                            planned.table().equals(table) && planned.check().withTooManyParents() > 0)
                    .map(planned -> undecided(planned.check()))
                    .forEach(remarks::add);
            source.notices().forEach(notice -> remarks.add(new Remark(notice.kind(), notice.text())));
            TablePass pass = passes.get(table.name());
            results.add(new TableResult(
                    table.name(),
                    files,
                    table.columns().stream().map(c -> c.name()).toList(),
                    table.namingKey(),
                    table.primaryKey().flatMap(Key::declaredName),
                    table.label(),
                    table.owner().map(o -> o instanceof Owner.InColumn in ? in.column() : null),
                    table.owner().map(o -> o instanceof Owner.Named named ? named.name() : null),
                    pass.rows(),
                    pass.malformed(),
                    FindingAssembler.faultyRows(table, plan.logs()),
                    source.emptyLines(),
                    remarks));
        }
        return results;
    }

    private static Remark undecided(JudgedRule rule) {
        long rows = rule.withTooManyParents();
        return new Remark(
                "rule not judged",
                "rule " + rule.rule().name() + " was not judged for " + rows + (rows == 1 ? " row" : " rows")
                        + ": keys of parents are repeated, and there are more than " + ParentRuleCheck.MOST_PARENTS
                        + " different parents for one row");
    }

    private List<LinkResult> linkResults() {
        List<LinkResult> results = new ArrayList<>();
        for (CheckPlan.PlannedLink planned : plan.links()) {
            ForeignKey link = planned.link();
            LinkCheck check = planned.check();
            results.add(new LinkResult(
                    link.name(),
                    link.child(),
                    link.columns(),
                    link.parent(),
                    link.parentColumns(),
                    link.match().name().toLowerCase(Locale.ROOT),
                    link.isEnforced(),
                    check.rows(),
                    check.judged(),
                    check.nulls(),
                    check.halfNulls(),
                    check.illTyped(),
                    check.orphans().size(),
                    planned.children().map(ChildrenCheck::tally)));
        }
        return results;
    }

    private List<RuleResult> ruleResults() {
        return plan.rules().stream()
                .map(planned -> new RuleResult(
                        planned.table().name(),
                        planned.check().rule().name(),
                        planned.check().rule().text(),
                        !planned.check().rule().condition().parentsRead().isEmpty(),
                        planned.check().judged(),
                        planned.check().notJudged(),
                        planned.check().unknown(),
                        planned.check().faults().size()))
                .toList();
    }

    @Override
    public void close() {
        sources.values().forEach(TableSource::close);
        plan.close();
        spill.close();
    }
}
