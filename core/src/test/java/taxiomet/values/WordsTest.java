package taxiomet.values;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Words are read as digits exactly when all of their bytes are digits. */
class WordsTest {
    private static byte[] padded(String text) {
        byte[] bytes = new byte[text.length() + CellColumn.PADDING];
        System.arraycopy(text.getBytes(StandardCharsets.ISO_8859_1), 0, bytes, 0, text.length());
        return bytes;
    }

    @Test
    void every_number_of_up_to_five_digits_is_read_whatever_stands_behind_it() {
        for (int number = 0; number < 100_000; number++) {
            String plain = Integer.toString(number);
            String behind = number % 2 == 0 ? "99999999" : ",x\n-\"/:\u00ff";
            assertThat(Words.number(padded(plain + behind), 0, plain.length())).isEqualTo(number);
            String wide = String.format(Locale.ROOT, "%08d", number * 997L);
            assertThat(Words.number(padded(wide + behind), 0, 8)).isEqualTo(number * 997L);
        }
    }

    @Test
    void every_other_byte_in_every_place_is_noticed() {
        for (int length = 1; length <= 8; length++) {
            for (int place = 0; place < length; place++) {
                for (int value = 0; value < 256; value++) {
                    byte[] bytes = padded("12345678".substring(0, length));
                    bytes[place] = (byte) value;
                    boolean isDigit = value >= '0' && value <= '9';
                    assertThat(Words.number(bytes, 0, length) >= 0)
                            .as("byte %d at %d of %d", value, place, length)
                            .isEqualTo(isDigit);
                }
            }
        }
    }

    @Test
    void words_are_read_from_any_place() {
        byte[] bytes = new byte[64];
        new Random(20_261_125L).nextBytes(bytes);
        for (int place = 0; place + 8 <= bytes.length; place++) {
            long expected = 0;
            for (int i = 7; i >= 0; i--) {
                expected = expected << 8 | bytes[place + i] & 0xFF;
            }
            assertThat(Words.at(bytes, place)).isEqualTo(expected);
        }
    }
}
