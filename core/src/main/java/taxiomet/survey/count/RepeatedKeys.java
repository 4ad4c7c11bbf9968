package taxiomet.survey.count;

import taxiomet.keys.KeyIndex;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;

/** How many rows repeat a key that no link points at: its keys take little room, but then nobody knows how many rows have each. */
public final class RepeatedKeys implements KeyTally.Keys, KeyIndex.Repeated {
    private final KeyIndex index;
    private long excess;
    private boolean isUnknown;
    private boolean isClosed;

    /** @param parts how many columns a key has */
    RepeatedKeys(SpillFolder spill, MemoryBudget budget, int parts) {
        index = new KeyIndex(spill, budget, parts);
        index.noticeRepeated(this);
    }

    @Override
    public void add(long[] highs, long[] lows, boolean[] usable, int size, KeyIndex.RowRefs refs) {
        if (!isUnknown) {
            index.add(highs, lows, usable, size, refs);
        }
    }

    @Override
    public void add(long high, long low, long ref) {
        excess++;
    }

    @Override
    public void add(long high, long low) {
        isUnknown = true;
    }

    @Override
    public void forgetRows() {
        isUnknown = true;
    }

    @Override
    public void seal() {
        if (!isUnknown) {
            index.seal();
        }
    }

    @Override
    public boolean isFull() {
        return isUnknown;
    }

    @Override
    public long excess() {
        return excess;
    }

    @Override
    public void close() {
        if (!isClosed) {
            index.close();
            isClosed = true;
        }
    }
}
