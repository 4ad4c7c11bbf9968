package taxiomet.keys;

import java.util.HashMap;
import java.util.Map;

/** A set of row references, as bitmaps of 65,536 rows each. */
public final class RowSet {
    private static final int PAGE_BITS = 16;
    private static final int LONGS_PER_PAGE = 1 << PAGE_BITS - 6;

    private final Map<Long, long[]> pages = new HashMap<>();
    private long[] lastPage;
    private long lastPageNumber = -1;
    private long size;

    /** Adds a row, by its reference; once, however often. */
    public void add(long ref) {
        long number = ref >>> PAGE_BITS;
        if (number != lastPageNumber) {
            lastPage = pages.computeIfAbsent(number, n -> new long[LONGS_PER_PAGE]);
            lastPageNumber = number;
        }
        int bit = (int) ref & (1 << PAGE_BITS) - 1;
        long mask = 1L << bit;
        if ((lastPage[bit >>> 6] & mask) == 0) {
            lastPage[bit >>> 6] |= mask;
            size++;
        }
    }

    /** How many different rows there are. */
    public long size() {
        return size;
    }
}
