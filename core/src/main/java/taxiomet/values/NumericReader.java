package taxiomet.values;

import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import taxiomet.charter.ColumnType;

/**
 * numeric(p,s): sign, digits, point, exponent. The value is normal when it has no zeros at the end of its fraction, so that
 * 1.50 and 1.5 are one pair of longs.
 */
final class NumericReader extends ValueReader {
    /** What a numeric without a declared size holds at most, as PostgreSQL has it. */
    private static final int MAX_WHOLE_DIGITS = 131_072;

    private static final int MAX_FRACTION_DIGITS = 16_383;
    private static final int LONG_DIGITS = 18;
    private static final long EXPONENT_LIMIT = 1_000_000;

    private static final long[] TENS = {1, 10, 100, 1_000, 10_000, 100_000, 1_000_000, 10_000_000, 100_000_000};

    private final int wholeDigits;
    private final int fractionDigits;
    private final boolean isSized;
    private final byte point;
    /** How long a plain number is at most; 0 when there are none. */
    private final int plainLength;

    /** How far before the end of a plain number its point stands, if it has one. */
    private final int pointFromEnd;

    /** What makes a zero of the point in a word that ends where the number ends. */
    private final long pointInWord;

    private final long pointPlace;

    NumericReader(ColumnType type, boolean decimalComma) {
        isSized = type.precision() != ColumnType.UNBOUNDED;
        wholeDigits = isSized ? type.precision() - type.scale() : MAX_WHOLE_DIGITS;
        fractionDigits = isSized ? type.scale() : MAX_FRACTION_DIGITS;
        point = (byte) (decimalComma ? ',' : '.');
        boolean canBePlain = isSized && fractionDigits > 0 && fractionDigits < 7 && wholeDigits > 0;
        plainLength = canBePlain ? Math.min(wholeDigits, 8) + 1 + fractionDigits : 0;
        pointFromEnd = canBePlain ? fractionDigits + 1 : 0;
        pointInWord = canBePlain ? (long) (point ^ '0') << 64 - 8 * pointFromEnd : 0;
        pointPlace = canBePlain ? 0xFFL << 64 - 8 * pointFromEnd : 0;
    }

    /** Whether the bytes are a number with an optional fraction and exponent. */
    static boolean isNumber(byte[] bytes, int from, int end, byte point) {
        int at = from;
        if (at < end && (bytes[at] == '-' || bytes[at] == '+')) {
            at++;
        }
        int digits = 0;
        while (at < end && isDigit(bytes[at])) {
            at++;
            digits++;
        }
        if (at < end && bytes[at] == point) {
            at++;
            while (at < end && isDigit(bytes[at])) {
                at++;
                digits++;
            }
        }
        if (digits == 0) {
            return false;
        }
        if (at < end && (bytes[at] | 0x20) == 'e') {
            at++;
            if (at < end && (bytes[at] == '-' || bytes[at] == '+')) {
                at++;
            }
            int exponent = at;
            while (at < end && isDigit(bytes[at])) {
                at++;
            }
            if (at == exponent) {
                return false;
            }
        }
        return at == end;
    }

    @Override
    int readAll(CellColumn cells, TypedColumn into) {
        int size = cells.size();
        byte[] bytes = cells.bytes();
        long[] spans = cells.spans(size);
        byte[] states = into.states;
        long[] highs = into.highs;
        long[] lows = into.lows;
        boolean keeps = into.keepsValues();
        int seen = 0;
        for (int row = 0; row < size; row++) {
            int length = (int) spans[row];
            if (length < 0) {
                states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
                continue;
            }
            int start = (int) (spans[row] >>> 32);
            if (!keeps && isPlain(bytes, start, length)) {
                continue;
            }
            int digits = bytes[start] == '-' ? length - 1 : length;
            if (digits > 0 && readPlain(bytes, start + length - digits, digits, digits < length, keeps)) {
                if (keeps) {
                    highs[row] = high;
                    lows[row] = low;
                }
                continue;
            }
            seen |= other(into.readOne(this, bytes, row, start, length));
        }
        return seen;
    }

