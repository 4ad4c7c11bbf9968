package taxiomet.keys;

import taxiomet.spill.MemoryBudget;

/** A set of longs in one flat array with linear probing. */
final class LongTable {
    private static final int FIRST_SLOTS = 1 << 10;
    private static final int FULL_SIXTEENTHS = 13;
    private static final long MULTIPLIER = 0x9E3779B97F4A7C15L;

    private final MemoryBudget budget;
    /** Zero marks a free slot; whether zero itself is there stands apart. */
    private long[] slots = new long[0];

    private int shift;
    private int size;
    /** Nobody asks for it: it keeps loads that only warm the cache from being left out as useless. Threads may race for it. */
    @SuppressWarnings("UnusedVariable")
    private long touched;

    private boolean hasZero;
    private long least = Long.MAX_VALUE;
    private long greatest = Long.MIN_VALUE;

    LongTable(MemoryBudget budget) {
        this.budget = budget;
    }

    /** Adds a value: {@link KeySet#ADDED}, {@link KeySet#PRESENT}, or {@link KeySet#FULL} when there is no room. */
    int add(long value) {
        if (size >= slots.length / 16 * FULL_SIXTEENTHS && !grow()) {
            return KeySet.FULL;
        }
        if (value == 0) {
            boolean was = hasZero;
            hasZero = true;
            return was ? KeySet.PRESENT : KeySet.ADDED;
        }
        int slot = slotOf(value);
        if (slots[slot] == value) {
            return KeySet.PRESENT;
        }
        slots[slot] = value;
        size++;
        least = Math.min(least, value);
        greatest = Math.max(greatest, value);
        return KeySet.ADDED;
    }

    /** Adds the first of some values as long as they are new and the table need not grow; gives how many. */
    int addFirst(long[] values, int count) {
        touch(values, count);
        long[] all = slots;
        int by = shift;
        int within = all.length - 1;
        int most = Math.min(count, all.length / 16 * FULL_SIXTEENTHS - size);
        long low = least;
        long high = greatest;
        int added = 0;
        for (; added < most; added++) {
            long value = values[added];
            int slot = (int) (value * MULTIPLIER >>> by);
            while (all[slot] != value && all[slot] != 0) {
                slot = slot + 1 & within;
            }
            if (all[slot] == value) {
                break;
            }
            all[slot] = value;
            low = Math.min(low, value);
            high = Math.max(high, value);
        }
        least = low;
        greatest = high;
        size += added;
        return added;
    }

    boolean contains(long value) {
        return value == 0 ? hasZero : slots.length > 0 && slots[slotOf(value)] == value;
    }

    private int slotOf(long value) {
        long hash = value * MULTIPLIER;
        int mask = slots.length - 1;
        int slot = (int) (hash >>> shift);
        while (slots[slot] != 0 && slots[slot] != value) {
            slot = slot + 1 & mask;
        }
        return slot;
    }

    /**
     * Loads the slots where some values would stand. Loads that do not wait for each other hide most of the time that each of them
     * takes; the look-ups that follow find their slots in the cache: 29 ns each, against 36 one by one (bench/RESULTS.md).
     */
    void touch(long[] values, int count) {
        long[] all = slots;
        int by = shift;
        long sum = 0;
        if (all.length > 0) {
            for (int i = 0; i < count; i++) {
                sum += all[(int) (values[i] * MULTIPLIER >>> by)];
            }
        }
        touched = sum;
    }

    /** Finds which of some values are not there; gives how many, their places in {@code missing}. */
    int findMissing(long[] values, int count, int[] missing) {
        long[] all = slots;
        int by = shift;
        int within = all.length - 1;
        int found = 0;
        for (int i = 0; i < count; i++) {
            long value = values[i];
            int slot = within < 0 ? 0 : (int) (value * MULTIPLIER >>> by);
            while (within >= 0 && all[slot] != value && all[slot] != 0) {
                slot = slot + 1 & within;
            }
            boolean isThere = value == 0 ? hasZero : within >= 0 && all[slot] == value;
            if (!isThere) {
                missing[found++] = i;
            }
        }
        return found;
    }

    private boolean grow() {
        int room = Math.max(FIRST_SLOTS, slots.length * 2);
        if (room < 0 || room > 1 << 29 || !budget.tryTake((long) room * Long.BYTES)) {
            return false;
        }
        long[] old = slots;
        slots = new long[room];
        shift = Long.numberOfLeadingZeros(room) + 1;
        for (long value : old) {
            if (value != 0) {
                slots[slotOf(value)] = value;
            }
        }
        budget.giveBack((long) old.length * Long.BYTES);
        return true;
    }

    long size() {
        return size + (hasZero ? 1 : 0);
    }

    /** Whether the next value makes it grow. */
    boolean isAboutToGrow() {
        return size >= slots.length / 16 * FULL_SIXTEENTHS;
    }

    /** How far the values lie apart; negative when that is more than a long holds. */
    long spread() {
        return size == 0 ? 0 : greatest - least;
    }

    void forEach(PagedBits.Sink sink) {
        if (hasZero) {
            sink.accept(0);
        }
        for (long value : slots) {
            if (value != 0) {
                sink.accept(value);
            }
        }
    }

    void close() {
        budget.giveBack((long) slots.length * Long.BYTES);
        slots = new long[0];
        size = 0;
    }
}
