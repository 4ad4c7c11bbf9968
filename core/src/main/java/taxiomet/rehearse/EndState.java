package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** How the rows stand when a replay is through, to be compared with how they stand after another. */
final class EndState {
    private static final Object[] GONE = new Object[0];

    /** Rows that were read and stand differently now. */
    private final Map<ReachedRow, Object[]> changed = new LinkedHashMap<>();

    private final Map<ReachedTable, List<ReachedRow>> made = new HashMap<>();

    static EndState of(ReachedRows rows) {
        EndState state = new EndState();
        for (ReachedRow row : rows.touched()) {
            if (!row.isNew() && row.isChanged()) {
                state.changed.put(row, row.isGone ? GONE : row.values);
            }
        }
        for (ReachedTable table : rows.tables()) {
            List<ReachedRow> present =
                    table.newRows().stream().filter(row -> !row.isGone).toList();
            if (!present.isEmpty()) {
                state.made.put(table, new ArrayList<>(present));
            }
        }
        return state;
    }

    private static boolean isSame(Object[] one, Object[] other) {
        return one == other || Arrays.equals(one, other, (a, b) -> RowJudge.isSame(a, b) ? 0 : 1);
    }

    /** The rows that stand differently in the other state. */
    List<ReachedRow> differences(EndState other) {
        List<ReachedRow> rows = new ArrayList<>();
        changed.forEach((row, values) -> {
            Object[] there = other.changed.get(row);
            if (there == null || (there == GONE) != (values == GONE) || !isSame(values, there)) {
                rows.add(row);
            }
        });
        other.changed.keySet().stream().filter(row -> !changed.containsKey(row)).forEach(rows::add);
        made.forEach((table, own) -> addDifferences(own, other.made.getOrDefault(table, List.of()), rows));
        other.made.forEach((table, theirs) -> {
            if (!made.containsKey(table)) {
                rows.addAll(theirs);
            }
        });
        return rows;
    }

    private static void addDifferences(List<ReachedRow> own, List<ReachedRow> theirs, List<ReachedRow> rows) {
        for (int i = 0; i < Math.max(own.size(), theirs.size()); i++) {
            if (i >= own.size()) {
                rows.add(theirs.get(i));
            } else if (i >= theirs.size() || !isSame(own.get(i).values, theirs.get(i).values)) {
                rows.add(own.get(i));
            }
        }
    }
}
