package taxiomet.rows;

import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** real and double precision: the nearest binary value; NaN and Infinity by name. */
final class FloatReader extends ValueReader {
    private final boolean isReal;
    private final byte point;

    FloatReader(boolean isReal, boolean decimalComma) {
        this.isReal = isReal;
        this.point = (byte) (decimalComma ? ',' : '.');
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
