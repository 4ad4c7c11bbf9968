package taxiomet.values;

/** uuid: 32 hexadecimal digits in any case, with hyphens (8-4-4-4-12) or without, with braces or without. */
final class UuidReader extends ValueReader {
    private static final int DIGITS = 32;
    private static final byte[] DIGIT_VALUES = new byte[128];

    static {
        for (int i = 0; i < DIGIT_VALUES.length; i++) {
            DIGIT_VALUES[i] = (byte) Character.digit(i, 16);
        }
    }

    @Override
    boolean takes(ValueCells.Kind kind) {
        return kind == ValueCells.Kind.UUID;
    }

    @Override
    byte readValue(ValueCells.Kind kind, long first, long second) {
        high = first;
        low = second;
        return TypedColumn.GOOD;
    }

    @Override
    byte read(byte[] bytes, int start, int length) {
        if (length == 0) {
            return refuse(Refusal.EMPTY_TEXT);
        }
        int from = skipSpaces(bytes, start, start + length);
        int end = dropSpaces(bytes, from, start + length);
        boolean odd = end - from != length;
        if (end - from >= 2 && bytes[from] == '{' && bytes[end - 1] == '}') {
            from++;
            end--;
            odd = true;
        }
        boolean hyphens = end - from == DIGITS + 4;
        if (!hyphens && end - from != DIGITS) {
            return refuse(Refusal.NOT_A_UUID);
        }
        odd |= !hyphens;
        long first = 0;
        long second = 0;
        int digits = 0;
        for (int at = from; at < end; at++) {
            int place = at - from;
            if (hyphens && (place == 8 || place == 13 || place == 18 || place == 23)) {
                if (bytes[at] != '-') {
                    return refuse(Refusal.NOT_A_UUID);
                }
                continue;
            }
            int digit = bytes[at] < 0 ? -1 : DIGIT_VALUES[bytes[at]];
            if (digit < 0) {
                return refuse(Refusal.NOT_A_UUID);
            }
            odd |= bytes[at] >= 'A' && bytes[at] <= 'F';
            if (digits++ < DIGITS / 2) {
                first = first << 4 | digit;
            } else {
                second = second << 4 | digit;
            }
        }
        high = first;
        low = second;
        return goodUnless(odd);
    }
}
