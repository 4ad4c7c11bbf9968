package taxiomet.rehearse.result;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;

/** How the rows stood when a replay was through, to be compared with how they stand after another. One at a time is kept. */
public final class EndState {
    private static final Object[] GONE = new Object[0];

    private final List<ReachedRow> changed = new ArrayList<>();
    private final Map<ReachedTable, List<Object[]>> made = new LinkedHashMap<>();

    /** Keeps how the rows stand now. */
    public EndState(ReachedRows rows) {
        for (ReachedRow row : rows.touched()) {
            if (!row.isNew() && row.isChanged()) {
                row.endedAs = row.isGone ? GONE : row.values;
                changed.add(row);
            }
        }
        for (ReachedTable table : rows.tables()) {
            made.put(table, valuesOfNew(table));
        }
    }

    private static List<Object[]> valuesOfNew(ReachedTable table) {
        return table.newRows().stream()
                .filter(row -> !row.isGone)
                .map(row -> row.values)
                .toList();
    }

    private static boolean isSame(Object[] one, Object[] other) {
        return one == other
                || (one != GONE
                        && other != GONE
                        && Arrays.equals(one, other, (a, b) -> CellCodec.isSame(a, b) ? 0 : 1));
    }

    /** The rows that stand differently now. */
    public List<ReachedRow> differences(ReachedRows rows) {
        List<ReachedRow> different = new ArrayList<>();
        for (ReachedRow row : changed) {
            if (!isSame(row.endedAs, row.isGone ? GONE : row.values)) {
                different.add(row);
            }
        }
        for (ReachedRow row : rows.touched()) {
            if (!row.isNew() && row.endedAs == null && row.isChanged()) {
                different.add(row);
            }
        }
        for (ReachedTable table : rows.tables()) {
            addDifferences(table, made.get(table), different);
        }
        return different;
    }

    private static void addDifferences(ReachedTable table, List<Object[]> before, List<ReachedRow> different) {
        List<ReachedRow> now =
                table.newRows().stream().filter(row -> !row.isGone).toList();
        for (int i = 0; i < Math.max(before.size(), now.size()); i++) {
            if (i >= now.size()) {
                different.add(new ReachedRow(table, -1, before.get(i), true));
            } else if (i >= before.size() || !isSame(before.get(i), now.get(i).values)) {
                different.add(now.get(i));
            }
        }
    }

    /** Forgets it: another can be kept. */
    public void forget() {
        changed.forEach(row -> row.endedAs = null);
    }
}
