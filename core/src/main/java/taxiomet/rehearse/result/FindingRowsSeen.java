package taxiomet.rehearse.result;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;

/** Which rows a check found at fault, for each of its findings, so that two checks can be compared row by row. */
final class FindingRowsSeen {
    private final Map<Place, TreeMap<Long, Evidence>> rows = new LinkedHashMap<>();
    private final CheckResult result;

    /** What a finding is about. */
    private record Place(FindingKind kind, String table, String at) {}

    FindingRowsSeen(CheckResult result, Map<String, ? extends TableSource> sources) {
        this.result = result;
        for (Finding finding : result.findings()) {
            if (finding.kind() == FindingKind.ODD_SPELLING) {
                continue;
            }
            TableSource source = sources.get(finding.table());
            Map<String, Integer> parts = new HashMap<>();
            for (int part = 0; part < source.partCount(); part++) {
                parts.put(source.partName(part), part);
            }
            TreeMap<Long, Evidence> found = new TreeMap<>();
            finding.evidence().forEach(row -> found.put(RowRef.of(parts.getOrDefault(row.part(), 0), row.row()), row));
            rows.put(new Place(finding.kind(), finding.table(), finding.at()), found);
        }
    }

    /** The findings here with rows that are not at fault in the other check. */
    List<FindingChange> without(FindingRowsSeen other, int examples) {
        List<FindingChange> changes = new ArrayList<>();
        rows.forEach((place, found) -> {
            TreeMap<Long, Evidence> there = other.rows.getOrDefault(place, new TreeMap<>());
            List<RowName> names = new ArrayList<>();
            long count = 0;
            for (Map.Entry<Long, Evidence> row : found.entrySet()) {
                if (!there.containsKey(row.getKey())) {
                    count++;
                    if (names.size() < examples) {
                        names.add(name(place.table(), row.getValue()));
                    }
                }
            }
            if (count > 0) {
                changes.add(new FindingChange(place.kind(), place.table(), place.at(), count, names));
            }
        });
        return changes;
    }

    private RowName name(String table, Evidence row) {
        CheckResult.TableResult columns = result.table(table);
        return new RowName(
                table,
                row.part(),
                row.row(),
                row.line(),
                cells(columns, columns.key(), row),
                cells(columns, columns.label(), row));
    }

    private static Map<String, String> cells(CheckResult.TableResult table, List<String> columns, Evidence row) {
        Map<String, String> cells = new LinkedHashMap<>();
        for (String column : columns) {
            cells.put(
                    column,
                    row.values().isEmpty()
                            ? null
                            : row.values().get(table.columns().indexOf(column)));
        }
        return cells;
    }
}
