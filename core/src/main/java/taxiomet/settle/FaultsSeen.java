package taxiomet.settle;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import taxiomet.charter.Severity;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.FindingShift;

/**
 * The rows behind the findings of a result, so that they are known again in the next: by their key, or by all they hold where the key is
 * at fault, null, or not there; never by where they stand. Both results are told under one secret, so that pseudonyms are the same.
 */
public final class FaultsSeen {
    /** Of a finding with more rows only their number is compared. */
    private static final long MOST_ROWS = 20_000;

    private final Map<Place, Seen> findings = new LinkedHashMap<>();

    private record Place(FindingKind kind, String table, String at) {}

    /** @param rows what they are called, each with how often it comes; empty where there are too many */
    private record Seen(Severity severity, long count, Map<Row, Integer> rows) {
        boolean areRowsKnown() {
            return count <= MOST_ROWS;
        }
    }

    /** A row as it is known again, and what it is called. */
    private record Row(List<String> cells, String name) {
        @Override
        public boolean equals(Object other) {
            return other instanceof Row row && cells.equals(row.cells);
        }

        @Override
        public int hashCode() {
            return cells.hashCode();
        }
    }

    /** Looks at a result, whose evidence can still be had. */
    public static FaultsSeen of(CheckResult result) {
        FaultsSeen seen = new FaultsSeen();
        for (Finding finding : result.findings()) {
            Map<Row, Integer> rows = new LinkedHashMap<>();
            if (!finding.kind().hasNoRows() && finding.rows() <= MOST_ROWS) {
                TableResult table = result.table(finding.table());
                finding.evidence().forEach(row -> rows.merge(row(finding, table, row), 1, Integer::sum));
            }
            seen.findings.put(
                    new Place(finding.kind(), finding.table(), finding.at()),
                    new Seen(finding.severity(), finding.rows(), rows));
        }
        return seen;
    }

    private static Row row(Finding finding, TableResult table, Evidence row) {
        if (row.values().isEmpty()) {
            return new Row(List.of(row.raw()), "row " + row.row());
        }
        List<String> key = table.key().stream()
                .map(column -> row.values().get(table.columns().indexOf(column)))
                .map(cell -> Objects.requireNonNullElse(cell, "null"))
                .toList();
        boolean isOfKey = finding.kind() == FindingKind.DUPLICATE || finding.kind() == FindingKind.NULL_IN_KEY;
        String name =
                key.isEmpty() ? "row " + row.row() : key.size() == 1 ? key.get(0) : "(" + String.join(", ", key) + ")";
        return isOfKey || key.isEmpty()
                ? new Row(row.values().stream().map(String::valueOf).toList(), name)
                : new Row(key, name);
    }

    /** What is new, and what is gone, in a later result: those findings alone that have come, gone or changed. */
    public List<FindingShift> until(FaultsSeen later) {
        List<FindingShift> shifts = new ArrayList<>();
        later.findings.forEach((place, now) -> add(place, findings.get(place), now, shifts));
        findings.forEach((place, before) -> {
            if (!later.findings.containsKey(place)) {
                add(place, before, null, shifts);
            }
        });
        return shifts;
    }

    private static void add(Place place, Seen before, Seen now, List<FindingShift> shifts) {
        Map<Row, Integer> old = before == null ? Map.of() : before.rows();
        Map<Row, Integer> fresh = now == null ? Map.of() : now.rows();
        List<String> come = beyond(fresh, old);
        List<String> gone = beyond(old, fresh);
        long countBefore = before == null ? 0 : before.count();
        long countNow = now == null ? 0 : now.count();
        if (come.isEmpty() && gone.isEmpty() && countBefore == countNow && before != null && now != null) {
            return;
        }
        boolean areRowsKnown = (before == null || before.areRowsKnown()) && (now == null || now.areRowsKnown());
        shifts.add(new FindingShift(
                place.kind(),
                now == null ? before.severity() : now.severity(),
                place.table(),
                place.at(),
                countBefore,
                countNow,
                areRowsKnown ? come : List.of(),
                areRowsKnown ? gone : List.of(),
                areRowsKnown));
    }

    /** The names of rows that come more often in one than in the other. */
    private static List<String> beyond(Map<Row, Integer> one, Map<Row, Integer> other) {
        List<String> names = new ArrayList<>();
        one.forEach((row, count) -> {
            for (int i = other.getOrDefault(row, 0); i < count; i++) {
                names.add(row.name());
            }
        });
        return names;
    }
}
