package taxiomet.rehearse.reach;

import java.util.Set;

/** Tells quickly whether a long is in a set. */
final class LongProbe {
    private static final long SPREAD = 0x9E3779B97F4A7C15L;

    private final long[] slots;
    private final boolean hasZero;
    private final int shift;

    LongProbe(Set<Object> keys) {
        int bits = Math.max(4, 33 - Integer.numberOfLeadingZeros(Math.max(1, keys.size())));
        slots = new long[1 << bits];
        shift = Long.SIZE - bits;
        boolean zero = false;
        for (Object key : keys) {
            if (key instanceof Long number) {
                zero |= number == 0;
                add(number);
            }
        }
        hasZero = zero;
    }

    private void add(long number) {
        int at = (int) (number * SPREAD >>> shift);
        while (slots[at] != 0 && slots[at] != number) {
            at = at + 1 & slots.length - 1;
        }
        slots[at] = number;
    }

    boolean contains(long number) {
        if (number == 0) {
            return hasZero;
        }
        int at = (int) (number * SPREAD >>> shift);
        while (slots[at] != 0) {
            if (slots[at] == number) {
                return true;
            }
            at = at + 1 & slots.length - 1;
        }
        return false;
    }
}
