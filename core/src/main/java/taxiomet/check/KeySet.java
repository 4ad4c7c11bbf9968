package taxiomet.check;

import taxiomet.rows.RefRanges;
import taxiomet.rows.RowRef;
import taxiomet.spill.MemoryBudget;

/**
 * A set of keys in memory, in the form that suits what comes: keys that are one long, or two that fit into one side by side, as
 * bits while they lie close together and as longs while they do not; all others, fingerprints among them, as pairs of longs. It
 * changes over as it grows.
 */
final class KeySet {
    /** What {@link #add} can answer: the key is new; it was there; there is no room for it, and it has not been added. */
    static final int ADDED = 0;

    static final int PRESENT = 1;
    static final int FULL = 2;

    /** Bits take no part in a choice before they take so much. */
    private static final int BYTES_BEFORE_CHOICE = 4 << 20;

    /** Bits give way to longs when a key takes more of them than a long has twice, and come back when it is less than one has. */
    private static final int MOST_BYTES_PER_KEY = 16;

    private static final int BITS_PER_KEY = 64;
    private static final int PACKED_BITS = 62;

    private final MemoryBudget budget;
    private final boolean isSingle;
    private PagedBits bits;
    private LongTable longs;
    private PairTable pairs;
    private boolean areAllPairs;
    /** How many bits the second part takes where two are packed into one. */
    private int shift;

    private long greatestFirst;
    private long fromRef;
    private long toRef = RowRef.MAX;

    /** @param parts how many columns a key has */
    KeySet(int parts, MemoryBudget budget) {
        this.budget = budget;
        this.isSingle = parts == 1;
        this.bits = new PagedBits(budget);
        this.pairs = new PairTable(budget);
    }

    /** Takes keys one by one. */
    interface Sink {
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

    int add(long high, long low) {
        if (high < 0 || areAllPairs) {
            return pairs.add(high, low);
        }
        if (isSingle) {
            return addPacked(low);
        }
        if (!makeFit(high, low)) {
            return FULL;
        }
        return areAllPairs ? pairs.add(high, low) : addPacked(high << shift | low);
    }

    /**
     * Adds keys that are all new and go on where others are: the usual case, in one quick loop.
     *
     * @param packed room for as many longs as there are keys
     * @return false when some are not, or room must be made: then none has been added
     */
    boolean addAllNew(long[] highs, long[] lows, int count, long[] packed) {
        return bits != null
                && arePackable(highs, lows, count)
                && bits.addAllNew(packed(highs, lows, count, packed), count);
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
        PairTable all = new PairTable(budget);
        boolean[] isFull = new boolean[1];
        forEach((high, low) -> isFull[0] |= all.add(high, low) == FULL);
        if (isFull[0]) {
            all.close();
            return false;
        }
        close();
        pairs = all;
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
            if (answer != FULL && (answer == PRESENT || bits.bytes() <= mostBytes())) {
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

    private long mostBytes() {
        return Math.max(BYTES_BEFORE_CHOICE, bits.size() * MOST_BYTES_PER_KEY);
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
    int findMissing(long[] highs, long[] lows, int count, long[] packed, int[] missing) {
        if (areAllPairs || !arePackable(highs, lows, count)) {
            pairs.touch(highs, lows, count);
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

    boolean contains(long high, long low) {
        if (high < 0 || areAllPairs) {
            return pairs.contains(high, low);
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

    long size() {
        return packedSize() + pairs.size();
    }

    void forEach(Sink sink) {
        forEachPacked(sink);
        pairs.forEach(sink);
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

    void close() {
        closePacked();
        pairs.close();
    }
}
