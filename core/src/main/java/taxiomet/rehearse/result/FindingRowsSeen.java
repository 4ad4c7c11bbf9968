package taxiomet.rehearse.result;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedSet;
import java.util.TreeSet;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.RowLookup;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.finding.FindingKind;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;

/**
 * Which rows a check found at fault, for each of its findings, so that two checks can be compared row by row: sixteen bytes a row, which go
 * to disk where there are many.
 */
final class FindingRowsSeen {
    private final Map<Place, SortedSpool> rows = new LinkedHashMap<>();
    private final ReachedRows reached;
    private final Map<String, ? extends TableSource> sources;

    /** What a finding is about. */
    private record Place(FindingKind kind, String table, String at) {}

    /**
     * @param sources where rows are looked up whose names are wanted
     * @param spill is closed by the caller
     */
    FindingRowsSeen(
            CheckRun check, ReachedRows reached, Map<String, ? extends TableSource> sources, SpillFolder spill) {
        this.reached = reached;
        this.sources = sources;
        check.forEachFault((kind, table, at, ref) -> {
            if (kind != FindingKind.ODD_SPELLING) {
                rows.computeIfAbsent(new Place(kind, table, at), place -> new SortedSpool(spill))
                        .add(ref, 0);
            }
        });
    }

    /** The findings here with rows that are not at fault in the other check. */
    List<FindingChange> without(FindingRowsSeen other, int examples) {
        List<FindingChange> changes = new ArrayList<>();
        rows.forEach((place, found) -> {
            SortedSpool.Reader here = found.read();
            SortedSpool.Reader there =
                    other.rows.containsKey(place) ? other.rows.get(place).read() : null;
            boolean hasOther = there != null && there.next();
            TreeSet<Long> named = new TreeSet<>();
            long count = 0;
            while (here.next()) {
                while (hasOther && there.first() < here.first()) {
                    hasOther = there.next();
                }
                if (hasOther && there.first() == here.first()) {
                    continue;
                }
                count++;
                if (named.size() < examples) {
                    named.add(here.first());
                }
            }
            if (count > 0) {
                changes.add(
                        new FindingChange(place.kind(), place.table(), place.at(), count, names(place.table(), named)));
            }
        });
        return changes;
    }

    private List<RowName> names(String name, SortedSet<Long> refs) {
        Table table = reached.table(name).table();
        Map<Long, FoundRow> found = new RowLookup(table, sources.get(name)).find(refs);
        return refs.stream()
                .map(ref -> {
                    FoundRow row = found.get(ref);
                    return new RowName(
                            name,
                            row.part(),
                            RowRef.row(ref),
                            row.line(),
                            cells(table, table.namingKey(), row),
                            cells(table, table.label(), row));
                })
                .toList();
    }

    private static Map<String, String> cells(Table table, List<String> columns, FoundRow row) {
        Map<String, String> cells = new LinkedHashMap<>();
        for (String column : columns) {
            cells.put(column, row.values().isEmpty() ? null : row.values().get(table.indexOf(column)));
        }
        return cells;
    }
}
