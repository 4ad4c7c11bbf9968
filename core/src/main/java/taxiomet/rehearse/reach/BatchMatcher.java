package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import taxiomet.charter.ColumnType.Family;
import taxiomet.rows.RowBatch;
import taxiomet.values.TypedColumn;

/** Picks the rows of batches that are wanted: those with a key that some lookup wants, and those that a condition names. One thread's. */
final class BatchMatcher {
    private final ReachedTable table;
    private final List<KeyMatch> keys = new ArrayList<>();
    private final List<RowCondition> conditions;
    private final int[] conditionColumns;
    private final int[] greatestColumns;
    private final TypedColumn[] typed;
    private final boolean[] isRead;
    private final Object[] scratch;
    /** Rows that are wanted whatever is in them, ascending. */
    private final long[] refs;

    private long rowsSeen;
    /** For each generated column, the greatest number in rows that were not reached before, and where it stands; 0 for none. */
    final long[] greatest;

    final long[] refsOfGreatest;
    final List<Found> found = new ArrayList<>();

    /** A row that is wanted, with the values of the columns kept. */
    @SuppressWarnings("ArrayRecordComponent")
    record Found(long ref, Object[] values) {}

    /** The keys that one lookup wants. */
    private record KeyMatch(KeyLookup lookup, Set<Object> keys, LongProbe probe) {}

    BatchMatcher(
            ReachedTable table,
            Map<KeyLookup, Set<Object>> wanted,
            Set<RowCondition> conditions,
            int[] greatestColumns,
            long[] refs) {
        this.table = table;
        this.refs = refs;
        wanted.forEach(
                (lookup, set) -> keys.add(new KeyMatch(lookup, set, isOfLongs(lookup) ? new LongProbe(set) : null)));
        this.conditions = List.copyOf(conditions);
        Set<Integer> columns = new TreeSet<>();
        for (RowCondition condition : conditions) {
            for (int column : condition.columns()) {
                columns.add(column);
            }
        }
        this.conditionColumns = columns.stream().mapToInt(Integer::intValue).toArray();
        this.greatestColumns = greatestColumns;
        this.greatest = new long[greatestColumns.length];
        this.refsOfGreatest = new long[greatestColumns.length];
        this.typed = new TypedColumn[table.columnsKept().length];
        for (int column : table.columnsKept()) {
            typed[table.slotOf(column)] = new TypedColumn(table.column(column));
        }
        this.isRead = new boolean[typed.length];
        this.scratch = new Object[typed.length];
    }

    private boolean isOfLongs(KeyLookup lookup) {
        return lookup.columns.length == 1
                && table.column(lookup.columns[0]).type().isInteger()
                && lookup.forms.get(0).family() == Family.EXACT_NUMBER;
    }

    long rowsSeen() {
        return rowsSeen;
    }

    void match(RowBatch batch) {
        rowsSeen += batch.size() + batch.malformed().size();
        java.util.Arrays.fill(isRead, false);
        for (int row = 0; row < batch.size(); row++) {
            if (isWanted(batch, row)) {
                found.add(new Found(batch.ref(row), values(batch, row)));
            }
        }
        for (int i = 0; i < greatestColumns.length; i++) {
            TypedColumn column = column(batch, greatestColumns[i]);
            for (int row = 0; row < batch.size(); row++) {
                boolean isGreater = column.isValue(row) && (refsOfGreatest[i] == 0 || column.high(row) > greatest[i]);
                if (isGreater && table.rows.get(batch.ref(row)) == null) {
                    greatest[i] = column.high(row);
                    refsOfGreatest[i] = batch.ref(row);
                }
            }
        }
    }

    private boolean isWanted(RowBatch batch, int row) {
        if (refs.length > 0 && java.util.Arrays.binarySearch(refs, batch.ref(row)) >= 0) {
            return true;
        }
        for (KeyMatch match : keys) {
            if (match.probe() != null) {
                TypedColumn column = column(batch, match.lookup().columns[0]);
                if (column.isValue(row) && match.probe().contains(column.high(row))) {
                    return true;
                }
            } else {
                read(batch, row, match.lookup().columns);
                Object key = match.lookup().keyOf(scratch);
                if (key != null && match.keys().contains(key)) {
                    return true;
                }
            }
        }
        if (conditions.isEmpty()) {
            return false;
        }
        read(batch, row, conditionColumns);
        for (RowCondition condition : conditions) {
            if (condition.holds(batch.ref(row), scratch)) {
                return true;
            }
        }
        return false;
    }

    private void read(RowBatch batch, int row, int[] columns) {
        for (int column : columns) {
            scratch[table.slotOf(column)] = table.codec(column).read(column(batch, column), row);
        }
    }

    private Object[] values(RowBatch batch, int row) {
        int[] kept = table.columnsKept();
        Object[] values = new Object[kept.length];
        for (int slot = 0; slot < kept.length; slot++) {
            values[slot] = table.codec(kept[slot]).read(column(batch, kept[slot]), row);
        }
        return values;
    }

    /** A column of the batch, taken apart when it is asked for first. */
    private TypedColumn column(RowBatch batch, int column) {
        int slot = table.slotOf(column);
        if (!isRead[slot]) {
            typed[slot].read(batch.column(slot));
            isRead[slot] = true;
        }
        return typed[slot];
    }
}
