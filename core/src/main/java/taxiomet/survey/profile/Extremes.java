package taxiomet.survey.profile;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import taxiomet.values.Words;

/** The least and the greatest of some values, as they were written: of texts in the order of code points, which is that of their bytes. */
public final class Extremes {
    /** Doubles hold all whole numbers up to here. */
    private static final double EXACT = 1L << 53;

    private double least = Double.POSITIVE_INFINITY;
    private double greatest = Double.NEGATIVE_INFINITY;
    /** Which of the whole numbers it is that one double stands for. */
    private long leastWhole;

    private long greatestWhole;
    private byte[] leastText;
    private byte[] greatestText;
    /** Of texts, the first eight bytes as an unsigned number: most others lie between by these alone. */
    private long leastPrefix;

    private long greatestPrefix;

    /**
     * Of equal values the one that is written shortest counts.
     *
     * @param value what the bytes spell, near enough
     * @param whole exactly, where it is a whole number; otherwise 0
     */
    void addNumber(double value, long whole, byte[] bytes, int start, int length) {
        int order = leastText == null ? -1 : compare(value, whole, least, leastWhole);
        if (order < 0 || (order == 0 && length < leastText.length)) {
            least = value;
            leastWhole = whole;
            leastText = Arrays.copyOfRange(bytes, start, start + length);
        }
        order = greatestText == null ? 1 : compare(value, whole, greatest, greatestWhole);
        if (order > 0 || (order == 0 && length < greatestText.length)) {
            greatest = value;
            greatestWhole = whole;
            greatestText = Arrays.copyOfRange(bytes, start, start + length);
        }
    }

    /** Whole numbers that no double holds are told apart by themselves. */
    private static int compare(double value, long whole, double other, long otherWhole) {
        boolean isExact = Math.abs(value) < EXACT || whole == 0 || otherWhole == 0;
        return value != other || isExact ? Double.compare(value, other) : Long.compare(whole, otherWhole);
    }

    /** Whether a number is neither the least nor the greatest of all, nor equal to one of these. */
    boolean isBetween(double value) {
        return value > least && value < greatest;
    }

    /** @param bytes go on for {@link taxiomet.values.CellColumn#PADDING} bytes behind the text */
    void addText(byte[] bytes, int start, int length) {
        long prefix = prefix(bytes, start, length);
        if (leastText == null) {
            leastPrefix = prefix;
            greatestPrefix = prefix;
            leastText = Arrays.copyOfRange(bytes, start, start + length);
            greatestText = leastText;
            return;
        }
        if (Long.compareUnsigned(prefix, leastPrefix) > 0 && Long.compareUnsigned(prefix, greatestPrefix) < 0) {
            return;
        }
        int end = start + length;
        if (Arrays.compareUnsigned(bytes, start, end, leastText, 0, leastText.length) < 0) {
            leastText = Arrays.copyOfRange(bytes, start, end);
            leastPrefix = prefix;
        }
        if (Arrays.compareUnsigned(bytes, start, end, greatestText, 0, greatestText.length) > 0) {
            greatestText = Arrays.copyOfRange(bytes, start, end);
            greatestPrefix = prefix;
        }
    }

    private static long prefix(byte[] bytes, int start, int length) {
        if (length == 0) {
            return 0;
        }
        long word = Long.reverseBytes(Words.at(bytes, start));
        return length >= Long.BYTES ? word : word & -1L << 8 * (Long.BYTES - length);
    }

    /** Adds the extremes of others of the same kind. */
    void merge(Extremes other) {
        if (other.isEmpty()) {
            return;
        }
        if (other.least <= other.greatest) {
            addNumber(other.least, other.leastWhole, other.leastText, 0, other.leastText.length);
            addNumber(other.greatest, other.greatestWhole, other.greatestText, 0, other.greatestText.length);
        } else {
            addText(other.leastText);
            addText(other.greatestText);
        }
    }

    /** Adds the values of another; those of numbers as texts. */
    void addTextsOf(Extremes numbers) {
        if (!numbers.isEmpty()) {
            addText(numbers.leastText);
            addText(numbers.greatestText);
        }
    }

    void addText(byte[] text) {
        addText(Arrays.copyOf(text, text.length + Long.BYTES), 0, text.length);
    }

    boolean isEmpty() {
        return leastText == null;
    }

    Optional<String> leastWritten() {
        return Optional.ofNullable(leastText).map(text -> new String(text, StandardCharsets.UTF_8));
    }

    Optional<String> greatestWritten() {
        return Optional.ofNullable(greatestText).map(text -> new String(text, StandardCharsets.UTF_8));
    }
}
