package taxiomet.keys;

import java.util.HashMap;
import java.util.Map;
import java.util.PrimitiveIterator;
import java.util.function.LongConsumer;
import java.util.stream.LongStream;

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

    /** Whether a row is in it. */
    public boolean contains(long ref) {
        long[] page = pages.get(ref >>> PAGE_BITS);
        int bit = (int) ref & (1 << PAGE_BITS) - 1;
        return page != null && (page[bit >>> 6] & 1L << bit) != 0;
    }

    /** Hands over all rows, ascending. */
    public void forEach(LongConsumer refs) {
        long[] numbers =
                pages.keySet().stream().mapToLong(Long::longValue).sorted().toArray();
        for (long number : numbers) {
            long[] page = pages.get(number);
            for (int word = 0; word < page.length; word++) {
                for (long bits = page[word]; bits != 0; bits &= bits - 1) {
                    refs.accept((number << PAGE_BITS) + (word << 6) + Long.numberOfTrailingZeros(bits));
                }
            }
        }
    }

    /** All rows, ascending, one after the other. */
    public PrimitiveIterator.OfLong iterator() {
        LongStream.Builder all = LongStream.builder();
        forEach(all);
        return all.build().iterator();
    }

    /** How many different rows there are. */
    public long size() {
        return size;
    }
}
