package taxiomet.sources.csv;

import java.util.Arrays;
import taxiomet.values.CellColumn;
import taxiomet.values.Words;

/**
 * Finds the bytes at which a row can be taken apart: delimiters, quotes, and all control characters, line breaks among them. Eight
 * bytes are looked at in one go, and the marks of 64 written down in another: with its high bit masked off, a byte sets that bit again when 0x7F is added to what differs from the
 * delimiter. The usual quotes lie between 0x20 and 0x3F: one bit or two make 0x20 of them and leave control characters below it, so
 * that one sum more, with 0x5F, finds both.
 *
 * <p>Measured with bench/parts: 0.40 ns a byte, against 0.92 byte by byte (bench/RESULTS.md).
 */
final class Marks {
    private static final long HIGH_BITS = 0x8080808080808080L;
    private static final long LOW_BITS = 0x7F7F7F7F7F7F7F7FL;
    private static final long ABOVE_BLANK = 0x5F5F5F5F5F5F5F5FL;
    private static final byte BLANK = ' ';
    private static final long EACH = 0x0101010101010101L;
    /** A product with this brings the highest bits of eight bytes together in the highest byte. */
    private static final long GATHER = 0x0002040810204081L;

    private static final int BLOCK = 64;
    private static final int WRITTEN_AT_ONCE = 8;

    private final byte delimiter;
    private final byte quote;
    private int[] places = new int[1 << 12];
    private int count;
    private long bits;

    /** Both are ASCII. */
    Marks(byte delimiter, byte quote) {
        this.delimiter = delimiter;
        this.quote = quote;
    }

    void clear() {
        count = 0;
        bits = 0;
    }

    /**
     * Adds the marks from one place to another, exclusive. The array must go on for {@link CellColumn#PADDING} bytes more.
     */
    void find(byte[] bytes, int from, int to) {
        if (places.length < count + to - from + BLOCK) {
            places = Arrays.copyOf(places, Math.max(places.length * 3 / 2, count + to - from + BLOCK));
        }
        // Another quote is rare, and found byte by byte.
        boolean isUsual = (quote ^ BLANK) < BLANK;
        int whole = isUsual ? from + (to - from & -BLOCK) : from;
        findByWords(bytes, from, whole);
        findBytewise(bytes, whole, to);
    }

    private void findByWords(byte[] bytes, int from, int to) {
        int[] target = places;
        long delimiters = delimiter * EACH;
        long toBlanks = (quote ^ BLANK) * EACH;
        int next = count;
        long seen = bits;
        for (int at = from; at < to; at += BLOCK) {
            long a = Words.at(bytes, at);
            long b = Words.at(bytes, at + 8);
            long c = Words.at(bytes, at + 16);
            long d = Words.at(bytes, at + 24);
            long e = Words.at(bytes, at + 32);
            long f = Words.at(bytes, at + 40);
            long g = Words.at(bytes, at + 48);
            long h = Words.at(bytes, at + 56);
            seen |= a | b | c | d | e | f | g | h;
            long hits = hits(a, delimiters, toBlanks)
                    | hits(b, delimiters, toBlanks) << 8
                    | hits(c, delimiters, toBlanks) << 16
                    | hits(d, delimiters, toBlanks) << 24
                    | hits(e, delimiters, toBlanks) << 32
                    | hits(f, delimiters, toBlanks) << 40
                    | hits(g, delimiters, toBlanks) << 48
                    | hits(h, delimiters, toBlanks) << 56;
            int here = Long.bitCount(hits);
            // Eight are written whether they are there or not: most blocks have about as many, and no branch is
            // guessed.
            int last = next;
            do {
                target[last] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                target[last + 1] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                target[last + 2] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                target[last + 3] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                target[last + 4] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                target[last + 5] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                target[last + 6] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                target[last + 7] = at + Long.numberOfTrailingZeros(hits);
                hits &= hits - 1;
                last += WRITTEN_AT_ONCE;
            } while (hits != 0);
            next += here;
        }
        count = next;
        bits = seen;
    }

    /** A bit for each of eight bytes: whether it is a mark. */
    private static long hits(long word, long delimiters, long toBlanks) {
        long low = word & LOW_BITS;
        long others = ((low ^ delimiters) + LOW_BITS) & ((low ^ toBlanks) + ABOVE_BLANK) | word;
        return (~others & HIGH_BITS) * GATHER >>> 56;
    }

    private void findBytewise(byte[] bytes, int from, int to) {
        for (int at = from; at < to; at++) {
            byte b = bytes[at];
            if (b == delimiter || b == quote || (b >= 0 && b < ' ')) {
                places[count++] = at;
            }
            bits |= b;
        }
    }

    /** The places found, ascending; the first {@link #count} of the array. */
    int[] places() {
        return places;
    }

    int count() {
        return count;
    }

    /** Whether any byte looked at is not ASCII. */
    boolean hasHighBytes() {
        return (bits & HIGH_BITS) != 0;
    }

    /** The first mark at or behind a place, by its number. */
    int firstFrom(int place) {
        int found = Arrays.binarySearch(places, 0, count, place);
        return found >= 0 ? found : -found - 1;
    }
}
