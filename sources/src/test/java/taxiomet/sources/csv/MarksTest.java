package taxiomet.sources.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.sources.file.Utf8;
import taxiomet.values.CellColumn;

/** Marks are found eight bytes at a time as they are one by one, and bytes are UTF-8 when Java's decoder says so. */
class MarksTest {
    private static final long SEED = 20_261_125L;
    /** Two blocks, and some bytes before and behind them. */
    private static final int SIZE = 2 * 64 + 11;

    private static int[] oneByOne(byte[] bytes, int from, int to, byte delimiter, byte quote) {
        return IntStream.range(from, to)
                .filter(i -> bytes[i] == delimiter || bytes[i] == quote || (bytes[i] >= 0 && bytes[i] < ' '))
                .toArray();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '/',
            quoteCharacter = '!',
            value = {"44/34", "59/34", "124/39", "9/34", "44/126", "1/34", "44/63", "44/64"})
    void every_byte_in_every_place_of_a_block_is_told_apart(byte delimiter, byte quote) {
        Random random = new Random(SEED);
        for (int value = 0; value < 256; value++) {
            for (int place = 0; place < SIZE; place++) {
                byte[] bytes = new byte[SIZE + CellColumn.PADDING];
                // Neighbours with and without their high bit, and ones that are marks themselves.
                byte[] around = {'a', (byte) 0xFF, delimiter, '0', (byte) 0x80, '\n', quote, '~'};
                // From a block without any mark to one of nothing else.
                int rareness = random.nextInt(6);
                for (int i = 0; i < SIZE; i++) {
                    bytes[i] = around[random.nextInt(8) < rareness ? 0 : random.nextInt(around.length)];
                }
                bytes[place] = (byte) value;
                Marks marks = new Marks(delimiter, quote);
                int from = random.nextInt(4);
                int to = SIZE - random.nextInt(4);
                marks.find(bytes, from, to);
                assertThat(Arrays.copyOf(marks.places(), marks.count()))
                        .as("byte %d at %d", value, place)
                        .isEqualTo(oneByOne(bytes, from, to, delimiter, quote));
                boolean hasHigh = IntStream.range(from, to).anyMatch(i -> bytes[i] < 0);
                assertThat(marks.hasHighBytes()).isEqualTo(hasHigh);
            }
        }
    }

    @Test
    void bytes_are_utf8_when_javas_decoder_says_so() {
        Random random = new Random(SEED);
        byte[] bytes = new byte[4 + CellColumn.PADDING];
        int[] interesting = {
            0, 0x41, 0x7F, 0x80, 0x8F, 0x90, 0x9F, 0xA0, 0xBF, 0xC0, 0xC1, 0xC2, 0xDF, 0xE0, 0xE1, 0xED, 0xEF, 0xF0,
            0xF1, 0xF4, 0xF5, 0xFF
        };
        for (int a : interesting) {
            for (int b : interesting) {
                for (int c : interesting) {
                    for (int d : interesting) {
                        bytes[0] = (byte) a;
                        bytes[1] = (byte) b;
                        bytes[2] = (byte) c;
                        bytes[3] = (byte) d;
                        int length = 1 + random.nextInt(4);
                        assertThat(Utf8.isValid(bytes, 0, length))
                                .as("%x %x %x %x, %d bytes", a, b, c, d, length)
                                .isEqualTo(isDecoded(bytes, length));
                    }
                }
            }
        }
    }

    private static boolean isDecoded(byte[] bytes, int length) {
        try {
            StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, 0, length));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }
}
