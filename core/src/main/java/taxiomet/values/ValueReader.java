package taxiomet.values;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;

/** Reads one cell as a value of a type. What it read stands in its fields until the next cell: it serves one thread. */
public abstract class ValueReader {
    /** See {@link TypedColumn} for what they hold. */
    long high;

    long low;
    /** Set when {@link #read} gives {@link TypedColumn#BAD}. */
    Refusal refusal;

    /** The reader for a column's type and its declared way of writing. */
    public static ValueReader of(Column column) {
        ColumnType type = column.type();
        if (column.format().isPresent()) {
            return new FormattedReader(type, column.format().get());
        }
        return switch (type.name()) {
            case SMALLINT -> new IntegerReader(Short.MIN_VALUE, Short.MAX_VALUE);
            case INTEGER -> new IntegerReader(Integer.MIN_VALUE, Integer.MAX_VALUE);
            case BIGINT -> new IntegerReader(Long.MIN_VALUE, Long.MAX_VALUE);
            case NUMERIC -> new NumericReader(type, column.decimalComma());
            case REAL -> new FloatReader(true, column.decimalComma());
            case DOUBLE -> new FloatReader(false, column.decimalComma());
            case BOOLEAN -> new BooleanReader();
            case CHAR, VARCHAR, TEXT -> new TextReader(type);
            case DATE, TIME, TIMESTAMP, TIMESTAMP_WITH_TIME_ZONE -> new DateTimeReader(type);
            case UUID -> new UuidReader();
        };
    }

    /** What is wrong with a format for a type, as a clause behind its name; empty when it can be used. */
    public static Optional<String> problemWithFormat(ColumnType type, String format) {
        return FormattedReader.problemWith(type, format);
    }

    /**
     * Reads a cell that is not null.
     *
     * @return {@link TypedColumn#GOOD}, {@link TypedColumn#ODD} or {@link TypedColumn#BAD}
     */
    abstract byte read(byte[] bytes, int start, int length);

    /**
     * Reads all cells of a column into the arrays of another. Readers with a fast way for what is usual override it, and come back to
     * {@link #read} for all else.
     *
     * @param into all states are {@link TypedColumn#GOOD} already
     * @return a bit for each other state that a cell has
     */
    int readAll(CellColumn cells, TypedColumn into) {
        int size = cells.size();
        byte[] bytes = cells.bytes();
        long[] spans = cells.spans(size);
        int seen = 0;
        for (int row = 0; row < size; row++) {
            int length = (int) spans[row];
            if (length < 0) {
                into.states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
            } else {
                seen |= other(into.readOne(this, bytes, row, (int) (spans[row] >>> 32), length));
            }
        }
        return seen;
    }

    /** Whether {@link #readValues} reads values of a kind; what it does not, is read from its text. */
    boolean takes(ValueCells.Kind kind) {
        return false;
    }

    /** Reads all cells as the values that they are; otherwise as {@link #readAll}. */
    final int readValues(ValueCells cells, TypedColumn into) {
        int size = cells.size();
        ValueCells.Kind kind = cells.kind();
        int seen = 0;
        for (int row = 0; row < size; row++) {
            if (cells.isNullValue(row)) {
                into.states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
            } else {
                byte state = readValue(kind, cells.high(row), cells.low(row));
                seen |= other(state);
                into.keep(this, row, state);
            }
        }
        return seen;
    }

    /** Reads one value of a kind that it {@link #takes}; as {@link #read}. */
    byte readValue(ValueCells.Kind kind, long valueHigh, long valueLow) {
        throw new IllegalStateException("no values are taken");
    }

    /** The bit of a state; none for {@link TypedColumn#GOOD}. */
    static int other(byte state) {
        return 1 << state & ~(1 << TypedColumn.GOOD);
    }

    /** Reads a text on its own, such as a literal of the charter: whether it is a value of the type. */
    public final boolean accepts(String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        return read(utf8, 0, utf8.length) != TypedColumn.BAD;
    }

    /** Reads a cell that is not null on its own: whether it is a value of the type. */
    public final boolean accepts(byte[] bytes, int start, int length) {
        return read(bytes, start, length) != TypedColumn.BAD;
    }

    /** The first half of the value last accepted; see {@link TypedColumn}. */
    public final long high() {
        return high;
    }

    /** The second half of the value last accepted; see {@link TypedColumn}. */
    public final long low() {
        return low;
    }

    /** Why the text last read was not accepted. */
    public final Refusal refusal() {
        return refusal;
    }

    /** The value of a numeric cell that is {@link TypedColumn#WIDE}, without zeros at the end of its fraction. */
    public static BigDecimal wideNumber(byte[] bytes, int start, int length) {
        String text = new String(bytes, start, length, StandardCharsets.US_ASCII).strip();
        return new BigDecimal(text.replace(',', '.')).stripTrailingZeros();
    }

    final byte refuse(Refusal why) {
        refusal = why;
        return TypedColumn.BAD;
    }

    static byte goodUnless(boolean odd) {
        return odd ? TypedColumn.ODD : TypedColumn.GOOD;
    }

    static boolean isSpace(byte b) {
        return b == ' ' || (b >= '\t' && b <= '\r');
    }

    static boolean isDigit(byte b) {
        return b >= '0' && b <= '9';
    }

    /** The first place that is not white space; {@code end} when all of it is. */
    static int skipSpaces(byte[] bytes, int from, int end) {
        int at = from;
        while (at < end && isSpace(bytes[at])) {
            at++;
        }
        return at;
    }

    /** The end without the white space before it. */
    static int dropSpaces(byte[] bytes, int from, int end) {
        int to = end;
        while (to > from && isSpace(bytes[to - 1])) {
            to--;
        }
        return to;
    }
}
