package taxiomet.values;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** real and double precision: the nearest binary value; NaN and Infinity by name. */
final class FloatReader extends ValueReader {
    private static final double[] TENS = {
        1e0, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15
    };

    private final boolean isReal;
    private final byte point;

    FloatReader(boolean isReal, boolean decimalComma) {
        this.isReal = isReal;
        this.point = (byte) (decimalComma ? ',' : '.');
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
            if (!isReal && readPlain(bytes, start, length)) {
                if (keeps) {
                    highs[row] = high;
                    lows[row] = 0;
                }
                continue;
            }
            seen |= other(into.readOne(this, bytes, row, start, length));
        }
        return seen;
    }

    /**
     * Up to 15 digits with at most one point among them: both the digits and the power of ten are exact as doubles, so that their
     * quotient is the nearest double (Clinger, "How to read floating point numbers accurately", 1990).
     */
    private boolean readPlain(byte[] bytes, int start, int length) {
        int at = bytes[start] == '-' ? start + 1 : start;
        int end = start + length;
        if (at >= end || end - at > 16) {
            return false;
        }
        long digits = 0;
        int count = 0;
        int scale = -1;
        for (int i = at; i < end; i++) {
            byte b = bytes[i];
            if (b == point && scale < 0 && i > at && i + 1 < end) {
                scale = end - i - 1;
            } else if (isDigit(b)) {
                digits = digits * 10 + (b - '0');
                count++;
            } else {
                return false;
            }
        }
        if (count > 15) {
            return false;
        }
        double value = (double) digits / TENS[Math.max(scale, 0)];
        high = Double.doubleToLongBits((at > start ? -value : value) + 0.0);
        return true;
    }

    @Override
    boolean takes(ValueCells.Kind kind) {
        return kind == ValueCells.Kind.DOUBLE || kind == ValueCells.Kind.WHOLE || kind == ValueCells.Kind.DECIMAL;
    }

    @Override
    byte readValue(ValueCells.Kind kind, long value, long scale) {
        double number = switch (kind) {
            case DOUBLE -> Double.longBitsToDouble(value);
            case WHOLE -> (double) value;
            default -> BigDecimal.valueOf(value, (int) scale).doubleValue();
        };
        double kept = isReal ? (float) number : number;
        if (Double.isInfinite(kept) && !Double.isInfinite(number)) {
            return refuse(Refusal.OUT_OF_RANGE);
        }
        high = Double.doubleToLongBits(kept + 0.0);
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
        boolean odd = end - from != length || (from < end && bytes[from] == '+');
        String text = new String(bytes, from, end - from, StandardCharsets.ISO_8859_1);
        double value;
        if (NumericReader.isNumber(bytes, from, end, point)) {
            String number = text.replace((char) point, '.');
            value = isReal ? Float.parseFloat(number) : Double.parseDouble(number);
            if (Double.isInfinite(value)) {
                return refuse(Refusal.OUT_OF_RANGE);
            }
        } else {
            switch (text.toLowerCase(Locale.ROOT)) {
                case "nan" -> value = Double.NaN;
                case "infinity", "+infinity", "inf", "+inf" -> value = Double.POSITIVE_INFINITY;
                case "-infinity", "-inf" -> value = Double.NEGATIVE_INFINITY;
                default -> {
                    return refuse(Refusal.NOT_A_NUMBER);
                }
            }
        }
        // Adding zero makes one value of the two zeros.
        high = Double.doubleToLongBits(value + 0.0);
        low = 0;
        return goodUnless(odd);
    }
}
