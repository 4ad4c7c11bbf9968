package taxiomet.expression;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import taxiomet.charter.ColumnType.Family;
import taxiomet.keys.ColumnKeys;
import taxiomet.spill.PackedBytes;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;

/**
 * A record of longs: values of rules' operands among them, to be kept until those of the relatives are known. Equal values have equal
 * longs.
 *
 * <p>A value is a long with its {@link Kind} in the lowest byte and something more above it, and what the kind has behind it.
 */
public final class StoredValues {
    /** What a value is, what stands above it in its first long, and what follows. */
    public enum Kind {
        NULL(0),
        /** Of the wrong type; nothing more is known of it. */
        ILL_TYPED(1),
        /** Above it the scale; then the digits. */
        NUMBER(2),
        /** An exact number of more digits than a long has. Above it the length of the digits in bytes; then the scale, and the bytes. */
        WIDE(3),
        /** Its bits. */
        DOUBLE(4),
        /** Above it 0 or 1. */
        BOOLEAN(5),
        /** Microseconds. */
        MOMENT(6),
        /** Above it the length in bytes of UTF-8; then these bytes. */
        TEXT(7),
        /** Two halves. */
        UUID(8);

        private final int code;

        Kind(int code) {
            this.code = code;
        }
    }

    /** By their codes. */
    private static final Kind[] KINDS = new Kind[Kind.values().length];

    static {
        for (Kind kind : Kind.values()) {
            KINDS[kind.code] = kind;
        }
    }

    private static final int ABOVE = Byte.SIZE;

    private long[] longs = new long[32];
    private int size;
    private int at;

    /** Takes everything out. */
    public void clear() {
        size = 0;
        at = 0;
    }

    /** The longs; {@link #size} of them count. */
    public long[] longs() {
        return longs;
    }

    public int size() {
        return size;
    }

    public void add(long value) {
        if (size == longs.length) {
            longs = Arrays.copyOf(longs, size * 2);
        }
        longs[size++] = value;
    }

    /** Adds longs of another record, from one place to another, exclusive. */
    public void addAll(long[] some, int from, int to) {
        if (longs.length - size < to - from) {
            longs = Arrays.copyOf(longs, Math.max(size * 2, size + to - from));
        }
        System.arraycopy(some, from, longs, size, to - from);
        size += to - from;
    }

    private void add(Kind kind, long above) {
        add(kind.code | above << ABOVE);
    }

    public void addNull() {
        add(Kind.NULL, 0);
    }

    public void addIllTyped() {
        add(Kind.ILL_TYPED, 0);
    }

    /** Adds an exact number. */
    public void addNumber(long digits, int scale) {
        add(Kind.NUMBER, scale);
        add(digits);
    }

    /** Adds an exact number. */
    public void addNumber(BigDecimal number) {
        if (number.scale() >= 0 && number.unscaledValue().bitLength() < Long.SIZE) {
            addNumber(number.unscaledValue().longValue(), number.scale());
            return;
        }
        byte[] digits = number.unscaledValue().toByteArray();
        add(Kind.WIDE, digits.length);
        add(number.scale());
        PackedBytes.write(digits, 0, digits.length, this::add);
    }

    public void addDouble(double number) {
        add(Kind.DOUBLE, 0);
        add(Double.doubleToRawLongBits(number));
    }

    /** Adds the value of a cell of a batch. */
    public void addCell(TypedColumn column, int row) {
        if (column.state(row) == TypedColumn.NULL) {
            addNull();
        } else if (column.state(row) == TypedColumn.BAD) {
            addIllTyped();
        } else {
            addValue(column, row, column.column().type().family());
        }
    }

    private void addValue(TypedColumn column, int row, Family family) {
        long high = column.high(row);
        long low = column.low(row);
        switch (family) {
            case EXACT_NUMBER -> {
                if (low == TypedColumn.WIDE) {
                    addNumber(ColumnKeys.number(column, row));
                } else {
                    addNumber(high, (int) low);
                }
            }
            case APPROXIMATE_NUMBER -> addDouble(Double.longBitsToDouble(high));
            case BOOLEAN -> add(Kind.BOOLEAN, high);
            case MOMENT, INSTANT, TIME -> {
                add(Kind.MOMENT, 0);
                add(high);
            }
            case TEXT -> {
                CellColumn cells = column.cells();
                add(Kind.TEXT, low);
                PackedBytes.write(cells.bytes(), cells.start(row), (int) low, this::add);
            }
            case UUID -> {
                add(Kind.UUID, 0);
                add(high);
                add(low);
            }
        }
    }

