package taxiomet.survey;

import java.util.OptionalDouble;

/**
 * Some of the different values of a column, by their hashes: all while they are few, then those whose hash ends in more and
 * more zeros. Two samples are comparable: a value that is in one at its level is in the other if that column holds it.
 */
final class HashSample {
    private static final int CAPACITY = 1 << 14;

    private long[] slots = new long[64];
    private int size;
    private int level;
    /** The value before, which often comes again. */
    private long last;

    /** @param hash of a value; 0 stands for 1 */
    void add(long hash) {
        if (hash == last) {
            return;
        }
        last = hash;
        if ((hash & (1L << level) - 1) != 0) {
            return;
        }
        if (!put(slots, hash == 0 ? 1 : hash)) {
            return;
        }
        size++;
        if (size > CAPACITY) {
            thinOut();
        } else if (size > slots.length / 2) {
            rehash(slots.length * 2);
        }
    }

    private static boolean put(long[] slots, long hash) {
        int mask = slots.length - 1;
        int slot = (int) (hash >>> 20) & mask;
        while (slots[slot] != 0) {
            if (slots[slot] == hash) {
                return false;
            }
            slot = slot + 1 & mask;
        }
        slots[slot] = hash;
        return true;
    }

    private void thinOut() {
        level++;
        rehash(slots.length);
    }

    private void rehash(int length) {
        long[] old = slots;
        slots = new long[length];
        size = 0;
        long mask = (1L << level) - 1;
        for (long hash : old) {
            if (hash != 0 && (hash & mask) == 0 && put(slots, hash)) {
                size++;
            }
        }
    }

    boolean isExact() {
        return level == 0;
    }

    /** How many different values there are; about, unless it is exact. */
    long distinct() {
        return (long) size << level;
    }

    /** The share of the values at hand, at the level of both, that another column has; empty when there are none. */
    OptionalDouble coverageBy(HashSample other) {
        int shared = Math.max(level, other.level);
        long mask = (1L << shared) - 1;
        int mine = 0;
        int covered = 0;
        for (long hash : slots) {
            if (hash != 0 && (hash & mask) == 0) {
                mine++;
                covered += other.holds(hash) ? 1 : 0;
            }
        }
        return mine == 0 ? OptionalDouble.empty() : OptionalDouble.of((double) covered / mine);
    }

    /** Whether a value is one of those that the sample was made of, if the column has it. */
    boolean wouldHold(long hash) {
        return (hash & (1L << level) - 1) == 0;
    }

    boolean holds(long hash) {
        int mask = slots.length - 1;
        int slot = (int) (hash >>> 20) & mask;
        while (slots[slot] != 0) {
            if (slots[slot] == hash) {
                return true;
            }
            slot = slot + 1 & mask;
        }
        return false;
    }
}