    /**
     * Whether a number is written as usual and surely fits: at most eight digits, without a zero in front of them, then perhaps the
     * point and as many digits as the type has behind it. It is looked at as one word or two that end where the number ends.
     */
    private boolean isPlain(byte[] bytes, int start, int length) {
        if (length < 1 || length > plainLength) {
            return false;
        }
        long first = Words.at(bytes, start);
        if ((byte) first == '0' && length > 1 && (byte) (first >>> 8) != point) {
            return false;
        }
        long last;
        if (length <= 8) {
            last = Words.digits(first, length);
        } else {
            if (!Words.areDigits(Words.digits(first, length - 8))) {
                return false;
            }
            last = Words.digits(Words.at(bytes, start + length - 8), 8);
        }
        long withoutPoint = last ^ pointInWord;
        return length > pointFromEnd && (withoutPoint & pointPlace) == 0 && Words.areDigits(withoutPoint)
                || length <= wholeDigits && Words.areDigits(last);
    }

    /**
     * A number as it is usually written: up to eight digits without a zero in front of them, and after the point as many as the
     * type has, at most eight, or no point at all. Anything else is left to {@link #read}.
     */
    private boolean readPlain(byte[] bytes, int start, int length, boolean negative, boolean keeps) {
        int scale = fractionDigits;
        int wholes = length;
        long fraction = 0;
        if (isSized && scale > 0 && scale <= 8 && length > scale + 1 && bytes[start + length - scale - 1] == point) {
            wholes = length - scale - 1;
            fraction = Words.number(bytes, start + wholes + 1, scale);
        }
        if (wholes > 8 || wholes > wholeDigits + 1 || (wholes > 1 && bytes[start] == '0')) {
            return false;
        }
        long whole = Words.number(bytes, start, wholes);
        if (whole < 0 || fraction < 0 || (wholes > wholeDigits && whole != 0)) {
            return false;
        }
        if (negative && whole == 0 && fraction == 0) {
            return false;
        }
        if (!keeps) {
            return true;
        }
        if (fraction == 0) {
            high = negative ? -whole : whole;
            low = 0;
            return true;
        }
        long all = whole * TENS[scale] + fraction;
        while (all % 10 == 0) {
            all /= 10;
            scale--;
        }
        high = negative ? -all : all;
        low = scale;
        return true;
    }

    @Override
    boolean takes(ValueCells.Kind kind) {
        return kind == ValueCells.Kind.WHOLE || kind == ValueCells.Kind.DECIMAL || kind == ValueCells.Kind.DOUBLE;
    }

    /** A value has no spelling that could be odd. */
    @Override
    byte readValue(ValueCells.Kind kind, long value, long scale) {
        byte state = kind == ValueCells.Kind.DOUBLE
                ? readShortest(Double.longBitsToDouble(value))
                : readDigits(value, scale);
        return state == TypedColumn.ODD ? TypedColumn.GOOD : state;
    }

    private byte readDigits(long digits, long scale) {
        high = digits;
        low = scale;
        while (low > 0 && high % 10 == 0) {
            high /= 10;
            low--;
        }
        int count = 0;
        for (long rest = high; rest != 0; rest /= 10) {
            count++;
        }
        byte state = sized(Math.max(0, count - low), low, false);
        if (low > 0 && count > LONG_DIGITS) {
            // The one form of such a number, however it is read: see Digits.
            low = TypedColumn.WIDE;
        }
        return state;
    }

    /** The shortest number that tells a double from its neighbours. */
    private byte readShortest(double value) {
        byte[] text = Double.toString(value).getBytes(StandardCharsets.US_ASCII);
        return read(text, 0, text.length, (byte) '.');
    }

    @Override
    byte read(byte[] bytes, int start, int length) {
        return read(bytes, start, length, point);
    }

    private byte read(byte[] bytes, int start, int length, byte pointHere) {
        if (length == 0) {
            return refuse(Refusal.EMPTY_TEXT);
        }
        int from = skipSpaces(bytes, start, start + length);
        int end = dropSpaces(bytes, from, start + length);
        boolean odd = end - from != length;
        int at = from;
        boolean negative = at < end && bytes[at] == '-';
        if (at < end && (negative || bytes[at] == '+')) {
            odd |= !negative;
            at++;
        }
        if (end - at > LONG_DIGITS) {
            return readWide(bytes, from, end, odd, pointHere);
        }
        int firstDigit = at;
        long digits = 0;
        while (at < end && isDigit(bytes[at])) {
            digits = digits * 10 + (bytes[at++] - '0');
        }
        int wholes = at - firstDigit;
        int scale = 0;
        if (at < end && bytes[at] == pointHere) {
            at++;
            int firstOfFraction = at;
            while (at < end && isDigit(bytes[at])) {
                digits = digits * 10 + (bytes[at++] - '0');
            }
            scale = at - firstOfFraction;
            odd |= wholes == 0 || scale == 0;
        }
        if (at < end || wholes + scale == 0) {
            return readWide(bytes, from, end, odd, pointHere);
        }
        odd |= wholes > 1 && bytes[firstDigit] == '0';
        odd |= isSized && scale > fractionDigits;
        odd |= negative && digits == 0;
        int leading = 0;
        while (leading < wholes && bytes[firstDigit + leading] == '0') {
            leading++;
        }
        while (scale > 0 && digits % 10 == 0) {
            digits /= 10;
            scale--;
        }
        high = negative ? -digits : digits;
        low = scale;
        return sized(wholes - leading, scale, odd);
    }

