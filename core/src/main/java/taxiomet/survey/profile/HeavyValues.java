package taxiomet.survey.profile;

import java.util.Arrays;

/** A few values of a column that many rows have, each counted on when others are no longer; small enough to be asked for each cell. */
public final class HeavyValues {
    static final int MOST = 64;
    private static final int SLOTS = 256;

    private final long[] hashes = new long[SLOTS];
    private final long[] rows = new long[SLOTS];
    private final byte[][] texts = new byte[SLOTS][];
    /** Whether a value's rows were counted from the first on. */
    private final boolean[] areExact = new boolean[SLOTS];

    private int size;

    /** Counts a value once more, if it is one of these. */
    void count(long hash) {
        int slot = slotOf(hash);
        if (hashes[slot] != 0) {
            rows[slot]++;
        }
    }

    boolean isEmpty() {
        return size == 0;
    }

    private int slotOf(long hash) {
        int slot = (int) (hash >>> 40) & SLOTS - 1;
        while (hashes[slot] != 0 && hashes[slot] != hash) {
            slot = slot + 1 & SLOTS - 1;
        }
        return slot;
    }

    /** Takes a value that is not here yet, as long as there is room. */
    void put(long hash, long count, byte[] bytes, int start, int length, boolean isExact) {
        int slot = slotOf(hash);
        if (size < 2 * MOST && hashes[slot] == 0) {
            hashes[slot] = hash;
            rows[slot] = count;
            texts[slot] = Arrays.copyOfRange(bytes, start, start + length);
            areExact[slot] = isExact;
            size++;
        }
    }

    /** Adds to a value's count, which is exact no longer where what is added is not. */
    private void add(int slot, long count, boolean isExact) {
        rows[slot] += count;
        areExact[slot] &= isExact;
    }

    /** Each value that is here. */
    interface Each {
        void accept(long hash, long count, byte[] text, boolean isExact);
    }

    void forEach(Each each) {
        for (int slot = 0; slot < SLOTS; slot++) {
            if (hashes[slot] != 0) {
                each.accept(hashes[slot], rows[slot], texts[slot], areExact[slot]);
            }
        }
    }

    /** Adds the values of another part of the column: what only one of the parts counted on may have more rows. */
    void merge(HeavyValues other) {
        boolean[] isInBoth = new boolean[SLOTS];
        other.forEach((hash, count, text, isExact) -> {
            int slot = slotOf(hash);
            if (hashes[slot] != 0) {
                add(slot, count, isExact);
                isInBoth[slot] = true;
            }
        });
        for (int slot = 0; slot < SLOTS; slot++) {
            areExact[slot] &= isInBoth[slot] || hashes[slot] == 0;
        }
        other.forEach((hash, count, text, isExact) -> put(hash, count, text, 0, text.length, false));
    }
}