    /** Takes longs of another record in place of its own, and stands before a place to read values from. */
    public void read(long[] from, int length, int start) {
        longs = from;
        size = length;
        at = start;
    }

    public boolean hasNext() {
        return at < size;
    }

    /** Where the next value begins. */
    public int place() {
        return at;
    }

    /** Goes to the beginning of a value. */
    public void goTo(int place) {
        at = place;
    }

    /** What the next value is. */
    public Kind kind() {
        return KINDS[(byte) longs[at]];
    }

    private int above() {
        return (int) (longs[at] >> ABOVE);
    }

    /** The scale of the next value, which is a {@link Kind#NUMBER}. */
    public int scale() {
        return above();
    }

    /** The long behind the first of the next value: the digits of a {@link Kind#NUMBER}, the bits of a {@link Kind#DOUBLE}. */
    public long second() {
        return longs[at + 1];
    }

    /** Whether one of the values from the next on is of the wrong type; it stands before the next again. */
    public boolean hasIllTyped() {
        int before = at;
        boolean isFound = false;
        while (at < size && !isFound) {
            isFound = kind() == Kind.ILL_TYPED;
            skip();
        }
        at = before;
        return isFound;
    }

    /** Passes over the next value. */
    public void skip() {
        at += switch (kind()) {
            case NULL, ILL_TYPED, BOOLEAN -> 1;
            case NUMBER, DOUBLE, MOMENT -> 2;
            case UUID -> 3;
            case TEXT -> 1 + longsFor(above());
            case WIDE -> 2 + longsFor(above());
        };
    }

    private static int longsFor(int bytes) {
        return (bytes + Long.BYTES - 1) / Long.BYTES;
    }

    /** Puts the next value, which is of its type, behind those of a column that is being filled. */
    public void nextInto(TypedColumn column) {
        switch (kind()) {
            case NULL -> column.addNull();
            case NUMBER -> column.add(second(), scale());
            case DOUBLE, MOMENT -> column.add(second(), 0);
            case BOOLEAN -> column.add(above(), 0);
            case UUID -> column.add(longs[at + 1], longs[at + 2]);
            case WIDE -> column.addWide(wide());
            case TEXT -> {
                int place = at + 1;
                column.addText(above(), (bytes, start) -> unpack(place, bytes, start));
            }
            case ILL_TYPED -> throw new IllegalStateException("no value of the type");
        }
        skip();
    }

    private void unpack(int place, byte[] bytes, int start) {
        int before = at;
        int length = above();
        at = place;
        PackedBytes.read(() -> longs[at++], bytes, start, length);
        at = before;
    }

    /** The next value, which is {@link Kind#WIDE}; it is not passed over. */
    public BigDecimal wide() {
        int before = at;
        int length = above();
        int scale = (int) longs[at + 1];
        at += 2;
        byte[] digits = PackedBytes.read(() -> longs[at++], length);
        at = before;
        return new BigDecimal(new BigInteger(digits), scale);
    }

    /** The next value as {@link taxiomet.expression.Evaluator} has it; it is not passed over, and neither null nor of the wrong type. */
    public Object value() {
        return switch (kind()) {
            case NUMBER -> BigDecimal.valueOf(second(), scale());
            case WIDE -> wide();
            case DOUBLE -> Double.longBitsToDouble(second());
            case BOOLEAN -> above() == 1;
            case MOMENT -> second();
            case TEXT -> {
                byte[] bytes = new byte[above()];
                unpack(at + 1, bytes, 0);
                yield new String(bytes, StandardCharsets.UTF_8);
            }
            case UUID -> new java.util.UUID(longs[at + 1], longs[at + 2]).toString();
            case NULL, ILL_TYPED -> throw new IllegalStateException("no value");
        };
    }
}
