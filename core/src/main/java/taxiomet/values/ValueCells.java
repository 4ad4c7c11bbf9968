package taxiomet.values;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.UUID;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;

/**
 * Cells as a source has them that knows values: all of one {@link Kind}, nulls apart. Readers of a type that such values may have take them as
 * they are; whoever asks for a text gets all of them printed, once. As soon as a text or a value of another kind is added, all are texts.
 *
 * <p>Shape: of {@link #size} cells, cell {@code i} is two longs, {@code highs[i]} and {@code lows[i]}, as its kind says, and nothing where
 * {@code isNull[i]}.
 */
public final class ValueCells extends CellColumn {
    private static final int LONGEST_PLAIN = 1_000;

    /** What the values are, and what the two longs hold. */
    public enum Kind {
        /** A long. */
        WHOLE(ColumnType.Name.BIGINT),
        /** The digits without a point, and how many stand behind it. */
        DECIMAL(ColumnType.Name.NUMERIC),
        /** The bits of a double. */
        DOUBLE(ColumnType.Name.DOUBLE),
        /** 0 or 1. */
        BOOLEAN(ColumnType.Name.BOOLEAN),
        /** Microseconds from 1970-01-01 to the midnight before the day. */
        DATE(ColumnType.Name.DATE),
        /** Microseconds since midnight. */
        TIME(ColumnType.Name.TIME),
        /** Microseconds since 1970-01-01. */
        TIMESTAMP(ColumnType.Name.TIMESTAMP),
        /** Microseconds since 1970-01-01 in UTC. */
        INSTANT(ColumnType.Name.TIMESTAMP_WITH_TIME_ZONE),
        /** Its two halves. */
        UUID(ColumnType.Name.UUID);

        private final ColumnType.Name type;

        Kind(ColumnType.Name type) {
            this.type = type;
        }
    }

    private static final long MICROS_PER_DAY = DateTimeReader.MICROS_PER_DAY;

    private long[] highs;
    private long[] lows;
    private boolean[] isNull;
    private int count;
    private boolean hasValue;
    private boolean areTexts;
    private Kind kind = Kind.WHOLE;
    private ValueWriter writer;
    private Kind writerOf;

    /** @param rows how many cells to make room for at first */
    public ValueCells(int rows) {
        super(rows);
        highs = new long[rows];
        lows = new long[rows];
        isNull = new boolean[rows];
    }

    @Override
    public void clear() {
        super.clear();
        Arrays.fill(isNull, 0, count, false);
        count = 0;
        hasValue = false;
        areTexts = false;
    }

    @Override
    public boolean areValues() {
        return !areTexts;
    }

    /** What the values are; any kind while all cells are null. */
    public Kind kind() {
        assert areValues();
        return kind;
    }

    /** Whether a cell that comes as a value is null. */
    boolean isNullValue(int row) {
        assert areValues() && row < count;
        return isNull[row];
    }

    /** The first half of a value, as its {@link Kind} has it. */
    long high(int row) {
        assert areValues() && row < count && !isNull[row];
        return highs[row];
    }

    /** The second half of a value; 0 where its kind has none. */
    long low(int row) {
        assert areValues() && row < count && !isNull[row];
        return lows[row];
    }

    /** Adds a whole number. */
    public void add(long number) {
        add(Kind.WHOLE, number, 0);
    }

    /** Adds a floating-point number. */
    public void add(double number) {
        add(Kind.DOUBLE, Double.doubleToRawLongBits(number), 0);
    }

    /** Adds a decimal; one of more digits than a long holds, or without any place behind the ones, as a text. */
    public void add(BigDecimal number) {
        if (number.scale() >= 0 && number.unscaledValue().bitLength() < Long.SIZE) {
            add(Kind.DECIMAL, number.unscaledValue().longValue(), number.scale());
        } else {
            // A milliard of noughts is told by its exponent.
            add(Math.abs((long) number.scale()) > LONGEST_PLAIN ? number.toString() : number.toPlainString());
        }
    }

    /** Adds a boolean. */
    public void add(boolean truth) {
        add(Kind.BOOLEAN, truth ? 1 : 0, 0);
    }

    /** Adds a uuid. */
    public void add(UUID uuid) {
        add(Kind.UUID, uuid.getMostSignificantBits(), uuid.getLeastSignificantBits());
    }

    /** Adds a date. */
    public void addDate(long daysSince1970) {
        add(Kind.DATE, Math.multiplyExact(daysSince1970, MICROS_PER_DAY), 0);
    }

    /**
     * Adds a value of any kind.
     *
     * @param high as the kind has it, and so {@code low}
     */
    public void add(Kind as, long high, long low) {
        if (areTexts || (hasValue && kind != as)) {
            add(printed(as, high, low));
            return;
        }
        ensureRoom(1);
        kind = as;
        hasValue = true;
        highs[count] = high;
        lows[count++] = low;
    }

    /**
     * Adds values of any kind, of which the second half is the same in all.
     *
     * @param values the first halves, from one place on
     */
    public void add(Kind as, long[] values, int from, int howMany, long low) {
        if (areTexts || (hasValue && kind != as)) {
            for (int i = from; i < from + howMany; i++) {
                add(printed(as, values[i], low));
            }
            return;
        }
        ensureRoom(howMany);
        kind = as;
        hasValue = true;
        System.arraycopy(values, from, highs, count, howMany);
        Arrays.fill(lows, count, count + howMany, low);
        count += howMany;
    }

    private void ensureRoom(int more) {
        if (highs.length - count < more) {
            int room = Math.max(count * 2, count + more);
            highs = Arrays.copyOf(highs, room);
            lows = Arrays.copyOf(lows, room);
            isNull = Arrays.copyOf(isNull, room);
        }
    }

    @Override
    public void addNull() {
        if (areTexts) {
            super.addNull();
            return;
        }
        ensureRoom(1);
        isNull[count++] = true;
    }

    @Override
    public void add(String text) {
        print();
        super.add(text);
    }

    @Override
    public void add(byte[] from, int start, int length) {
        print();
        super.add(from, start, length);
    }

    @Override
    public void addAll(byte[] from, long[] places, int first, int howMany) {
        print();
        super.addAll(from, places, first, howMany);
    }

    @Override
    public int size() {
        return areTexts ? super.size() : count;
    }

    @Override
    void print() {
        if (areTexts) {
            return;
        }
        areTexts = true;
        for (int i = 0; i < count; i++) {
            if (isNull[i]) {
                super.addNull();
            } else {
                super.add(printed(kind, highs[i], lows[i]));
            }
        }
    }

    private String printed(Kind as, long high, long low) {
        if (writer == null || writerOf != as) {
            writer = new ValueWriter(Column.of("value", ColumnType.of(as.type)));
            writerOf = as;
        }
        return writer.write(
                switch (as) {
                    case WHOLE, DATE, TIME, TIMESTAMP, INSTANT -> (Object) high;
                    case DECIMAL -> BigDecimal.valueOf(high, (int) low);
                    case DOUBLE -> Double.longBitsToDouble(high);
                    case BOOLEAN -> high == 1;
                    case UUID -> new UUID(high, low);
                });
    }
}
