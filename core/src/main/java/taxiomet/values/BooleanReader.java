package taxiomet.values;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;

/** boolean: true/false, t/f, yes/no, y/n, on/off, 1/0 in any case. */
final class BooleanReader extends ValueReader {
    private static final int LONGEST_WORD = 5;
    private static final byte[] TRUE = {'t', 'r', 'u', 'e'};
    private static final byte[] FALSE = {'f', 'a', 'l', 's', 'e'};

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
        String text = new String(bytes, from, end - from, StandardCharsets.ISO_8859_1);
        boolean odd = end - from != length;
        low = 0;
        switch (text) {
            case "true", "t", "1" -> high = 1;
            case "false", "f", "0" -> high = 0;
            default -> {
                odd = true;
                switch (text.toLowerCase(Locale.ROOT)) {
                    case "true", "t", "yes", "y", "on" -> high = 1;
                    case "false", "f", "no", "n", "off" -> high = 0;
                    default -> {
                        return refuse(Refusal.NOT_A_BOOLEAN);
                    }
                }
            }
        }
        return goodUnless(odd);
    }
}
