package taxiomet.check;

import com.dynatrace.hash4j.hashing.HashValue128;
import com.dynatrace.hash4j.hashing.Hasher128;
import com.dynatrace.hash4j.hashing.Hashing;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Comparison;
import taxiomet.rows.CellColumn;
import taxiomet.rows.TypedColumn;
import taxiomet.rows.ValueReader;

/**
 * Makes a 128-bit key of the cells of some columns. A key of one value that fits into a long is that long, with a high half
 * of zero; any other is a seeded xxh3 fingerprint of 127 bits, with the top bit set. Of a billion keys, two that differ
 * share a fingerprint with a probability of about 3e-21.
 */
final class KeyEncoder {
    private static final long FINGERPRINT_BIT = Long.MIN_VALUE;
    private static final byte NULL_TAG = 0;
    private static final byte LONG_TAG = 1;
    private static final byte PAIR_TAG = 2;
    private static final byte TEXT_TAG = 3;
    private static final byte WIDE_TAG = 4;
    private static final byte RAW_TAG = 5;
    /** Another seed in each run makes it hard to prepare texts that share a fingerprint. */
    private static final Hasher128 HASHER = Hashing.xxh3_128(System.nanoTime() * 0x9E3779B97F4A7C15L);

    private final int[] columns;
    private final KeyForm[] forms;
    private final TypedColumn[] current;
    private byte[] buffer = new byte[64];
    private int used;
    private int nulls;
    private int illTyped;
    private long high;
    private long low;

    /**
     * @param columns places of the columns in their table, in key order
     * @param forms how each of them is compared
     */
    KeyEncoder(int[] columns, List<KeyForm> forms) {
        this.columns = columns.clone();
        this.forms = forms.toArray(new KeyForm[0]);
        this.current = new TypedColumn[columns.length];
    }

    /** How each of the columns is compared. */
    List<KeyForm> forms() {
        return List.of(forms);
    }

    int[] columns() {
        return columns.clone();
    }

    void start(TypedBatch batch) {
        for (int i = 0; i < columns.length; i++) {
            current[i] = batch.column(columns[i]);
        }
    }

    /** For one column that stands outside a batch. */
    void start(TypedColumn column) {
        current[0] = column;
    }

    /** Looks at a row: afterwards {@link #nulls} and {@link #illTyped} are known. */
    void look(int row) {
        nulls = 0;
        illTyped = 0;
        for (TypedColumn column : current) {
            byte state = column.state(row);
            if (state == TypedColumn.NULL) {
                nulls++;
            } else if (state == TypedColumn.BAD) {
                illTyped++;
            }
        }
    }

    /** How many of the row's cells are null. */
    int nulls() {
        return nulls;
    }

    /** How many of the row's cells are not of their type. */
    int illTyped() {
        return illTyped;
    }

    /** The state of one of the key's cells, by its place in the key. */
    byte state(int row, int place) {
        return current[place].state(row);
    }

    boolean isComplete() {
        return nulls == 0 && illTyped == 0;
    }

    boolean isAllNull() {
        return nulls == columns.length;
    }

    /** Makes the key of a row none of whose cells is ill-typed; nulls are equal to one another. */
    void encode(int row) {
        if (columns.length == 1 && encodeAsLong(current[0], forms[0], row)) {
            return;
        }
        used = 0;
        for (int i = 0; i < columns.length; i++) {
            append(current[i], forms[i], row);
        }
        fingerprint();
    }

    /** Makes the key of some of the row's cells, which are neither null nor ill-typed: those whose bit is set. */
    void encodeSubset(int row, int mask) {
        used = 0;
        for (int i = 0; i < columns.length; i++) {
            if ((mask & 1 << i) != 0) {
                append(current[i], forms[i], row);
            }
        }
        fingerprint();
    }

    /** Makes a key of the cells as they were written, for rows that have an ill-typed value. */
    void encodeAsWritten(int row) {
        used = 0;
        for (TypedColumn column : current) {
            CellColumn cells = column.cells();
            if (cells.isNull(row)) {
                reserve(1)[used++] = NULL_TAG;
            } else {
                appendBytes(RAW_TAG, cells.bytes(), cells.start(row), cells.length(row));
            }
        }
        fingerprint();
    }

    long high() {
        return high;
    }

    long low() {
        return low;
    }

