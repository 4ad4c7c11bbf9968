package taxiomet.rehearse.reach;

import java.util.Arrays;
import java.util.function.Consumer;
import java.util.function.Predicate;

/** Rows by their references: 8 to 16 bytes for each, where a map of boxed numbers takes 60. */
public final class RowTable {
    private static final long SPREAD = 0x9E3779B97F4A7C15L;

    private ReachedRow[] slots = new ReachedRow[16];
    private int size;

    private int slotOf(long ref) {
        int at = (int) (ref * SPREAD >>> 32) & slots.length - 1;
        while (slots[at] != null && slots[at].ref != ref) {
            at = at + 1 & slots.length - 1;
        }
        return at;
    }

    /** The row of a reference; null when there is none. */
    ReachedRow get(long ref) {
        return slots[slotOf(ref)];
    }

    /** Takes a row, unless there is one of its reference. */
    boolean add(ReachedRow row) {
        int at = slotOf(row.ref);
        if (slots[at] != null) {
            return false;
        }
        slots[at] = row;
        if (++size * 2 > slots.length) {
            grow();
        }
        return true;
    }

    private void grow() {
        ReachedRow[] old = slots;
        slots = new ReachedRow[old.length * 2];
        for (ReachedRow row : old) {
            if (row != null) {
                slots[slotOf(row.ref)] = row;
            }
        }
    }

    int size() {
        return size;
    }

    /** Hands over every row, in no order. */
    public void forEach(Consumer<ReachedRow> consumer) {
        for (ReachedRow row : slots) {
            if (row != null) {
                consumer.accept(row);
            }
        }
    }

    boolean any(Predicate<ReachedRow> condition) {
        for (ReachedRow row : slots) {
            if (row != null && condition.test(row)) {
                return true;
            }
        }
        return false;
    }

    /** All rows, in the order in which they were read. */
    public ReachedRow[] inOrder() {
        ReachedRow[] rows = new ReachedRow[size];
        int[] next = new int[1];
        forEach(row -> rows[next[0]++] = row);
        Arrays.sort(rows, (one, other) -> Long.compare(one.ref, other.ref));
        return rows;
    }
}
