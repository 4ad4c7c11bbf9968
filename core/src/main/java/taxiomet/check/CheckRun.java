package taxiomet.check;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Owner;
import taxiomet.charter.Table;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Finding;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Split;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;

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
    private final Map<String, long[]> counts = new HashMap<>();
    private CheckResult result;

    private CheckRun(Charter charter, CheckOptions options, Path temporary, MemoryBudget budget) {
        this.charter = charter;
        this.options = options;
        this.spill = new SpillFolder(temporary);
        this.plan = new CheckPlan(charter, options, spill, budget);
    }

    /**
     * Checks all tables that the options name.
     *
     * @param open opens the rows of a table with all its declared columns
     * @param temporary an existing folder for temporary files
     * @throws taxiomet.rows.SourceException when rows cannot be read
     * @throws taxiomet.spill.SpillException when temporary files cannot be written
     */
    public static CheckRun start(
            Charter charter,
            CheckOptions options,
            Function<Table, TableSource> open,
            Path temporary,
            MemoryBudget budget,
            CheckProgress progress) {
        CheckRun run = new CheckRun(charter, options, temporary, budget);
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
        long inAll = sources.values().stream()
                .flatMap(source -> source.splits().stream())
                .mapToLong(Split::bytes)
                .sum();
        long before = 0;
        for (Table table : order) {
            progress.reading(table.name());
            long doneBefore = before;
            TableSource source = sources.get(table.name());
            readTable(table, source, bytes -> progress.advanced(doneBefore + bytes, inAll));
            before += source.splits().stream().mapToLong(Split::bytes).sum();
        }
        progress.concluding();
        plan.resolve();
        List<Finding> findings = new FindingAssembler(charter, plan, options, sources).assemble();
        result = new CheckResult(charter.name(), tableResults(), linkResults(), ruleResults(), findings);
    }

    private interface BytesRead {
        void now(long bytes);
    }

    /** One pass over a table, for all of its checks. */
    private void readTable(Table table, TableSource source, BytesRead bytesRead) {
        int[] columns = plan.columnsOf(table);
        List<RowCheck> checks = plan.checksOf(table);
        Optional<FaultLog> malformedLog = plan.malformedOf(table);
        TypedBatch typed = new TypedBatch(table, columns);
        long[] rows = new long[2];
        for (Split split : source.splits()) {
            split.read(columns, batch -> {
                typed.read(batch);
                for (RowCheck check : checks) {
                    check.check(typed);
                }
                for (RowBatch.MalformedRow row : batch.malformed()) {
                    malformedLog.ifPresent(log -> log.add(row.ref(), row.reason()));
                }
                rows[0] += batch.size() + batch.malformed().size();
                rows[1] += batch.malformed().size();
                bytesRead.now(source.bytesRead());
            });
        }
        plan.seal(table);
        counts.put(table.name(), rows);
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
            if (table.primaryKey().isEmpty()) {
                remarks.add(new Remark("no primary key", "no primary key is declared: equal rows are not noticed"));
            }
            source.notices().forEach(notice -> remarks.add(new Remark(notice.kind(), notice.text())));
            long[] rows = counts.get(table.name());
            results.add(new TableResult(
                    table.name(),
                    files,
                    table.columns().stream().map(c -> c.name()).toList(),
                    namingKey(table),
                    table.label(),
                    table.owner().map(o -> o instanceof Owner.InColumn in ? in.column() : null),
                    table.owner().map(o -> o instanceof Owner.Named named ? named.name() : null),
                    rows[0],
                    rows[1],
                    FindingAssembler.faultyRows(table, plan.logs()),
                    source.emptyLines(),
                    remarks));
        }
        return results;
    }

    /** The columns by which a row is called: the primary key's, else those of the first unique key. */
    private static List<String> namingKey(Table table) {
        if (table.primaryKey().isPresent()) {
            return table.primaryKey().get().columns();
        }
        return table.uniqueKeys().isEmpty()
                ? List.of()
                : table.uniqueKeys().get(0).columns();
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
