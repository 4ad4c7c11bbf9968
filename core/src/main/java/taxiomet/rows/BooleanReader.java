package taxiomet.rows;

import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** boolean: true/false, t/f, yes/no, y/n, on/off, 1/0 in any case. */
final class BooleanReader extends ValueReader {
    private static final int LONGEST_WORD = 5;

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
