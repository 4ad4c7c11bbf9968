package taxiomet.sources.csv;

import java.util.Arrays;
import taxiomet.rows.CellColumn;
import taxiomet.rows.Words;

/**
 * Finds the bytes at which a row can be taken apart: delimiters, quotes, and all control characters, line breaks among them. Eight
 * bytes are looked at in one go: with its high bit masked off, a byte sets that bit again when 0x7F is added to what differs from a
 * wanted one, and when 0x60 is added to what is no control character.
 */
final class Marks {
    private static final long HIGH_BITS = 0x8080808080808080L;
    private static final long LOW_BITS = 0x7F7F7F7F7F7F7F7FL;
    private static final long FROM_BLANK = 0x6060606060606060L;
    private static final long EACH = 0x0101010101010101L;
    private static final int BLOCK = 64;

    private final long delimiters;
    private final long quotes;
    private int[] places = new int[1 << 12];
    private int count;
    private long bits;

    /** Both are ASCII. */
    Marks(byte delimiter, byte quote) {
        delimiters = delimiter * EACH;
        quotes = quote * EACH;
    }

    void clear() {
        count = 0;
        bits = 0;
    }

    /**
     * Adds the marks from one place to another, exclusive. The array must go on for {@link CellColumn#PADDING} bytes more.
     */
    void find(byte[] bytes, int from, int to) {
        int at = from;
        while (at < to) {
            int end = Math.min(at + BLOCK, to);
            if (places.length < count + BLOCK + 2) {
                places = Arrays.copyOf(places, places.length * 2);
            }
            if (end - at == BLOCK) {
                findInBlock(bytes, at);
            } else {
                findBytewise(bytes, at, end);
            }
            at = end;
        }
    }

    private void findInBlock(byte[] bytes, int from) {
        int[] target = places;
        int next = count;
        long seen = bits;
        for (int at = from; at < from + BLOCK; at += Long.BYTES) {
            long word = Words.at(bytes, at);
            long low = word & LOW_BITS;
            long others = ((low ^ delimiters) + LOW_BITS) & ((low ^ quotes) + LOW_BITS) & (low + FROM_BLANK) | word;
            long hits = ~others & HIGH_BITS;
            seen |= word;
            // Two are written whether they are there or not: most words have no more, and no branch has to be guessed.
            int here = Long.bitCount(hits);
            target[next] = at + (Long.numberOfTrailingZeros(hits) >>> 3);
            hits &= hits - 1;
            target[next + 1] = at + (Long.numberOfTrailingZeros(hits) >>> 3);
            for (int i = 2; i < here; i++) {
                hits &= hits - 1;
                target[next + i] = at + (Long.numberOfTrailingZeros(hits) >>> 3);
            }
            next += here;
        }
        count = next;
        bits = seen;
    }

    private void findBytewise(byte[] bytes, int from, int to) {
        for (int at = from; at < to; at++) {
            byte b = bytes[at];
            if (b == (byte) delimiters || b == (byte) quotes || (b >= 0 && b < ' ')) {
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
