package taxiomet.keys;

import taxiomet.rows.RefRanges;
import taxiomet.rows.RowRef;
import taxiomet.spill.MemoryBudget;

/**
 * A set of keys in memory, in the form that suits what comes: keys that are one long, or two that fit into one side by side, as
 * bits while they lie close together and as longs while they do not; all others, fingerprints among them, as pairs of longs, and in
 * buckets when these are many and it is early enough to learn at the end which came again. It changes over as it grows.
 */
public final class KeySet {
    /** What {@link #add} can answer: the key is new; it was there; there is no room for it, and it has not been added. */
    static final int ADDED = 0;

    public static final int PRESENT = 1;
    public static final int FULL = 2;

    /** Bits take no part in a choice before they take so much. */
    private static final int BYTES_BEFORE_CHOICE = 4 << 20;

    /** Bits give way to longs when a key takes more of them than a long has twice, and come back when it is less than one has. */
    private static final int MOST_BYTES_PER_KEY = 16;

    private static final int BITS_PER_KEY = 64;

    /** More pairs than this go into buckets: a table of so many fits into a core's own cache. */
    private static final int MOST_PAIRS_IN_TABLE = 1 << 15;

    private static final int PACKED_BITS = 62;

    private final MemoryBudget budget;
    private final boolean isSingle;
    private final boolean mayAnswerLate;
    private PagedBits bits;
    private LongTable longs;
    private PairTable pairs;
    private PairBuckets buckets;
    private boolean areAllPairs;
    /** How many bits the second part takes where two are packed into one. */
    private int shift;

    private long greatestFirst;
    private long fromRef;
    private long toRef = RowRef.MAX;

    /** @param parts how many columns a key has */
    public KeySet(int parts, MemoryBudget budget) {
        this(parts, budget, false);
    }

    /** @param mayAnswerLate whether {@link #seal} will be called, and is early enough to learn which keys came again */
    public KeySet(int parts, MemoryBudget budget, boolean mayAnswerLate) {
        this.budget = budget;
        this.isSingle = parts == 1;
        this.mayAnswerLate = mayAnswerLate;
        this.bits = new PagedBits(budget);
        this.pairs = new PairTable(budget);
    }

    /** Takes keys one by one. */
    public interface Sink {
        void accept(long high, long low);
    }

    /** What is added from now on stands in rows between these two. */
    void startRows(long from, long to) {
        fromRef = from;
        toRef = to;
        if (bits != null) {
            bits.startRows(from, to);
        }
    }

    /** Adds a key: {@link #PRESENT} when it is there already, {@link #FULL} when there is no room for it. */
    public int add(long high, long low) {
        if (high < 0 || areAllPairs) {
            return addPair(high, low);
        }
        if (isSingle) {
            return addPacked(low);
        }
        if (!makeFit(high, low)) {
            return FULL;
        }
        return areAllPairs ? addPair(high, low) : addPacked(high << shift | low);
    }

    private int addPair(long high, long low) {
        boolean areMany = buckets == null && mayAnswerLate && pairs.size() >= MOST_PAIRS_IN_TABLE;
        if (areMany && !startBuckets()) {
            return FULL;
        }
        if (buckets != null) {
            return buckets.add(high, low) ? ADDED : FULL;
        }
        return pairs.add(high, low);
    }

    private boolean startBuckets() {
        PairBuckets spread = new PairBuckets(budget);
        boolean[] isFull = new boolean[1];
        pairs.forEach((high, low) -> isFull[0] = isFull[0] || !spread.add(high, low));
        if (isFull[0]) {
            spread.close();
            return false;
        }
        pairs.close();
        buckets = spread;
        return true;
    }

    /**
     * All keys have been added.
     *
     * @param keeps whether it will be asked which there are
     * @param repeated gets keys that came again where {@link #add} did not tell
     * @return false when there is no room for what must be kept
     */
    boolean seal(boolean keeps, Sink repeated) {
        return buckets == null || buckets.seal(keeps, repeated);
    }

