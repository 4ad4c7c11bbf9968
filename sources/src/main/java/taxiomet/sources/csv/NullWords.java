package taxiomet.sources.csv;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import taxiomet.values.CellColumn;

/** The unquoted words that mean null, besides the empty field. */
final class NullWords {
    private final byte[][] words;
    /** A bit for each sum of length and first byte, modulo 64, that a word has: one test tells most cells from all of them. */
    private final long signs;

    NullWords(List<String> nullWords) {
        words = nullWords.stream()
                .map(word -> word.getBytes(StandardCharsets.UTF_8))
                .toArray(byte[][]::new);
        long all = 0;
        for (byte[] word : words) {
            all |= word.length == 0 ? 0 : 1L << word.length + word[0];
        }
        signs = all;
    }

    /** Whether there are any words. */
    boolean areAny() {
        return words.length > 0;
    }

    /** Whether an unquoted field is a null. */
    boolean isNull(byte[] bytes, int start, int length) {
        if (length == 0) {
            return true;
        }
        for (byte[] word : words) {
            if (word.length == length
                    && word[0] == bytes[start]
                    && Arrays.equals(word, 0, length, bytes, start, start + length)) {
                return true;
            }
        }
        return false;
    }

    /** Makes nulls of the first {@code count} cells that are such words. What begins behind a quote is none. */
    void find(byte[] bytes, long[] cells, int count, byte quote) {
        long all = signs;
        for (int row = 0; row < count; row++) {
            int start = (int) (cells[row] >>> 32);
            int length = (int) cells[row];
            if ((all >>> length + bytes[start] & 1) != 0
                    && length > 0
                    && isNull(bytes, start, length)
                    && (start == 0 || bytes[start - 1] != quote)) {
                cells[row] = CellColumn.span(start, CellColumn.NULL);
            }
        }
    }
}
