package taxiomet.survey.count;

import java.util.HashSet;
import java.util.Set;
import taxiomet.keys.KeyIndex;

/**
 * How many rows repeat a key of two whole numbers, where rows with one first number stand together, in ascending order: only the rows of one
 * first number are kept at a time.
 */
public final class GroupedKeys implements KeyTally.Keys {
    private static final int FEW = 16;

    private long first;
    private boolean isEmpty = true;
    /** The second numbers that came with the first one. */
    private final long[] seconds = new long[FEW];

    private int count;
    /** The same, once they are more than a few. */
    private final Set<Long> many = new HashSet<>();

    private long excess;
    private boolean isUnordered;

    @Override
    public void add(long[] highs, long[] lows, boolean[] usable, int size, KeyIndex.RowRefs refs) {
        for (int row = 0; row < size && !isUnordered; row++) {
            if (usable == null || usable[row]) {
                add(highs[row], lows[row]);
            }
        }
    }

    private void add(long high, long low) {
        if (isEmpty || high != first) {
            // What is negative is no number, but stands for one that has no room.
            isUnordered = high < 0 || (!isEmpty && high < first);
            isEmpty = false;
            first = high;
            count = 0;
            many.clear();
        }
        if (isKnown(low)) {
            excess++;
        } else if (count < FEW) {
            seconds[count++] = low;
        } else {
            many.add(low);
        }
    }

    private boolean isKnown(long low) {
        for (int i = 0; i < count; i++) {
            if (seconds[i] == low) {
                return true;
            }
        }
        return !many.isEmpty() && many.contains(low);
    }

    @Override
    public void seal() {
        many.clear();
    }

    @Override
    public boolean isFull() {
        return isUnordered;
    }

    @Override
    public long excess() {
        return excess;
    }

    @Override
    public void close() {
        many.clear();
    }
}