    /**
     * Adds the first of some keys in one quick loop, as long as all is as usual: they are new, and go where others are.
     *
     * @param packed room for as many longs as there are keys
     * @return how many have been added
     */
    int addFirst(long[] highs, long[] lows, int count, long[] packed) {
        if (areAllInBuckets(highs, count)) {
            return buckets.addFirst(highs, lows, count);
        }
        if (areAllPairs || !arePackable(highs, lows, count)) {
            return 0;
        }
        long[] values = packed(highs, lows, count, packed);
        return bits != null
                ? bits.addFirst(values, count, mostBytes(bits.size() + count))
                : longs.addFirst(values, count);
    }

    /** Whether all of some keys belong into the buckets. */
    private boolean areAllInBuckets(long[] highs, int count) {
        if (buckets == null || areAllPairs) {
            return buckets != null;
        }
        long signs = -1;
        for (int i = 0; i < count; i++) {
            signs &= highs[i];
        }
        return signs < 0;
    }

    /** Sees to it that a key of two parts can be packed, or that none is; false when there is no room for that. */
    private boolean makeFit(long high, long low) {
        if (low >>> shift == 0 && high <= greatestFirst) {
            return true;
        }
        int wanted = Math.max(shift, Long.SIZE - Long.numberOfLeadingZeros(low));
        greatestFirst = Math.max(greatestFirst, high);
        if (Long.SIZE - Long.numberOfLeadingZeros(greatestFirst) + wanted > PACKED_BITS) {
            return unpackAll();
        }
        return wanted == shift || repack(wanted);
    }

    private boolean unpackAll() {
        KeySet other = new KeySet(2, budget, mayAnswerLate);
        boolean[] isFull = new boolean[1];
        forEach((high, low) -> isFull[0] = isFull[0] || other.addPair(high, low) == FULL);
        if (isFull[0]) {
            other.close();
            return false;
        }
        close();
        pairs = other.pairs;
        buckets = other.buckets;
        areAllPairs = true;
        return true;
    }

    private boolean repack(int newShift) {
        KeySet other = new KeySet(2, budget);
        other.bits.startRows(0, toRef);
        boolean[] isFull = new boolean[1];
        forEachPacked((high, low) -> isFull[0] |= other.addPacked(high << newShift | low) == FULL);
        if (isFull[0]) {
            other.closePacked();
            return false;
        }
        closePacked();
        bits = other.bits;
        longs = other.longs;
        shift = newShift;
        startRows(fromRef, toRef);
        return true;
    }

    private int addPacked(long value) {
        if (bits != null) {
            int answer = bits.add(value);
            if (answer != FULL && (answer == PRESENT || bits.bytes() <= mostBytes(bits.size()))) {
                return answer;
            }
            if (!turnToLongs() || answer == ADDED) {
                return answer;
            }
        } else if (longs.isAboutToGrow() && liesClose(longs)) {
            turnToBits();
            return addPacked(value);
        }
        return longs.add(value);
    }

    private static long mostBytes(long keys) {
        return Math.max(BYTES_BEFORE_CHOICE, keys * MOST_BYTES_PER_KEY);
    }

    private static boolean liesClose(LongTable values) {
        return values.spread() >= 0
                && values.size() > BYTES_BEFORE_CHOICE / Long.BYTES
                && values.spread() / BITS_PER_KEY < values.size();
    }

    private boolean turnToLongs() {
        LongTable table = new LongTable(budget);
        boolean[] isFull = new boolean[1];
        bits.forEach(value -> isFull[0] |= table.add(value) == FULL);
        if (isFull[0]) {
            table.close();
            return false;
        }
        bits.close();
        bits = null;
        longs = table;
        return true;
    }

    private void turnToBits() {
        PagedBits paged = new PagedBits(budget);
        // What is there already stands somewhere before the end of the rows at hand.
        paged.startRows(0, toRef);
        boolean[] isFull = new boolean[1];
        longs.forEach(value -> isFull[0] |= paged.add(value) == FULL);
        if (isFull[0]) {
            paged.close();
            return;
        }
        longs.close();
        longs = null;
        bits = paged;
        startRows(fromRef, toRef);
    }

