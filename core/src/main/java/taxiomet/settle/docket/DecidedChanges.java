package taxiomet.settle.docket;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Deed;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.InsertedRow;
import taxiomet.proposal.Change.ListedRow;
import taxiomet.proposal.Change.RowPlace;
import taxiomet.proposal.Input;
import taxiomet.proposal.Origin;
import taxiomet.settle.docket.Deciding.Decision;
import taxiomet.settle.docket.Deciding.RowOf;

/** What decisions would change: each kind of decision about one table is one change of many rows. */
final class DecidedChanges {
    private final Charter charter;
    private final List<Decision> decisions;

    DecidedChanges(Charter charter, Collection<Decision> decisions) {
        this.charter = charter;
        this.decisions = List.copyOf(decisions);
    }

    /** Parents that are created first, then other values, merges, and rows that go. */
    List<Change> all() {
        List<Change> changes = new ArrayList<>();
        addParents(changes);
        addWrites(changes);
        for (Decision decision : decisions) {
            if (decision.deed() instanceof Deed.Merge merge) {
                changes.add(new Change.Merge(
                        origin(decision, decision.filled().decision()),
                        decision.item().table(),
                        merge.goes(),
                        merge.stays(),
                        true,
                        Map.of()));
            }
        }
        addDeletes(changes);
        return changes;
    }

    private static Origin origin(Decision decision, String words) {
        return new Origin(words, decision.filled().place());
    }

    private void addParents(List<Change> changes) {
        Map<List<Object>, Map<List<String>, Decision>> parents = new LinkedHashMap<>();
        for (Decision decision : decisions) {
            if (decision.deed() instanceof Deed.CreateParent parent) {
                parents.computeIfAbsent(
                                List.of(parent.table(), List.copyOf(parent.key().keySet())),
                                key -> new LinkedHashMap<>())
                        .putIfAbsent(List.copyOf(parent.key().values()), decision);
            }
        }
        parents.forEach((place, of) -> {
            String table = (String) place.get(0);
            Decision first = of.values().iterator().next();
            List<String> columns =
                    List.copyOf(((Deed.CreateParent) first.deed()).key().keySet());
            List<InsertedRow> rows = new ArrayList<>();
            of.forEach((key, decision) -> rows.add(new InsertedRow(
                    decision.filled().place(),
                    key.stream().map(cell -> (Input) new Input.Cell(cell)).toList())));
            changes.add(new Change.Insert(origin(first, "create " + table + " that is missing"), table, columns, rows));
        });
    }

    /** The values to be written, row by row: decisions about one row are one change of it. */
    private void addWrites(List<Change> changes) {
        Map<RowOf, Map<String, String>> cells = new LinkedHashMap<>();
        Map<RowOf, Decision> first = new HashMap<>();
        for (Decision decision : decisions) {
            if (decision.deed() instanceof Deed.Write write) {
                RowOf row = RowOf.of(decision.item());
                first.putIfAbsent(row, decision);
                cells.computeIfAbsent(row, of -> new TreeMap<>()).putAll(write.cells());
            }
        }
        Map<List<Object>, List<ListedRow>> lists = new LinkedHashMap<>();
        Map<List<Object>, Decision> origins = new HashMap<>();
        cells.forEach((row, values) -> {
            List<Object> kind = List.of(row.table(), List.copyOf(values.keySet()));
            origins.putIfAbsent(kind, first.get(row));
            List<Input> inputs = new ArrayList<>();
            values.values().forEach(value -> inputs.add(new Input.Cell(value)));
            lists.computeIfAbsent(kind, of -> new ArrayList<>()).add(listed(first.get(row), inputs));
        });
        lists.forEach((kind, rows) -> {
            Decision decision = origins.get(kind);
            String table = decision.item().table();
            List<String> columns =
                    List.copyOf(cells.get(RowOf.of(decision.item())).keySet());
            changes.add(new Change.UpdateListed(
                    origin(decision, "change " + String.join(", ", columns) + " of " + table),
                    table,
                    List.copyOf(decision.item().place().key().keySet()),
                    columns,
                    rows));
        });
    }

    private void addDeletes(List<Change> changes) {
        Map<String, Map<RowOf, Decision>> byTable = new LinkedHashMap<>();
        for (Decision decision : decisions) {
            if (decision.deed() instanceof Deed.Delete) {
                byTable.computeIfAbsent(decision.item().table(), table -> new LinkedHashMap<>())
                        .putIfAbsent(RowOf.of(decision.item()), decision);
            }
        }
        byTable.forEach((table, of) -> {
            Decision first = of.values().iterator().next();
            Set<ListedRow> rows = new LinkedHashSet<>();
            of.values().forEach(decision -> rows.add(listed(decision, List.of())));
            changes.add(new Change.DeleteListed(
                    origin(first, "delete rows of " + table),
                    table,
                    List.copyOf(first.item().place().key().keySet()),
                    List.copyOf(rows)));
        });
    }

    private ListedRow listed(Decision decision, List<Input> values) {
        Docket.Place place = decision.item().place();
        Table table = charter.table(decision.item().table());
        boolean isNumbered = !DatabaseAddress.isOfDatabase(place.part())
                && !table.rows().path().isEmpty();
        String file = place.part()
                .substring(Math.max(place.part().lastIndexOf('/'), place.part().lastIndexOf('\\')) + 1);
        return new ListedRow(
                decision.filled().place(),
                new ArrayList<>(place.key().values()),
                values,
                isNumbered ? Optional.of(new RowPlace(file, place.row())) : Optional.empty());
    }
}
