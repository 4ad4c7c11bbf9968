package taxiomet.keys;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import taxiomet.spill.MemoryBudget;

/**
 * How many rows of a table have each of its keys, and how many rows of other tables have it over each of some links. Keys that are whole
 * numbers close together are counted by their place in their range, all others in a table with linear probing. One thread adds at a time;
 * any number of them may look for keys while none adds.
 */
public final class KeyCounts implements AutoCloseable {
    private static final int FIRST_SLOTS = 1 << 10;
    private static final long MOST_FIRST_SLOTS = 1 << 22;
    /** An array of so many halves can be had. */
    private static final int MOST_SLOTS = 1 << 29;

    private static final int FULL_SIXTEENTHS = 13;
    private static final int BYTES_OF_SLOT = 2 * Long.BYTES + Integer.BYTES;
    /** A range has at most so many places for each row. */
    private static final long MOST_PLACES = 6;

    private final MemoryBudget budget;
    /** The least number of the range; only where keys are counted by place. */
    private final long least;

    private final boolean isByPlace;
    /** The two halves of each key beside each other, so that one look into memory gets both. */
    private long[] halves = new long[0];

    private int[] rows = new int[0];
    private final int firstSlots;
    private final List<int[]> children = new ArrayList<>();
    private int size;
    private long added;
    private long taken;
    private boolean isFull;

    private KeyCounts(MemoryBudget budget, boolean isByPlace, long least, int slots) {
        this.budget = budget;
        this.isByPlace = isByPlace;
        this.least = least;
        this.firstSlots = slots;
    }

    /** Takes room when the first key comes. */
    private void start() {
        isFull = !take((long) firstSlots * (isByPlace ? Integer.BYTES : BYTES_OF_SLOT));
        int room = isFull ? 0 : firstSlots;
        rows = new int[room];
        if (!isByPlace) {
            halves = new long[room * 2];
        }
    }

    /**
     * For keys of any kind.
     *
     * @param count how many rows there are, about
     */
    public static KeyCounts ofAny(long count, MemoryBudget budget) {
        long slots =
                Long.highestOneBit(Math.max(FIRST_SLOTS, Math.min(MOST_FIRST_SLOTS, count * 16 / FULL_SIXTEENTHS)));
        return new KeyCounts(budget, false, 0, (int) slots * 2);
    }

    /**
     * For keys that are whole numbers, of which it is known between which they lie.
     *
     * @param count how many rows there are, about
     */
    public static KeyCounts ofNumbers(long least, long greatest, long count, MemoryBudget budget) {
        long span = greatest - least + 1;
        boolean isClose =
                span > 0 && span <= Math.max(FIRST_SLOTS, count * MOST_PLACES) && span < Integer.MAX_VALUE / 8;
        return isClose ? new KeyCounts(budget, true, least, (int) span) : ofAny(count, budget);
    }

    private boolean take(long bytes) {
        if (!budget.tryTake(bytes)) {
            return false;
        }
        taken += bytes;
        return true;
    }

    /** Whether there was no room for all of it: then nothing that it says is so. */
    public boolean isFull() {
        return isFull;
    }

    /**
     * Counts the keys of some rows.
     *
     * @param usable which of the rows have a key; null for all
     */
    public void add(long[] someHighs, long[] someLows, boolean[] usable, int count) {
        if (rows.length == 0 && !isFull && count > 0) {
            start();
        }
        for (int i = 0; i < count && !isFull; i++) {
            if (usable == null || usable[i]) {
                add(someHighs[i], someLows[i]);
            }
        }
    }

    private void add(long high, long low) {
        int slot;
        if (isByPlace) {
            slot = placeOf(high, low);
            if (slot < 0) {
                // Whoever said between which the keys lie was mistaken.
                isFull = true;
                return;
            }
        } else {
            if (size >= rows.length / 16 * FULL_SIXTEENTHS && !grow()) {
                isFull = true;
                return;
            }
            slot = slotOf(high, low);
            halves[slot * 2] = high;
            halves[slot * 2 + 1] = low;
        }
        size += rows[slot]++ == 0 ? 1 : 0;
        added++;
    }

    private int placeOf(long high, long low) {
        long place = low - least;
        return high == 0 && place >= 0 && place < rows.length ? (int) place : -1;
    }

