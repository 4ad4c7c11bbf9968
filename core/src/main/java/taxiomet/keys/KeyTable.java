package taxiomet.keys;

import java.util.Arrays;
import taxiomet.spill.MemoryBudget;

/** A hash table from 128-bit keys to a non-negative long, in flat arrays with linear probing. */
public final class KeyTable implements AutoCloseable {
    /** There is no such key. */
    static final long ABSENT = -1;

    private static final int FIRST_SLOTS = 256;
    private static final int BYTES_PER_SLOT = 3 * Long.BYTES;

    private final MemoryBudget budget;
    private long[] highs;
    private long[] lows;
    private long[] values;
    private int size;
    private long taken;

    /** @param budget what the table may take; null for as much as it needs */
    public KeyTable(MemoryBudget budget) {
        this.budget = budget;
        allocate(FIRST_SLOTS);
    }

    private void allocate(int slots) {
        highs = new long[slots];
        lows = new long[slots];
        values = new long[slots];
        Arrays.fill(values, ABSENT);
    }

    /** Spreads the bits of a key; the top eight choose a partition, the low ones a slot. */
    public static long hash(long high, long low) {
        long hash = (low ^ Long.rotateLeft(high, 31)) * 0x9E3779B97F4A7C15L;
        hash ^= hash >>> 32;
        hash *= 0xD6E8FEB86659FD93L;
        return hash ^ hash >>> 29;
    }

    /** Whether a slot holds a key. */
    public boolean isUsed(int slot) {
        return values[slot] != ABSENT;
    }

    /** The value of a slot that is used. */
    public long value(int slot) {
        return values[slot];
    }

    /** Puts another value into a slot that is used. */
    public void setValue(int slot, long value) {
        values[slot] = value;
    }

    /** Whether a key is there. */
    public boolean contains(long high, long low) {
        return isUsed(slotOf(high, low));
    }

    /** The slot of a key, or the free one where it would stand. */
    public int slotOf(long high, long low) {
        int mask = values.length - 1;
        int slot = (int) hash(high, low) & mask;
        while (values[slot] != ABSENT && (lows[slot] != low || highs[slot] != high)) {
            slot = slot + 1 & mask;
        }
        return slot;
    }

    /** Puts a key that is not there into the free slot that {@link #slotOf} gave. */
    public void insert(int slot, long high, long low, long value) {
        highs[slot] = high;
        lows[slot] = low;
        values[slot] = value;
        size++;
    }

    /** Makes room for one more key; false when the budget has none. Slots change. */
    public boolean ensureRoom() {
        if (size < values.length / 3 * 2) {
            return true;
        }
        long bytes = 2L * values.length * BYTES_PER_SLOT;
        if (values.length >= 1 << 29 || (budget != null && !budget.tryTake(bytes))) {
            return false;
        }
        long[] oldHighs = highs;
        long[] oldLows = lows;
        long[] oldValues = values;
        allocate(values.length * 2);
        for (int i = 0; i < oldValues.length; i++) {
            if (oldValues[i] != ABSENT) {
                int slot = slotOf(oldHighs[i], oldLows[i]);
                highs[slot] = oldHighs[i];
                lows[slot] = oldLows[i];
                values[slot] = oldValues[i];
            }
        }
        giveBack();
        taken = bytes;
        return true;
    }

    /** Takes all keys out; the room stays. */
    public void clear() {
        Arrays.fill(values, ABSENT);
        size = 0;
    }

    private void giveBack() {
        if (budget != null) {
            budget.giveBack(taken);
        }
        taken = 0;
    }

    @Override
    public void close() {
        giveBack();
        allocate(1);
        size = 0;
    }
}
