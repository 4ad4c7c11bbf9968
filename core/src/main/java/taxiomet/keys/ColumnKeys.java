package taxiomet.keys;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Comparison;
import taxiomet.values.CellColumn;
import taxiomet.values.SqlText;
import taxiomet.values.TypedColumn;
import taxiomet.values.ValueReader;
import taxiomet.work.Secret;

/**
 * The values of one column of a batch as parts of keys, two longs each. A value that fits into a long is that long, with a first half
 * of zero; any other is a {@link Fingerprint}.
 */
public final class ColumnKeys {
    /** What a fingerprint was made of: no two kinds are ever equal. */
    static final int NULL_KIND = 1;

    static final int NUMBER_KIND = 2;
    static final int WIDE_KIND = 3;
    static final int TEXT_KIND = 4;
    static final int UUID_KIND = 5;

    private final KeyForm form;
    private final Fingerprint fingerprint;
    private long[] zeros = new long[0];
    private long[] ownHighs = new long[0];
    private long[] ownLows = new long[0];
    private byte[] folded = new byte[64];
    private long[] highs = zeros;
    private long[] lows = zeros;
    private boolean isMade;
    private boolean isExact;

    ColumnKeys(KeyForm form, Secret secret) {
        this.form = form;
        this.fingerprint = new Fingerprint(secret);
    }

    KeyForm form() {
        return form;
    }

    /** Another batch has been read. */
    void forget() {
        isMade = false;
    }

    /** First halves; of cells that are not of their type they say nothing. */
    public long[] highs() {
        return highs;
    }

    /** Second halves; of cells that are not of their type they say nothing. */
    public long[] lows() {
        return lows;
    }

    /** Whether all first halves are zero. */
    boolean isExact() {
        return isExact;
    }

    /** Makes the keys of the first {@code size} cells, unless they are made. */
    void make(TypedColumn column, int size) {
        if (isMade) {
            return;
        }
        isMade = true;
        isExact = !column.has(TypedColumn.NULL) && areLongs(column);
        if (isExact) {
            if (zeros.length < size) {
                zeros = new long[size];
            }
            highs = zeros;
            lows = column.highs();
            return;
        }
        if (ownHighs.length < size) {
            ownHighs = new long[size];
            ownLows = new long[size];
        }
        highs = ownHighs;
        lows = ownLows;
        for (int row = 0; row < size; row++) {
            byte state = column.state(row);
            if (state == TypedColumn.NULL) {
                fingerprint.ofPair(0, 0, NULL_KIND);
                keepFingerprint(row);
            } else if (state != TypedColumn.BAD) {
                makeOne(column, row);
            }
        }
    }

    /** Whether the column's type has no other values than longs. */
    private boolean areLongs(TypedColumn column) {
        Name type = column.column().type().name();
        return switch (form.family()) {
            case EXACT_NUMBER -> type == Name.SMALLINT || type == Name.INTEGER || type == Name.BIGINT;
            case APPROXIMATE_NUMBER -> column.column().type().family() == Family.APPROXIMATE_NUMBER;
            case TEXT, UUID -> false;
            default -> true;
        };
    }

    private void makeOne(TypedColumn column, int row) {
        switch (form.family()) {
            case TEXT -> {
                makeText(column, row);
                keepFingerprint(row);
            }
            case UUID -> {
                fingerprint.ofPair(column.high(row), column.low(row), UUID_KIND);
                keepFingerprint(row);
            }
            case APPROXIMATE_NUMBER -> keep(row, 0, approximate(column, row));
            case EXACT_NUMBER -> makeNumber(column, row);
            default -> keep(row, 0, column.high(row));
        }
    }

    private void makeNumber(TypedColumn column, int row) {
        long scale = column.low(row);
        if (scale == 0) {
            keep(row, 0, column.high(row));
            return;
        }
        if (scale != TypedColumn.WIDE) {
            fingerprint.ofPair(column.high(row), scale, NUMBER_KIND);
        } else {
            BigDecimal value = number(column, row);
            byte[] digits = value.unscaledValue().toByteArray();
            fingerprint.ofBytes(Arrays.copyOf(digits, digits.length + CellColumn.PADDING), 0, digits.length, WIDE_KIND);
            fingerprint.add(value.scale(), 0);
        }
        keepFingerprint(row);
    }

    private void keep(int row, long high, long low) {
        highs[row] = high;
        lows[row] = low;
    }

    private void keepFingerprint(int row) {
        highs[row] = fingerprint.high();
        lows[row] = fingerprint.low();
    }

    /** The value of an exact number, without zeros at the end of its fraction. */
    public static BigDecimal number(TypedColumn column, int row) {
        long scale = column.low(row);
        return scale == TypedColumn.WIDE
                ? ValueReader.wideNumber(
                        column.cells().bytes(),
                        column.cells().start(row),
                        column.cells().length(row))
                : new BigDecimal(BigInteger.valueOf(column.high(row)), (int) scale);
    }

    private static long approximate(TypedColumn column, int row) {
        return column.column().type().family() == Family.APPROXIMATE_NUMBER
                ? column.high(row)
                : Double.doubleToLongBits(number(column, row).doubleValue() + 0.0);
    }

    private void makeText(TypedColumn column, int row) {
        byte[] bytes = column.cells().bytes();
        int start = column.cells().start(row);
        int end = start + (int) column.low(row);
        if (form.comparison() == Comparison.IGNORE_CASE) {
            makeFolded(bytes, start, end);
            return;
        }
        if (form.comparison() == Comparison.TRIMMED) {
            while (start < end && bytes[start] == ' ') {
                start++;
            }
            while (end > start && bytes[end - 1] == ' ') {
                end--;
            }
        }
        fingerprint.ofBytes(bytes, start, end - start, TEXT_KIND);
    }

    private void makeFolded(byte[] bytes, int start, int end) {
        int length = end - start;
        byte[] source = bytes;
        int from = start;
        for (int i = start; i < end; i++) {
            if (bytes[i] < 0) {
                source = SqlText.fold(new String(bytes, start, length, StandardCharsets.UTF_8))
                        .getBytes(StandardCharsets.UTF_8);
                from = 0;
                length = source.length;
                break;
            }
        }
        if (folded.length < length + CellColumn.PADDING) {
            folded = new byte[length + CellColumn.PADDING];
        }
        for (int i = 0; i < length; i++) {
            byte b = source[from + i];
            folded[i] = b >= 'A' && b <= 'Z' ? (byte) (b | 0x20) : b;
        }
        fingerprint.ofBytes(folded, 0, length, TEXT_KIND);
    }
}