    private int slotOf(long high, long low) {
        if (rows.length == 0) {
            return -1;
        }
        int mask = rows.length - 1;
        int slot = (int) KeyTable.hash(high, low) & mask;
        while (true) {
            long highHere = halves[slot * 2];
            long lowHere = halves[slot * 2 + 1];
            // Two zeros stand where a slot is free, and are a key as any other.
            if ((lowHere == low && highHere == high) || ((lowHere | highHere) == 0 && rows[slot] == 0)) {
                return slot;
            }
            slot = slot + 1 & mask;
        }
    }

    private boolean grow() {
        int more = rows.length * 2;
        if (more <= 0 || more > MOST_SLOTS || !take((long) more * BYTES_OF_SLOT)) {
            return false;
        }
        long[] old = halves;
        int[] oldRows = rows;
        halves = new long[more * 2];
        rows = new int[more];
        for (int i = 0; i < oldRows.length; i++) {
            if (oldRows[i] != 0) {
                int slot = slotOf(old[i * 2], old[i * 2 + 1]);
                halves[slot * 2] = old[i * 2];
                halves[slot * 2 + 1] = old[i * 2 + 1];
                rows[slot] = oldRows[i];
            }
        }
        long freed = (long) oldRows.length * BYTES_OF_SLOT;
        budget.giveBack(freed);
        taken -= freed;
        return true;
    }

    /** Rows beyond the first of each key. */
    public long excess() {
        return added - size;
    }

    /** A link whose children are to be counted, once all keys are there: its number; -1 where there is no room. */
    public int addLink() {
        if (isFull || !take((long) rows.length * Integer.BYTES)) {
            return -1;
        }
        children.add(new int[rows.length]);
        return children.size() - 1;
    }

    /**
     * Looks for keys: afterwards {@code slots} has where each is, -1 for none.
     *
     * @param slots room for as many as there are keys
     */
    public void find(long[] someHighs, long[] someLows, int count, int[] slots) {
        if (isByPlace) {
            for (int i = 0; i < count; i++) {
                int place = placeOf(someHighs[i], someLows[i]);
                slots[i] = place >= 0 && rows[place] != 0 ? place : -1;
            }
            return;
        }
        for (int i = 0; i < count; i++) {
            int slot = slotOf(someHighs[i], someLows[i]);
            slots[i] = slot >= 0 && rows[slot] != 0 ? slot : -1;
        }
    }

    /** The counters of a link by places that {@link #find} gives, to be added to. */
    public int[] children(int link) {
        return children.get(link);
    }

    /** How many rows of the table there are for each number of children over a link. */
    public SortedMap<Long, Long> rowsByChildren(int link) {
        int[] counts = children.get(link);
        SortedMap<Long, Long> byChildren = new TreeMap<>();
        long[] few = new long[FIRST_SLOTS];
        for (int slot = 0; slot < rows.length; slot++) {
            if (rows[slot] == 0) {
                continue;
            }
            if (counts[slot] < few.length) {
                few[counts[slot]] += rows[slot];
            } else {
                byChildren.merge((long) counts[slot], (long) rows[slot], Long::sum);
            }
        }
        for (int count = 0; count < few.length; count++) {
            if (few[count] > 0) {
                byChildren.put((long) count, few[count]);
            }
        }
        return byChildren;
    }

    /**
     * The same over a link of few values, for which no counters were asked.
     *
     * @param childrenOfSlot children of each place that {@link #find} gave; none at all others
     */
    public SortedMap<Long, Long> rowsByChildren(Map<Integer, Long> childrenOfSlot) {
        SortedMap<Long, Long> byChildren = new TreeMap<>();
        long childless = added;
        for (Map.Entry<Integer, Long> each : childrenOfSlot.entrySet()) {
            long parents = rows[each.getKey()];
            byChildren.merge(each.getValue(), parents, Long::sum);
            childless -= parents;
        }
        if (childless > 0) {
            byChildren.merge(0L, childless, Long::sum);
        }
        return byChildren;
    }

    @Override
    public void close() {
        budget.giveBack(taken);
        taken = 0;
        isFull = true;
        rows = new int[0];
        halves = new long[0];
        children.replaceAll(counts -> new int[0]);
    }
}
