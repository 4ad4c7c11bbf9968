package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;

/**
 * Puts rows of several tables into an order in which they can be inserted: parents before their children. Rows of one table that point at
 * one another go into one statement, which servers check at its end; so should rows in a circle of several tables, which come last.
 */
final class InsertOrder {
    private final Charter charter;
    private final Map<ForeignKey, Set<List<String>>> missing = new HashMap<>();

    /** Rows of one table that go into one statement. */
    record Batch(Table table, List<List<String>> rows) {}

    private InsertOrder(Charter charter) {
        this.charter = charter;
    }

    /**
     * @param rows for each table its rows, a cell for each column
     * @return what goes in together, step by step
     */
    static List<List<Batch>> of(Charter charter, Map<String, List<List<String>>> rows) {
        return new InsertOrder(charter).order(rows);
    }

    private List<List<Batch>> order(Map<String, List<List<String>>> rows) {
        Map<String, List<List<String>>> left = new HashMap<>();
        rows.forEach((table, some) -> left.put(table, new ArrayList<>(some)));
        List<List<Batch>> batches = new ArrayList<>();
        boolean goesOn = true;
        while (goesOn) {
            goesOn = false;
            for (Table table : charter.tables()) {
                List<List<String>> some = left.getOrDefault(table.name(), List.of());
                List<List<String>> ready = ready(table, some, left);
                if (!ready.isEmpty()) {
                    batches.add(List.of(new Batch(table, ready)));
                    some.removeAll(ready);
                    goesOn = true;
                }
            }
        }
        List<Batch> circle = new ArrayList<>();
        for (Table table : charter.tables()) {
            List<List<String>> some = left.getOrDefault(table.name(), List.of());
            if (!some.isEmpty()) {
                circle.add(new Batch(table, some));
            }
        }
        if (!circle.isEmpty()) {
            batches.add(circle);
        }
        return batches;
    }

    /** The rows whose parents are there, or among themselves. */
    private List<List<String>> ready(Table table, List<List<String>> rows, Map<String, List<List<String>>> left) {
        List<List<String>> ready = new ArrayList<>(rows);
        boolean shrinks = !ready.isEmpty();
        missing.clear();
        while (shrinks) {
            Map<ForeignKey, Set<List<String>>> own = new HashMap<>();
            for (ForeignKey link : table.links()) {
                if (link.parent().equals(table.name())) {
                    own.put(link, keys(table, link.parentColumns(), ready));
                }
            }
            shrinks =
                    ready.removeIf(row -> table.links().stream().anyMatch(link -> waits(table, link, row, left, own)));
        }
        return ready;
    }

    private boolean waits(
            Table table,
            ForeignKey link,
            List<String> row,
            Map<String, List<List<String>>> left,
            Map<ForeignKey, Set<List<String>>> own) {
        List<String> key = key(table, link.columns(), row);
        if (!link.isEnforced() || key.stream().anyMatch(Objects::isNull)) {
            return false;
        }
        Set<List<String>> absent = missing.computeIfAbsent(
                link,
                l -> keys(charter.table(l.parent()), l.parentColumns(), left.getOrDefault(l.parent(), List.of())));
        return absent.contains(key) && !own.getOrDefault(link, Set.of()).contains(key);
    }

    private static Set<List<String>> keys(Table table, List<String> columns, List<List<String>> rows) {
        Set<List<String>> keys = new HashSet<>();
        rows.forEach(row -> keys.add(key(table, columns, row)));
        return keys;
    }

    private static List<String> key(Table table, List<String> columns, List<String> row) {
        List<String> key = new ArrayList<>();
        columns.forEach(column -> key.add(row.get(table.indexOf(column))));
        return key;
    }
}
