package taxiomet.browse;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.LongStream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.TraceResult.RowFault;
import taxiomet.rows.BorrowedSource;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowsKept;
import taxiomet.rows.TableSource;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;

/**
 * What is wrong with one row: what a check finds of it among the rows around it, those that share a key, its parents and its children.
 * Whether it is its own ancestor, or was probably entered twice, is found among all rows of its table.
 */
final class FaultsOfRow {
    private final Charter charter;
    private final Sources sources;
    private final RunContext context;
    private final Map<String, TreeSet<Long>> around = new HashMap<>();

    FaultsOfRow(Charter charter, Sources sources, RunContext context) {
        this.charter = charter;
        this.sources = sources;
        this.context = context;
    }

    /** Rows that say something about the one asked for, itself among them. */
    void add(Table table, long... refs) {
        TreeSet<Long> all = around.computeIfAbsent(table.name(), name -> new TreeSet<>());
        LongStream.of(refs).forEach(all::add);
    }

    /** What is wrong with a row. */
    List<RowFault> of(Table table, long ref) {
        List<RowFault> faults = new ArrayList<>();
        Set<String> judged = new LinkedHashSet<>(Set.of(table.name()));
        charter.links().stream()
                .filter(link ->
                        link.parent().equals(table.name()) && link.children().isPresent())
                .forEach(link -> judged.add(link.child()));
        Charter near = charter.with(charter.tables().stream()
                .map(each -> each.withLinks(each.links().stream()
                                .map(ForeignKey::notAcyclic)
                                .toList())
                        .withAlike(List.of()))
                .toList());
        check(
                near,
                judged,
                each -> new RowsKept(sources.of(each), refs(each)),
                run -> addFaults(run, table, ref, kind -> true, faults));
        addRings(table, ref, faults);
        addDoubles(table, ref, faults);
        return faults;
    }

    private void addDoubles(Table table, long ref, List<RowFault> faults) {
        if (table.alike().isEmpty()) {
            return;
        }
        Table alone = table.withLinks(List.of()).withRules(List.of());
        check(
                charter.with(List.of(alone)),
                Set.of(table.name()),
                each -> new BorrowedSource(sources.of(table)),
                run -> addFaults(run, table, ref, FindingKind.LIKELY_DOUBLE::equals, faults));
    }

    private void addFaults(CheckRun run, Table table, long ref, Predicate<FindingKind> kinds, List<RowFault> faults) {
        for (Finding finding : run.result().findings()) {
            if (finding.table().equals(table.name()) && kinds.test(finding.kind())) {
                finding.evidence().forEach(row -> {
                    if (row.row() == RowRef.row(ref) && row.part().equals(partOf(table, ref))) {
                        faults.add(new RowFault(
                                finding.kind(), finding.severity(), finding.at(), finding.columns(), row.problem()));
                    }
                });
            }
        }
    }

    private String partOf(Table table, long ref) {
        return sources.of(table).partName(RowRef.part(ref));
    }

    private void addRings(Table table, long ref, List<RowFault> faults) {
        List<ForeignKey> rings =
                table.links().stream().filter(ForeignKey::isAcyclic).toList();
        if (rings.isEmpty()) {
            return;
        }
        Table alone = table.withLinks(rings).withRules(List.of());
        check(
                charter.with(List.of(alone)),
                Set.of(table.name()),
                each -> new BorrowedSource(sources.of(table)),
                run -> run.forEachFault((kind, of, at, row) -> {
                    if (kind == FindingKind.OWN_ANCESTOR && row == ref) {
                        ForeignKey link = table.link(at).orElseThrow();
                        faults.add(new RowFault(kind, link.severity(), at, link.columns(), ""));
                    }
                }));
    }

    private interface Reader {
        void read(CheckRun run);
    }

    private void check(Charter of, Set<String> judged, Function<Table, TableSource> open, Reader reader) {
        try (CheckRun run =
                CheckRun.start(of, new CheckOptions(judged, 0, 0), open, context.toldTo(CheckProgress.NONE))) {
            reader.read(run);
        }
    }

    private long[] refs(Table table) {
        return around.getOrDefault(table.name(), new TreeSet<>()).stream()
                .mapToLong(Long::longValue)
                .toArray();
    }
}