    /** More digits than a long surely holds, an exponent, or no number at all. */
    private byte readWide(byte[] bytes, int from, int end, boolean wasOdd, byte pointHere) {
        if (!isNumber(bytes, from, end, pointHere)) {
            return refuse(Refusal.NOT_A_NUMBER);
        }
        Digits number = Digits.of(bytes, from, end, pointHere);
        boolean odd = wasOdd || number.hasExponent;
        int first = bytes[from] == '-' || bytes[from] == '+' ? from + 1 : from;
        odd |= bytes[first] == '0' && first + 1 < end && isDigit(bytes[first + 1]);
        odd |= isSized && number.writtenScale > fractionDigits;
        if (number.significant.isEmpty()) {
            high = 0;
            low = 0;
            return goodUnless(odd || bytes[from] == '-');
        }
        long whole = number.significant.length() + number.exponent;
        byte state = sized(Math.max(whole, 0), Math.max(-number.exponent, 0), odd);
        if (state != TypedColumn.BAD) {
            number.into(this);
        }
        return state;
    }

    private byte sized(long wholes, long scale, boolean odd) {
        if (wholes > wholeDigits) {
            return refuse(isSized ? Refusal.TOO_MANY_DIGITS : Refusal.OUT_OF_RANGE);
        }
        if (scale > fractionDigits) {
            return refuse(isSized ? Refusal.WOULD_BE_ROUNDED : Refusal.OUT_OF_RANGE);
        }
        return goodUnless(odd);
    }

    /** A number as its digits without zeros at either end, and the power of ten of the last of them. */
    private record Digits(boolean negative, String significant, long exponent, boolean hasExponent, int writtenScale) {
        static Digits of(byte[] bytes, int from, int end, byte point) {
            StringBuilder digits = new StringBuilder();
            int at = from;
            boolean negative = bytes[at] == '-';
            long scale = 0;
            boolean afterPoint = false;
            long exponent = 0;
            boolean hasExponent = false;
            for (; at < end; at++) {
                byte b = bytes[at];
                if (isDigit(b)) {
                    digits.append((char) b);
                    scale += afterPoint ? 1 : 0;
                } else if (b == point) {
                    afterPoint = true;
                } else if ((b | 0x20) == 'e') {
                    hasExponent = true;
                    exponent = exponent(bytes, at + 1, end);
                    break;
                }
            }
            int first = 0;
            while (first < digits.length() && digits.charAt(first) == '0') {
                first++;
            }
            int last = digits.length();
            while (last > first && digits.charAt(last - 1) == '0') {
                last--;
            }
            long power = exponent - scale + (digits.length() - last);
            return new Digits(negative, digits.substring(first, last), power, hasExponent, (int) scale);
        }

        /** The exponent; beyond any size that a type holds it is cut, with its sign. */
        private static long exponent(byte[] bytes, int from, int end) {
            int at = from;
            boolean negative = bytes[at] == '-';
            if (negative || bytes[at] == '+') {
                at++;
            }
            long value = 0;
            for (; at < end; at++) {
                value = Math.min(value * 10 + (bytes[at] - '0'), EXPONENT_LIMIT * 1_000);
            }
            return negative ? -value : value;
        }

        /** One form for each value: a long where it fits, otherwise {@link TypedColumn#WIDE}. */
        void into(ValueReader reader) {
            reader.low = TypedColumn.WIDE;
            if (exponent >= 0 && significant.length() + exponent <= LONG_DIGITS + 1) {
                BigInteger whole = new BigInteger(significant).multiply(BigInteger.TEN.pow((int) exponent));
                BigInteger signed = negative ? whole.negate() : whole;
                if (signed.bitLength() <= 63) {
                    reader.high = signed.longValue();
                    reader.low = 0;
                }
            } else if (exponent < 0 && significant.length() <= LONG_DIGITS) {
                long digits = Long.parseLong(significant);
                reader.high = negative ? -digits : digits;
                reader.low = -exponent;
            }
        }
    }
}
