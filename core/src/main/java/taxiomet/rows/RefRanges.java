package taxiomet.rows;

import java.util.Arrays;

/** Which rows of a table are wanted in a scan: all, or those in some runs. */
public final class RefRanges {
    /** Every row. */
    public static final RefRanges ALL = new RefRanges();

    private long[] firsts = {0};
    private long[] lasts = {RowRef.MAX};
    private int size = 1;

    private RefRanges() {}

    /** No row yet; {@link #add} adds some. */
    public static RefRanges none() {
        RefRanges ranges = new RefRanges();
        ranges.size = 0;
        return ranges;
    }

    /** Adds the rows from one reference to another, both included. */
    public void add(long first, long last) {
        if (this == ALL) {
            throw new IllegalStateException("all rows are wanted already");
        }
        if (size == firsts.length) {
            firsts = Arrays.copyOf(firsts, size * 2);
            lasts = Arrays.copyOf(lasts, size * 2);
        }
        firsts[size] = first;
        lasts[size++] = last;
    }

    /** Whether one of the rows from one reference to another, both included, is wanted. */
    public boolean meets(long first, long last) {
        for (int i = 0; i < size; i++) {
            if (firsts[i] <= last && first <= lasts[i]) {
                return true;
            }
        }
        return false;
    }
}
