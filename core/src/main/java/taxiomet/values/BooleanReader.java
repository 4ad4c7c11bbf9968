package taxiomet.values;

import java.util.Arrays;

/** boolean: true/false, t/f, yes/no, y/n, on/off, 1/0 in any case. */
final class BooleanReader extends ValueReader {
    private static final int LONGEST_WORD = 5;
    private static final byte[] TRUE = {'t', 'r', 'u', 'e'};
    private static final byte[] FALSE = {'f', 'a', 'l', 's', 'e'};
    /** Stands in front of a word, so that a byte of 0 in front of it makes another. */
    private static final long FIRST = 1;

    private static final long[] PLAIN_TRUE = packed("true", "t", "1");
    private static final long[] PLAIN_FALSE = packed("false", "f", "0");
    /** In lower case. */
    private static final long[] ODD_TRUE = packed("true", "t", "yes", "y", "on");

    private static final long[] ODD_FALSE = packed("false", "f", "no", "n", "off");

    @Override
    int readAll(CellColumn cells, TypedColumn into) {
        int size = cells.size();
        byte[] bytes = cells.bytes();
        long[] spans = cells.spans(size);
        int seen = 0;
        for (int row = 0; row < size; row++) {
            int length = (int) spans[row];
            int start = (int) (spans[row] >>> 32);
            if (length < 0) {
                into.states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
                continue;
            }
            byte first = bytes[start];
            boolean isTrue = length == 1
                    ? first == 't' || first == '1'
                    : length == TRUE.length && Arrays.equals(bytes, start, start + length, TRUE, 0, length);
            boolean isFalse = length == 1
                    ? first == 'f' || first == '0'
                    : length == FALSE.length && Arrays.equals(bytes, start, start + length, FALSE, 0, length);
            if (isTrue || isFalse) {
                if (into.keepsValues()) {
                    into.highs[row] = isTrue ? 1 : 0;
                    into.lows[row] = 0;
                }
            } else {
                seen |= other(into.readOne(this, bytes, row, start, length));
            }
        }
        return seen;
    }

    @Override
    boolean takes(ValueCells.Kind kind) {
        return kind == ValueCells.Kind.BOOLEAN;
    }

    @Override
    byte readValue(ValueCells.Kind kind, long truth, long unused) {
        high = truth;
        low = 0;
        return TypedColumn.GOOD;
    }

    @Override
    byte read(byte[] bytes, int start, int length) {
        if (length == 0) {
            return refuse(Refusal.EMPTY_TEXT);
        }
        int from = skipSpaces(bytes, start, start + length);
        int end = dropSpaces(bytes, from, start + length);
        if (end - from > LONGEST_WORD) {
            return refuse(Refusal.NOT_A_BOOLEAN);
        }
        boolean odd = end - from != length;
        low = 0;
        long word = FIRST;
        long lower = FIRST;
        for (int at = from; at < end; at++) {
            word = word << 8 | bytes[at] & 0xFF;
            lower = lower << 8 | (bytes[at] >= 'A' && bytes[at] <= 'Z' ? bytes[at] | 0x20 : bytes[at] & 0xFF);
        }
        if (isAmong(PLAIN_TRUE, word)) {
            high = 1;
        } else if (isAmong(PLAIN_FALSE, word)) {
            high = 0;
        } else {
            odd = true;
            if (isAmong(ODD_TRUE, lower)) {
                high = 1;
            } else if (isAmong(ODD_FALSE, lower)) {
                high = 0;
            } else {
                return refuse(Refusal.NOT_A_BOOLEAN);
            }
        }
        return goodUnless(odd);
    }

    private static boolean isAmong(long[] words, long word) {
        for (long each : words) {
            if (each == word) {
                return true;
            }
        }
        return false;
    }

    /** Words of at most seven letters, the last one in the lowest byte, with a mark in front of the first. */
    private static long[] packed(String... words) {
        long[] packed = new long[words.length];
        for (int i = 0; i < words.length; i++) {
            packed[i] = FIRST;
            for (int at = 0; at < words[i].length(); at++) {
                packed[i] = packed[i] << 8 | words[i].charAt(at);
            }
        }
        return packed;
    }
}
