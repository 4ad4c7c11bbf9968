package taxiomet.hint;

import java.util.Arrays;
import taxiomet.rows.RowBatch;

/**
 * Tells quickly which parents can be meant by none of the keys asked about: those whose skeleton, and whose texts with one character
 * taken out, have hashes that none of the keys has. It looks at bytes, makes no objects, and lets pass whatever it does not
 * understand.
 */
final class HintSieve {
    private static final long BASE = 0x100000001B3L;
    /** Stands between the columns of a key that is taken as one text. */
    static final char BETWEEN_COLUMNS = '\u0001';

    private static final int BITS_FOR_EACH = 16;

    private final int longest;
    private final long[] bits;
    private final int shift;
    private final long[] powers;
    private long[] before = new long[1];
    private byte[] text = new byte[64];
    private char[] bones = new char[64];

    /**
     * @param hashes how many {@link #add} will bring
     * @param longest texts of more characters have no neighbours
     */
    HintSieve(int hashes, int longest) {
        this.longest = longest;
        int size = Integer.highestOneBit(Math.max(64, Math.min(hashes, 1 << 25)) * BITS_FOR_EACH) * 2;
        bits = new long[size >>> 6];
        shift = Long.numberOfLeadingZeros(size) + 1;
        powers = new long[longest + 2];
        powers[0] = 1;
        for (int i = 1; i < powers.length; i++) {
            powers[i] = powers[i - 1] * BASE;
        }
    }

    /** The hash of a text. */
    static long hash(String all) {
        long sum = 0;
        for (int i = 0; i < all.length(); i++) {
            sum = sum * BASE + all.charAt(i);
        }
        return finish(sum, all.length());
    }

    private static long finish(long sum, int length) {
        return sum * 31 + length;
    }

    void add(long hash) {
        long bit = hash * 0x9E3779B97F4A7C15L >>> shift;
        bits[(int) (bit >>> 6)] |= 1L << bit;
    }

    private boolean mayHave(long hash) {
        long bit = hash * 0x9E3779B97F4A7C15L >>> shift;
        return (bits[(int) (bit >>> 6)] & 1L << bit) != 0;
    }

    /** Whether a row of a parent's key columns must be looked at closely. */
    boolean letsPass(RowBatch batch, int row) {
        int length = 0;
        for (int column = 0; column < batch.columnCount(); column++) {
            byte[] bytes = batch.column(column).bytes();
            int start = batch.column(column).start(row);
            int count = batch.column(column).length(row);
            if (count < 0) {
                return false;
            }
            if (count == 0 || !isSimple(bytes, start, count)) {
                return true;
            }
            if (text.length < length + count + 1) {
                text = Arrays.copyOf(text, (length + count + 1) * 2);
            }
            if (column > 0) {
                text[length++] = BETWEEN_COLUMNS;
            }
            System.arraycopy(bytes, start, text, length, count);
            length += count;
        }
        return mayHave(skeletonHash(length)) || mayHaveBones(length);
    }

    /** Whether the skeleton of a cell is the cell in lower case: ASCII, and plain digits or no number or date at all. */
    private static boolean isSimple(byte[] bytes, int start, int count) {
        byte first = bytes[start];
        if (first <= ' ' || bytes[start + count - 1] <= ' ') {
            return false;
        }
        boolean isNumber = first <= '9';
        for (int i = start; i < start + count; i++) {
            byte b = bytes[i];
            if (b < 0 || (isNumber && (b < '0' || b > '9'))) {
                return false;
            }
        }
        return !isNumber || (count <= 40 && (first != '0' || count == 1));
    }

    private long skeletonHash(int length) {
        long sum = 0;
        for (int i = 0; i < length; i++) {
            byte b = text[i];
            sum = sum * BASE + (b >= 'A' && b <= 'Z' ? b | 0x20 : b);
        }
        return finish(sum, length);
    }

    /** Whether a key may be meant whose bones are those of the text, or one keystroke away. */
    private boolean mayHaveBones(int length) {
        int left = 0;
        if (bones.length < length) {
            bones = new char[text.length];
        }
        for (int i = 0; i < length; i++) {
            if (text[i] == BETWEEN_COLUMNS) {
                bones[left++] = BETWEEN_COLUMNS;
            } else {
                left = Likeness.addBone(bones, left, (char) text[i]);
            }
        }
        return left <= longest && left > 0 && mayHaveNeighbour(left);
    }

    private boolean mayHaveNeighbour(int length) {
        if (before.length < length + 1) {
            before = new long[longest + 1];
        }
        for (int i = 0; i < length; i++) {
            before[i + 1] = before[i] * BASE + bones[i];
        }
        long whole = before[length];
        if (mayHave(finish(whole, length))) {
            return true;
        }
        for (int out = 0; out < length; out++) {
            int behind = length - out - 1;
            long after = whole - before[out + 1] * powers[behind];
            if (mayHave(finish(before[out] * powers[behind] + after, length - 1))) {
                return true;
            }
        }
        return false;
    }
}