    /** Fetches what the look-up of some keys needs into the cache, all at once; {@code packed} is room for as many longs. */
    void touch(long[] highs, long[] lows, int count, long[] packed) {
        if (areAllPairs || (pairs.size() > 0 && count > 0 && highs[0] < 0)) {
            pairs.touch(highs, lows, count);
        } else if (longs != null) {
            longs.touch(packed(highs, lows, count, packed), count);
        }
    }

    /**
     * Finds which of some keys are not there. Threads may do so side by side, each with its own arrays.
     *
     * @param packed room for as many longs as there are keys
     * @param missing gets their places, ascending
     * @return how many they are
     */
    public int findMissing(long[] highs, long[] lows, int count, long[] packed, int[] missing) {
        if (areAllInBuckets(highs, count)) {
            return buckets.findMissing(highs, lows, count, packed, missing);
        }
        if (areAllPairs || !arePackable(highs, lows, count)) {
            if (buckets == null) {
                pairs.touch(highs, lows, count);
            }
            int found = 0;
            for (int i = 0; i < count; i++) {
                if (!contains(highs[i], lows[i])) {
                    missing[found++] = i;
                }
            }
            return found;
        }
        long[] values = packed(highs, lows, count, packed);
        if (bits != null) {
            return bits.findMissing(values, count, missing);
        }
        longs.touch(values, count);
        return longs.findMissing(values, count, missing);
    }

    private boolean arePackable(long[] highs, long[] lows, int count) {
        long signs = 0;
        long wide = 0;
        long most = isSingle ? 0 : greatestFirst;
        for (int i = 0; i < count; i++) {
            signs |= highs[i] | most - highs[i];
            wide |= lows[i];
        }
        return signs >= 0 && (isSingle || wide >>> shift == 0);
    }

    private long[] packed(long[] highs, long[] lows, int count, long[] packed) {
        if (isSingle) {
            return lows;
        }
        int by = shift;
        for (int i = 0; i < count; i++) {
            packed[i] = highs[i] << by | lows[i];
        }
        return packed;
    }

    /** Whether a key is there. */
    public boolean contains(long high, long low) {
        if (high < 0 || areAllPairs) {
            return buckets != null ? buckets.contains(high, low) : pairs.contains(high, low);
        }
        if (isSingle) {
            return containsPacked(low);
        }
        return low >>> shift == 0 && high <= greatestFirst && containsPacked(high << shift | low);
    }

    private boolean containsPacked(long value) {
        return bits != null ? bits.contains(value) : longs.contains(value);
    }

    private long packedSize() {
        return bits != null ? bits.size() : longs != null ? longs.size() : 0;
    }

    /** How many different keys there are. */
    public long size() {
        return packedSize() + pairs.size() + (buckets != null ? buckets.size() : 0);
    }

    /** Hands over every key once, in no order. */
    public void forEach(Sink sink) {
        forEachPacked(sink);
        pairs.forEach(sink);
        if (buckets != null) {
            buckets.forEach(sink);
        }
    }

    private void forEachPacked(Sink sink) {
        PagedBits.Sink unpacking = isSingle
                ? value -> sink.accept(0, value)
                : value -> sink.accept(value >>> shift, value & (1L << shift) - 1);
        if (bits != null) {
            bits.forEach(unpacking);
        } else if (longs != null) {
            longs.forEach(unpacking);
        }
    }

    /** Adds the rows among which the first with a key of this set stands; false when that is not known. */
    boolean addRowsOf(long high, long low, RefRanges rows) {
        if (high < 0 || areAllPairs || bits == null) {
            return false;
        }
        bits.addRowsOf(isSingle ? low : high << shift | low, rows);
        return true;
    }

    private void closePacked() {
        if (bits != null) {
            bits.close();
            bits = null;
        }
        if (longs != null) {
            longs.close();
            longs = null;
        }
    }

    /** Gives the memory back. */
    public void close() {
        closePacked();
        pairs.close();
        if (buckets != null) {
            buckets.close();
        }
    }
}
