package taxiomet.rows;

/** smallint, integer and bigint: an optional sign and digits. */
final class IntegerReader extends ValueReader {
    private final long least;
    private final long greatest;

    IntegerReader(long least, long greatest) {
        this.least = least;
        this.greatest = greatest;
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
