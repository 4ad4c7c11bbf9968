package taxiomet.reports.sql;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement.PlannedRow;

/** Puts rows that get their old keys back into an order in which each key is free when its row takes it. */
final class KeysFree {
    private KeysFree() {}

    /** @return the rows; those that change keys among themselves in a ring as they stand, behind the others */
    static List<PlannedRow> order(Table table, List<PlannedRow> rows) {
        Map<PlannedRow, List<PlannedRow>> waiting = new LinkedHashMap<>();
        Map<PlannedRow, Integer> waitsFor = new LinkedHashMap<>();
        rows.forEach(row -> waitsFor.put(row, 0));
        for (Key key : table.keys()) {
            Map<List<String>, PlannedRow> holders = new HashMap<>();
            rows.forEach(row -> holders.put(key(table, key, row.end()), row));
            for (PlannedRow row : rows) {
                PlannedRow holder = holders.get(key(table, key, row.before()));
                if (holder != null && !holder.equals(row)) {
                    waiting.computeIfAbsent(holder, h -> new ArrayList<>()).add(row);
                    waitsFor.merge(row, 1, Integer::sum);
                }
            }
        }
        Deque<PlannedRow> free = new ArrayDeque<>();
        waitsFor.forEach((row, count) -> {
            if (count == 0) {
                free.add(row);
            }
        });
        List<PlannedRow> ordered = new ArrayList<>();
        while (!free.isEmpty()) {
            PlannedRow row = free.poll();
            ordered.add(row);
            waitsFor.remove(row);
            for (PlannedRow next : waiting.getOrDefault(row, List.of())) {
                if (waitsFor.merge(next, -1, Integer::sum) == 0) {
                    free.add(next);
                }
            }
        }
        ordered.addAll(waitsFor.keySet());
        return ordered;
    }

    private static List<String> key(Table table, Key key, List<String> cells) {
        List<String> values = new ArrayList<>();
        key.columns().forEach(column -> values.add(cells.get(table.indexOf(column))));
        return values;
    }
}
