package taxiomet.survey.profile;

import taxiomet.values.CellColumn;
import taxiomet.values.Words;

/** How long texts are, in which case, and whether blanks stand at their ends: eight bytes at a time. */
public final class TextMeasures {
    private static final long HIGH_BITS = 0x8080808080808080L;
    private static final long ONES = 0x0101010101010101L;
    private static final long LOW_BITS = ~HIGH_BITS;

    private long shortest = Long.MAX_VALUE;
    private long longest;
    private long characters;
    private long padded;
    private long upper;
    private long lower;

    /**
     * @param bytes go on for {@link CellColumn#PADDING} bytes behind the text
     * @param times in how many rows it stands
     */
    void add(byte[] bytes, int start, int length, long times) {
        int count = length;
        long uppers = 0;
        long lowers = 0;
        for (int at = 0; at < length; at += Long.BYTES) {
            long word = Words.at(bytes, start + at);
            if (length - at < Long.BYTES) {
                word &= (1L << 8 * (length - at)) - 1;
            }
            long high = word & HIGH_BITS;
            if (high != 0) {
                // A byte that is not the first of its character has the bits 10 on top.
                count -= Long.bitCount(high & ~(word << 1));
            }
            long ascii = word & LOW_BITS;
            uppers |= isBetween(ascii, 'A', 'Z') & ~high;
            lowers |= isBetween(ascii, 'a', 'z') & ~high;
        }
        addLength(count, times);
        if (uppers != 0 && lowers == 0) {
            upper += times;
        } else if (lowers != 0 && uppers == 0) {
            lower += times;
        }
        if (length > 0 && (bytes[start] == ' ' || bytes[start + length - 1] == ' ')) {
            padded += times;
        }
    }

    /** The high bit of each byte that lies between two; all bytes are below 128. */
    private static long isBetween(long word, char first, char last) {
        return word + (0x80 - first) * ONES & ~(word + (0x7F - last) * ONES) & HIGH_BITS;
    }

    private void addLength(int count, long times) {
        shortest = Math.min(shortest, count);
        longest = Math.max(longest, count);
        characters += count * times;
    }

    /**
     * Adds values of digits and marks alone.
     *
     * @param rows places of these
     * @param count how many of them there are
     */
    void addPlain(CellColumn cells, int[] rows, int count) {
        int least = Integer.MAX_VALUE;
        int most = 0;
        long sum = 0;
        for (int i = 0; i < count; i++) {
            int length = cells.length(rows[i]);
            least = Math.min(least, length);
            most = Math.max(most, length);
            sum += length;
        }
        if (count > 0) {
            shortest = Math.min(shortest, least);
            longest = Math.max(longest, most);
            characters += sum;
        }
    }

    void merge(TextMeasures other) {
        shortest = Math.min(shortest, other.shortest);
        longest = Math.max(longest, other.longest);
        characters += other.characters;
        padded += other.padded;
        upper += other.upper;
        lower += other.lower;
    }

    /** Characters of the shortest value; {@link Long#MAX_VALUE} without values. */
    long shortest() {
        return shortest;
    }

    long longest() {
        return longest;
    }

    /** Of all values together. */
    long characters() {
        return characters;
    }

    /** Values with a blank at an end. */
    long padded() {
        return padded;
    }

    /** Values with letters of the upper case alone, among those of the alphabet. */
    long upper() {
        return upper;
    }

    /** Values with letters of the lower case alone. */
    long lower() {
        return lower;
    }
}