    private boolean encodeAsLong(TypedColumn column, KeyForm form, int row) {
        if (column.state(row) == TypedColumn.NULL) {
            return false;
        }
        boolean fits = switch (form.family()) {
            case EXACT_NUMBER -> column.low(row) == 0;
            case TEXT, UUID -> false;
            default -> true;
        };
        if (fits) {
            high = 0;
            low = form.family() == Family.APPROXIMATE_NUMBER ? approximate(column, row) : column.high(row);
        }
        return fits;
    }

    private void append(TypedColumn column, KeyForm form, int row) {
        if (column.state(row) == TypedColumn.NULL) {
            reserve(1)[used++] = NULL_TAG;
            return;
        }
        switch (form.family()) {
            case TEXT -> appendText(column, form.comparison(), row);
            case UUID -> appendPair(column.high(row), column.low(row));
            case APPROXIMATE_NUMBER -> appendLong(approximate(column, row));
            case EXACT_NUMBER -> appendNumber(column, row);
            default -> appendLong(column.high(row));
        }
    }

    private void appendNumber(TypedColumn column, int row) {
        long scale = column.low(row);
        if (scale == 0) {
            appendLong(column.high(row));
        } else if (scale != TypedColumn.WIDE) {
            appendPair(column.high(row), scale);
        } else {
            BigDecimal value = number(column, row);
            byte[] digits = value.unscaledValue().toByteArray();
            appendBytes(WIDE_TAG, digits, 0, digits.length);
            appendLong(value.scale());
        }
    }

    /** The value of an exact number, without zeros at the end of its fraction. */
    static BigDecimal number(TypedColumn column, int row) {
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

    private void appendText(TypedColumn column, Comparison comparison, int row) {
        byte[] bytes = column.cells().bytes();
        int start = column.cells().start(row);
        int length = (int) column.low(row);
        switch (comparison) {
            case EXACT -> appendBytes(TEXT_TAG, bytes, start, length);
            case TRIMMED -> {
                int end = start + length;
                while (start < end && bytes[start] == ' ') {
                    start++;
                }
                while (end > start && bytes[end - 1] == ' ') {
                    end--;
                }
                appendBytes(TEXT_TAG, bytes, start, end - start);
            }
            case IGNORE_CASE -> appendFolded(bytes, start, length);
        }
    }

    private void appendFolded(byte[] bytes, int start, int length) {
        for (int i = start; i < start + length; i++) {
            if (bytes[i] < 0) {
                byte[] folded = fold(new String(bytes, start, length, StandardCharsets.UTF_8))
                        .getBytes(StandardCharsets.UTF_8);
                appendBytes(TEXT_TAG, folded, 0, folded.length);
                return;
            }
        }
        appendBytes(TEXT_TAG, bytes, start, length);
        for (int i = used - length; i < used; i++) {
            if (buffer[i] >= 'A' && buffer[i] <= 'Z') {
                buffer[i] |= 0x20;
            }
        }
    }

    /** Simple case folding, code point by code point: to upper case, then to lower case. */
    static String fold(String text) {
        StringBuilder folded = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); ) {
            int point = text.codePointAt(i);
            folded.appendCodePoint(Character.toLowerCase(Character.toUpperCase(point)));
            i += Character.charCount(point);
        }
        return folded.toString();
    }

    private void appendLong(long value) {
        byte[] target = reserve(1 + Long.BYTES);
        target[used++] = LONG_TAG;
        putLong(target, value);
    }

    private void appendPair(long first, long second) {
        byte[] target = reserve(1 + 2 * Long.BYTES);
        target[used++] = PAIR_TAG;
        putLong(target, first);
        putLong(target, second);
    }

    private void appendBytes(byte tag, byte[] bytes, int start, int length) {
        byte[] target = reserve(1 + Long.BYTES + length);
        target[used++] = tag;
        putLong(target, length);
        System.arraycopy(bytes, start, target, used, length);
        used += length;
    }

    private void putLong(byte[] target, long value) {
        for (int shift = 56; shift >= 0; shift -= 8) {
            target[used++] = (byte) (value >>> shift);
        }
    }

    private byte[] reserve(int count) {
        if (buffer.length - used < count) {
            buffer = Arrays.copyOf(buffer, Math.max(buffer.length * 2, used + count));
        }
        return buffer;
    }

    private void fingerprint() {
        HashValue128 hash = HASHER.hashBytesTo128Bits(buffer, 0, used);
        high = hash.getMostSignificantBits() | FINGERPRINT_BIT;
        low = hash.getLeastSignificantBits();
    }
}
