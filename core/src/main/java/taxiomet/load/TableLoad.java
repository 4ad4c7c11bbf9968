package taxiomet.load;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Table;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult.LoadRefusal;
import taxiomet.finding.LoadResult.LoadedTable;
import taxiomet.finding.LoadResult.Why;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;
import taxiomet.work.Secret;

/** The rows of one table, one after the other, each judged by what is in by then. */
final class TableLoad {
    private final Table table;
    private final TableSource source;
    private final Map<String, LoadedKeys> own;
    private final List<LoadedKeys> asParents;
    private final List<LinkInLoad> links;
    private final OwnFaults faults;
    private final Map<String, OwnFaults> orphans;
    private final Map<Constraint, Refused> refused = new LinkedHashMap<>();
    private long rows;
    private long loaded;

    private static final class Refused {
        private long rows;
        private long first = Long.MAX_VALUE;
    }

    /**
     * @param own the keys of the table, by name
     * @param asParents the keys that links point at, which get the rows that are in
     * @param orphans for each link, the rows that have no parent at all
     */
    TableLoad(
            Table table,
            TableSource source,
            Map<String, LoadedKeys> own,
            List<LoadedKeys> asParents,
            List<LinkInLoad> links,
            OwnFaults faults,
            Map<String, OwnFaults> orphans) {
        this.table = table;
        this.source = source;
        this.own = own;
        this.asParents = asParents;
        this.links = links;
        this.faults = faults;
        this.orphans = orphans;
    }

    LoadedTable run(Secret secret) {
        int[] columns = Stream.of(
                        own.values().stream().map(LoadedKeys::columns),
                        asParents.stream().map(LoadedKeys::columns),
                        links.stream().map(LinkInLoad::columns))
                .flatMap(each -> each)
                .flatMapToInt(IntStream::of)
                .distinct()
                .sorted()
                .toArray();
        TypedBatch batch = TypedBatch.ofValues(table, columns, secret);
        source.read(columns, read -> take(read, batch));
        return new LoadedTable(table.name(), rows, loaded, refusals());
    }

    private List<LoadRefusal> refusals() {
        List<LoadRefusal> refusals = new ArrayList<>();
        refused.forEach((constraint, which) -> refusals.add(new LoadRefusal(
                constraint.why(),
                constraint.finding(),
                constraint.at(),
                which.rows,
                source.partName(RowRef.part(which.first)),
                RowRef.row(which.first))));
        refusals.sort(Comparator.comparing(LoadRefusal::why)
                .thenComparing(refusal -> refusal.finding().map(Enum::ordinal).orElse(0))
                .thenComparing(LoadRefusal::at));
        return refusals;
    }

    private void take(RowBatch read, TypedBatch batch) {
        batch.read(read);
        own.values().forEach(keys -> keys.start(batch));
        asParents.forEach(keys -> keys.start(batch));
        links.forEach(link -> link.start(batch));
        for (int row = 0; row < batch.size(); row++) {
            Optional<Constraint> why = judge(row, batch.ref(row));
            if (why.isPresent()) {
                refuse(why.get(), batch.ref(row));
            } else {
                add(row);
            }
        }
        for (RowBatch.MalformedRow row : read.malformed()) {
            refuse(new Constraint(Why.OWN_FAULT, Optional.of(FindingKind.MALFORMED_ROW), table.name()), row.ref());
        }
        rows += read.size() + read.malformed().size();
    }

    private void add(int row) {
        loaded++;
        for (LoadedKeys keys : own.values()) {
            keys.add(row);
        }
        for (LoadedKeys keys : asParents) {
            keys.add(row);
        }
    }

    private void refuse(Constraint constraint, long ref) {
        Refused which = refused.computeIfAbsent(constraint, key -> new Refused());
        which.rows++;
        which.first = Math.min(which.first, ref);
    }

    private Optional<Constraint> judge(int row, long ref) {
        Optional<Constraint> fault = faults.of(ref);
        if (fault.isPresent()) {
            return fault;
        }
        for (Map.Entry<String, LoadedKeys> key : own.entrySet()) {
            if (key.getValue().hasKeyOf(row)) {
                return Optional.of(Constraint.of(Why.DUPLICATE, key.getKey()));
            }
        }
        for (LinkInLoad link : links) {
            Optional<Why> why = link.refuses(row);
            if (why.isPresent()) {
                String name = link.link().name();
                boolean isOrphan = why.get() == Why.PARENT_NOT_IN && isOrphan(name, ref);
                return Optional.of(Constraint.of(isOrphan ? Why.NO_PARENT : why.get(), name));
            }
        }
        return Optional.empty();
    }

    private boolean isOrphan(String link, long ref) {
        return orphans.containsKey(link) && orphans.get(link).of(ref).isPresent();
    }
}
