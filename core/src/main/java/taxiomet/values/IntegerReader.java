package taxiomet.values;

/** smallint, integer and bigint: an optional sign and digits. */
final class IntegerReader extends ValueReader {
    private final long least;
    private final long greatest;

    IntegerReader(long least, long greatest) {
        this.least = least;
        this.greatest = greatest;
    }

    @Override
    int readAll(CellColumn cells, TypedColumn into) {
        int size = cells.size();
        byte[] bytes = cells.bytes();
        long[] spans = cells.spans(size);
        long[] highs = into.highs;
        boolean keeps = into.keepsValues();
        int seen = 0;
        for (int row = 0; row < size; row++) {
            int length = (int) spans[row];
            int start = (int) (spans[row] >>> 32);
            // Digits alone, without a zero in front: 12 is, 012 and +12 are not.
            long value = -1;
            if (length - 1 >>> 3 == 0) {
                long word = Words.at(bytes, start);
                long digits = Words.digits(word, length);
                if (Words.areDigits(digits) && ((byte) word != '0' || length == 1)) {
                    value = Words.join(digits);
                }
            } else if (length > 8 && length <= 16 && bytes[start] != '0') {
                long front = Words.number(bytes, start, length - 8);
                long back = Words.number(bytes, start + length - 8, 8);
                value = (front | back) < 0 ? -1 : front * 100_000_000L + back;
            }
            if (value >= 0 && value <= greatest) {
                if (keeps) {
                    // The second half of a whole number is always 0.
                    highs[row] = value;
                }
                continue;
            }
            if (length < 0) {
                into.states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
            } else {
                seen |= other(into.readOne(this, bytes, row, start, length));
            }
        }
        return seen;
    }

    @Override
    boolean takes(ValueCells.Kind kind) {
        return kind == ValueCells.Kind.WHOLE || kind == ValueCells.Kind.DECIMAL;
    }

    @Override
    byte readValue(ValueCells.Kind kind, long value, long scale) {
        if (scale > 0) {
            return refuse(Refusal.HAS_A_FRACTION);
        }
        high = value;
        low = 0;
        return value < least || value > greatest ? refuse(Refusal.OUT_OF_RANGE) : TypedColumn.GOOD;
    }

    @Override
    byte read(byte[] bytes, int start, int length) {
        if (length == 0) {
            return refuse(Refusal.EMPTY_TEXT);
        }
        int from = skipSpaces(bytes, start, start + length);
        int end = dropSpaces(bytes, from, start + length);
        boolean odd = end - from != length;
        int at = from;
        boolean negative = false;
        if (at < end && (bytes[at] == '-' || bytes[at] == '+')) {
            negative = bytes[at] == '-';
            odd |= !negative;
            at++;
        }
        if (at == end) {
            return refuse(Refusal.NOT_A_WHOLE_NUMBER);
        }
        odd |= bytes[at] == '0' && (end - at > 1 || negative);
        long value = 0;
        boolean fits = true;
        for (; at < end; at++) {
            int digit = bytes[at] - '0';
            if (digit < 0 || digit > 9) {
                return refuse(
                        NumericReader.isNumber(bytes, from, end, (byte) '.')
                                ? Refusal.HAS_A_FRACTION
                                : Refusal.NOT_A_WHOLE_NUMBER);
            }
            // Counted downwards, since the least long has no positive twin.
            if (value < (Long.MIN_VALUE + digit) / 10) {
                fits = false;
            }
            value = value * 10 - digit;
        }
        if (!fits || (!negative && value == Long.MIN_VALUE)) {
            return refuse(Refusal.OUT_OF_RANGE);
        }
        high = negative ? value : -value;
        low = 0;
        return high < least || high > greatest ? refuse(Refusal.OUT_OF_RANGE) : goodUnless(odd);
    }
}
