package taxiomet.keys;

import java.util.Arrays;
import taxiomet.rows.RefRanges;
import taxiomet.spill.MemoryBudget;

/**
 * A set of longs that lie close together, one bit each, in pages of 8,192. Each page knows between which rows its bits
 * were set.
 */
final class PagedBits {
    static final int PAGE_BYTES = 1 << 10;

    private static final int PAGE_BITS = 13;
    private static final int MOST_PAGES = 1 << 22;

    private final MemoryBudget budget;
    /** Pages by their number, less that of the first; null where none of the page's values is there. */
    private long[][] pages = new long[0][];

    private long[] firstRefs = new long[0];
    private long[] lastRefs = new long[0];
    private long firstPage;
    private int pageCount;
    private long size;
    private long fromRef;
    private long toRef;
    private int touched = -1;

    PagedBits(MemoryBudget budget) {
        this.budget = budget;
    }

    /** What is added from now on stands in rows between these two. */
    void startRows(long from, long to) {
        fromRef = from;
        toRef = to;
        touched = -1;
    }

    /** Adds a value: {@link KeySet#ADDED}, {@link KeySet#PRESENT}, or {@link KeySet#FULL} when there is no room for its page. */
    int add(long value) {
        long number = (value >> PAGE_BITS) - firstPage;
        if (number < 0 || number >= pages.length || pages[(int) number] == null) {
            if (!makePage(value >> PAGE_BITS)) {
                return KeySet.FULL;
            }
            number = (value >> PAGE_BITS) - firstPage;
        }
        int page = (int) number;
        int word = (int) value >>> 6 & (PAGE_BYTES >>> 3) - 1;
        long bit = 1L << value;
        long before = pages[page][word];
        if ((before & bit) != 0) {
            return KeySet.PRESENT;
        }
        pages[page][word] = before | bit;
        size++;
        if (page != touched) {
            touch(page);
        }
        return KeySet.ADDED;
    }

    /**
     * Adds the first of some values as long as they are new and there is room; gives how many.
     *
     * @param mostBytes what the pages may take together
     */
    int addFirst(long[] values, int count, long mostBytes) {
        long[][] all = pages;
        long first = firstPage;
        int added = 0;
        for (; added < count; added++) {
            long value = values[added];
            long number = (value >> PAGE_BITS) - first;
            if (number < 0 || number >= all.length || all[(int) number] == null) {
                if (bytes() + PAGE_BYTES > mostBytes || !makePage(value >> PAGE_BITS)) {
                    break;
                }
                all = pages;
                first = firstPage;
                number = (value >> PAGE_BITS) - first;
            }
            long[] page = all[(int) number];
            int word = (int) value >>> 6 & (PAGE_BYTES >>> 3) - 1;
            long before = page[word];
            if ((before & 1L << value) != 0) {
                break;
            }
            page[word] = before | 1L << value;
            if (number != touched) {
                touch((int) number);
            }
        }
        size += added;
        return added;
    }

    private void touch(int page) {
        touched = page;
        firstRefs[page] = Math.min(firstRefs[page], fromRef);
        lastRefs[page] = Math.max(lastRefs[page], toRef);
    }

    boolean contains(long value) {
        long number = (value >> PAGE_BITS) - firstPage;
        if (number < 0 || number >= pages.length) {
            return false;
        }
        long[] page = pages[(int) number];
        return page != null && (page[(int) value >>> 6 & (PAGE_BYTES >>> 3) - 1] & 1L << value) != 0;
    }

    /** Finds which of some values are not there; gives how many, their places in {@code missing}. */
    int findMissing(long[] values, int count, int[] missing) {
        long[][] all = pages;
        long first = firstPage;
        int found = 0;
        for (int i = 0; i < count; i++) {
            long value = values[i];
            long number = (value >> PAGE_BITS) - first;
            long[] page = number >= 0 && number < all.length ? all[(int) number] : null;
            if (page == null || (page[(int) value >>> 6 & (PAGE_BYTES >>> 3) - 1] & 1L << value) == 0) {
                missing[found++] = i;
            }
        }
        return found;
    }

    private boolean makePage(long number) {
        if (pages.length == 0) {
            firstPage = number;
        }
        long least = Math.min(number, firstPage);
        long most = Math.max(number, firstPage + pages.length - 1);
        if (most - least >= MOST_PAGES || most - least < 0 || !budget.tryTake(PAGE_BYTES)) {
            return false;
        }
        if (least < firstPage || most >= firstPage + pages.length) {
            // Room on the side where it is needed, as much again as there is.
            long room = Math.min(MOST_PAGES, Math.max(most - least + 1, pages.length * 2L));
            long newFirst = least < firstPage ? most - room + 1 : least;
            long[][] more = new long[(int) room][];
            long[] moreFirsts = new long[(int) room];
            long[] moreLasts = new long[(int) room];
            Arrays.fill(moreFirsts, Long.MAX_VALUE);
            int shift = (int) (firstPage - newFirst);
            System.arraycopy(pages, 0, more, shift, pages.length);
            System.arraycopy(firstRefs, 0, moreFirsts, shift, pages.length);
            System.arraycopy(lastRefs, 0, moreLasts, shift, pages.length);
            pages = more;
            firstRefs = moreFirsts;
            lastRefs = moreLasts;
            firstPage = newFirst;
            touched = -1;
        }
        pages[(int) (number - firstPage)] = new long[PAGE_BYTES >>> 3];
        pageCount++;
        return true;
    }

    long size() {
        return size;
    }

    /** How many bytes the pages take. */
    long bytes() {
        return (long) pageCount * PAGE_BYTES;
    }

    /** Adds the rows between which a value that is there was set. */
    void addRowsOf(long value, RefRanges rows) {
        int page = (int) ((value >> PAGE_BITS) - firstPage);
        rows.add(firstRefs[page], lastRefs[page]);
    }

    /** Takes values one by one. */
    interface Sink {
        void accept(long value);
    }

    /** Gives all values, ascending. */
    void forEach(Sink sink) {
        for (int page = 0; page < pages.length; page++) {
            for (int word = 0; pages[page] != null && word < pages[page].length; word++) {
                for (long bits = pages[page][word]; bits != 0; bits &= bits - 1) {
                    sink.accept((firstPage + page << PAGE_BITS) + (word << 6) + Long.numberOfTrailingZeros(bits));
                }
            }
        }
    }

    void close() {
        budget.giveBack(bytes());
        pages = new long[0][];
        pageCount = 0;
    }
}
