package taxiomet.keys;

import taxiomet.spill.MemoryBudget;

/** Keys, each with a number of its own: where what belongs to it stands. In one flat array with linear probing. */
public final class KeyPlaces implements AutoCloseable {
    /** What {@link #place} gives for a key that is not there. */
    public static final int ABSENT = -1;

    private static final int FIRST_SLOTS = 1 << 9;
    private static final int MOST_SLOTS = 1 << 28;
    private static final int BYTES_PER_SLOT = 2 * Long.BYTES + Integer.BYTES;

    private final MemoryBudget budget;
    private long[] keys = new long[0];
    /** One more than the place; 0 for a free slot. */
    private int[] places = new int[0];

    private int mask = -1;
    private int size;

    public KeyPlaces(MemoryBudget budget) {
        this.budget = budget;
    }

    /**
     * Puts a key, unless it is there.
     *
     * @param place at least 0
     * @return false where there is no room for it
     */
    public boolean put(long high, long low, int place) {
        if (size >= (mask + 1) / 4 * 3 && !grow()) {
            return false;
        }
        int slot = slotOf(high, low);
        if (places[slot] == 0) {
            keys[2 * slot] = high;
            keys[2 * slot + 1] = low;
            places[slot] = place + 1;
            size++;
        }
        return true;
    }

    /** The place of a key, or {@link #ABSENT}. */
    public int place(long high, long low) {
        return mask < 0 ? ABSENT : places[slotOf(high, low)] - 1;
    }

    private int slotOf(long high, long low) {
        int slot = (int) KeyTable.hash(high, low) & mask;
        while (places[slot] != 0 && (keys[2 * slot + 1] != low || keys[2 * slot] != high)) {
            slot = slot + 1 & mask;
        }
        return slot;
    }

    private boolean grow() {
        int room = Math.max(FIRST_SLOTS, (mask + 1) * 2);
        if (room > MOST_SLOTS || !budget.tryTake((long) room * BYTES_PER_SLOT)) {
            return false;
        }
        long[] oldKeys = keys;
        int[] oldPlaces = places;
        keys = new long[2 * room];
        places = new int[room];
        mask = room - 1;
        for (int i = 0; i < oldPlaces.length; i++) {
            if (oldPlaces[i] != 0) {
                int slot = slotOf(oldKeys[2 * i], oldKeys[2 * i + 1]);
                keys[2 * slot] = oldKeys[2 * i];
                keys[2 * slot + 1] = oldKeys[2 * i + 1];
                places[slot] = oldPlaces[i];
            }
        }
        budget.giveBack((long) oldPlaces.length * BYTES_PER_SLOT);
        return true;
    }

    @Override
    public void close() {
        budget.giveBack((long) places.length * BYTES_PER_SLOT);
        keys = new long[0];
        places = new int[0];
        mask = -1;
        size = 0;
    }
}
