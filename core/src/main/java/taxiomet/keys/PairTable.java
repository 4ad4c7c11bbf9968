package taxiomet.keys;

import taxiomet.spill.MemoryBudget;

/** A set of pairs of longs in one flat array with linear probing; both halves of a pair stand side by side. */
final class PairTable {
    private static final int FIRST_SLOTS = 1 << 9;

    private final MemoryBudget budget;
    /** Two longs a slot; two zeros mark a free one, and whether that pair itself is there stands apart. */
    private long[] slots = new long[0];

    private int mask = -1;
    private int size;
    /** Nobody asks for it: it keeps loads that only warm the cache from being left out as useless. Threads may race for it. */
    @SuppressWarnings("UnusedVariable")
    private long touched;

    private boolean hasZeros;

    PairTable(MemoryBudget budget) {
        this.budget = budget;
    }

    /** Adds a pair: {@link KeySet#ADDED}, {@link KeySet#PRESENT}, or {@link KeySet#FULL} when there is no room. */
    int add(long high, long low) {
        if (size >= (mask + 1) / 4 * 3 && !grow()) {
            return KeySet.FULL;
        }
        if (high == 0 && low == 0) {
            boolean was = hasZeros;
            hasZeros = true;
            return was ? KeySet.PRESENT : KeySet.ADDED;
        }
        int slot = slotOf(high, low);
        if (isUsed(slot)) {
            return KeySet.PRESENT;
        }
        slots[2 * slot] = high;
        slots[2 * slot + 1] = low;
        size++;
        return KeySet.ADDED;
    }

    boolean contains(long high, long low) {
        return high == 0 && low == 0 ? hasZeros : mask >= 0 && isUsed(slotOf(high, low));
    }

    private boolean isUsed(int slot) {
        return slots[2 * slot] != 0 || slots[2 * slot + 1] != 0;
    }

    private int slotOf(long high, long low) {
        int slot = (int) KeyTable.hash(high, low) & mask;
        while (isUsed(slot) && (slots[2 * slot + 1] != low || slots[2 * slot] != high)) {
            slot = slot + 1 & mask;
        }
        return slot;
    }

    /** Loads the slots where some pairs would stand, as {@link LongTable#touch} does. */
    void touch(long[] highs, long[] lows, int count) {
        long[] all = slots;
        int within = mask;
        long sum = 0;
        if (all.length > 0) {
            for (int i = 0; i < count; i++) {
                sum += all[2 * ((int) KeyTable.hash(highs[i], lows[i]) & within)];
            }
        }
        touched = sum;
    }

    private boolean grow() {
        int room = Math.max(FIRST_SLOTS, (mask + 1) * 2);
        if (room > 1 << 29 || !budget.tryTake(2L * room * Long.BYTES)) {
            return false;
        }
        long[] old = slots;
        slots = new long[2 * room];
        mask = room - 1;
        for (int i = 0; i < old.length; i += 2) {
            if (old[i] != 0 || old[i + 1] != 0) {
                int slot = slotOf(old[i], old[i + 1]);
                slots[2 * slot] = old[i];
                slots[2 * slot + 1] = old[i + 1];
            }
        }
        budget.giveBack((long) old.length * Long.BYTES);
        return true;
    }

    long size() {
        return size + (hasZeros ? 1 : 0);
    }

    void forEach(KeySet.Sink sink) {
        if (hasZeros) {
            sink.accept(0, 0);
        }
        for (int i = 0; i < slots.length; i += 2) {
            if (slots[i] != 0 || slots[i + 1] != 0) {
                sink.accept(slots[i], slots[i + 1]);
            }
        }
    }

    void close() {
        budget.giveBack((long) slots.length * Long.BYTES);
        slots = new long[0];
        mask = -1;
        size = 0;
    }
}
