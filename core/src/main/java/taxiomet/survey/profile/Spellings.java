package taxiomet.survey.profile;

import java.util.Arrays;
import taxiomet.values.Words;

/**
 * The short texts that a column had last, with their values and the hashes of these: where few of them stand in many rows, most cells need no second
 * look. How often each came again is kept until it is asked for.
 */
final class Spellings {
    private static final int SLOTS = 1 << 10;
    private static final int LONGEST = 32;
    private static final long FACTOR = 0x9E3779B97F4A7C15L;
    /** So many texts tell whether looking them up is worth while. */
    private static final int ENOUGH = 2_000;

    private final byte[] texts = new byte[SLOTS * LONGEST + Long.BYTES];
    /** 0 where a slot is free. */
    private final int[] lengths = new int[SLOTS];

    private final long[] hashes = new long[SLOTS];
    private final long[] values = new long[SLOTS];
    private final int[] times = new int[SLOTS];
    /** Slots whose texts came again. */
    private final int[] again = new int[SLOTS];

    private int againCount;
    private int asked;
    private int found;

    /** Takes what came again. */
    interface Each {
        /** @param bytes go on for some way behind the text */
        void accept(byte[] bytes, int start, int length, int times);
    }

    /** Whether so few texts came again that it is better not to ask. */
    boolean areInVain() {
        return asked >= ENOUGH && found * 2 < asked;
    }

    /**
     * The slot for a text; -1 where it is too long or too short to be kept.
     *
     * @param bytes go on for {@link taxiomet.values.CellColumn#PADDING} bytes behind the text
     */
    int slotOf(byte[] bytes, int start, int length) {
        if (length > LONGEST || length == 0) {
            return -1;
        }
        asked++;
        long first = Words.at(bytes, start);
        long mixed = length < Long.BYTES
                ? first & (1L << 8 * length) - 1
                : first + Words.at(bytes, start + length - Long.BYTES) * 31;
        mixed = (mixed + length) * FACTOR;
        return (int) (mixed >>> 54 ^ mixed >>> 32) & SLOTS - 1;
    }

    /** Counts a text once more, if it is the one in its slot. */
    boolean comesAgain(int slot, byte[] bytes, int start, int length) {
        int at = slot * LONGEST;
        if (lengths[slot] != length || !Arrays.equals(bytes, start, start + length, texts, at, at + length)) {
            return false;
        }
        if (times[slot]++ == 0) {
            again[againCount++] = slot;
        }
        found++;
        return true;
    }

    /** The hash of the text in a slot. */
    long hash(int slot) {
        return hashes[slot];
    }

    /** What was kept as the value of the text in a slot. */
    long value(int slot) {
        return values[slot];
    }

    /** Keeps a text in place of the one before, unless it is yet to be told how often that came again. */
    void put(int slot, byte[] bytes, int start, int length, long hash, long value) {
        if (times[slot] == 0) {
            System.arraycopy(bytes, start, texts, slot * LONGEST, length);
            lengths[slot] = length;
            hashes[slot] = hash;
            values[slot] = value;
        }
    }

    /** Tells how often each text came again since this was last asked. */
    void tellAll(Each each) {
        for (int i = 0; i < againCount; i++) {
            int slot = again[i];
            each.accept(texts, slot * LONGEST, lengths[slot], times[slot]);
            times[slot] = 0;
        }
        againCount = 0;
        asked /= 2;
        found /= 2;
    }
}
