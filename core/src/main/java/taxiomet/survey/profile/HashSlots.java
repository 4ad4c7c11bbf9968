package taxiomet.survey.profile;

/** A set of hashes that are not 0; as many as it was made for. */
final class HashSlots {
    private static final int LEAST = 16;

    private final long[] slots;

    /** @param most how many hashes come at most */
    HashSlots(int most) {
        slots = new long[Integer.highestOneBit(Math.max(LEAST, most)) * 4];
    }

    /** Adds a hash; gives whether it is new. */
    boolean add(long hash) {
        int slot = slotOf(hash);
        boolean isNew = slots[slot] == 0;
        slots[slot] = hash;
        return isNew;
    }

    boolean holds(long hash) {
        return slots[slotOf(hash)] != 0;
    }

    private int slotOf(long hash) {
        int mask = slots.length - 1;
        int slot = (int) (hash >>> 16) & mask;
        while (slots[slot] != 0 && slots[slot] != hash) {
            slot = slot + 1 & mask;
        }
        return slot;
    }
}
