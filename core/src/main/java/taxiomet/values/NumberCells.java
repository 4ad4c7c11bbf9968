package taxiomet.values;

import java.util.Arrays;

/**
 * Cells as a source has them that knows numbers: whole ones as longs, others as doubles, nulls apart. Readers of numbers take them as
 * they are; whoever asks for a text gets all of them printed, once. As soon as a text is added among them, all are texts.
 *
 * <p>Shape: of {@link #size} cells, {@code values[i]} is a long or the bits of a double, and nothing where {@code isNull[i]}.
 */
public final class NumberCells extends CellColumn {
    private long[] values;
    private boolean[] isNull;
    private int count;
    private boolean areDoubles;
    private boolean areTexts;

    /** @param rows how many cells to make room for at first */
    public NumberCells(int rows) {
        super(rows);
        values = new long[rows];
        isNull = new boolean[rows];
    }

    @Override
    public void clear() {
        super.clear();
        Arrays.fill(isNull, 0, count, false);
        count = 0;
        areDoubles = false;
        areTexts = false;
    }

    @Override
    public boolean areNumbers() {
        return !areTexts;
    }

    /** Whether {@link #value} gives the bits of doubles; of longs otherwise, also where all are null. */
    public boolean areDoubles() {
        return areDoubles;
    }

    /** Whether a number is null. */
    public boolean isNullNumber(int row) {
        assert areNumbers() && row < count;
        return isNull[row];
    }

    /** A long, or the bits of a double. */
    public long value(int row) {
        assert areNumbers() && row < count && !isNull[row];
        return values[row];
    }

    /** Adds a whole number; among doubles or texts its text. */
    public void add(long number) {
        if (areTexts || (areDoubles && count > 0)) {
            add(Long.toString(number));
            return;
        }
        put(number);
    }

    /** Adds a floating-point number; among whole numbers or texts its text. */
    public void add(double number) {
        if (areTexts || (!areDoubles && hasNumber())) {
            add(Double.toString(number));
            return;
        }
        areDoubles = true;
        put(Double.doubleToRawLongBits(number));
    }

    private boolean hasNumber() {
        for (int i = 0; i < count; i++) {
            if (!isNull[i]) {
                return true;
            }
        }
        return false;
    }

    private void put(long value) {
        ensureRoom();
        values[count++] = value;
    }

    private void ensureRoom() {
        if (count == values.length) {
            values = Arrays.copyOf(values, count * 2 + 1);
            isNull = Arrays.copyOf(isNull, count * 2 + 1);
        }
    }

    @Override
    public void addNull() {
        if (areTexts) {
            super.addNull();
            return;
        }
        ensureRoom();
        isNull[count++] = true;
    }

    @Override
    public void add(String text) {
        print();
        super.add(text);
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
            } else if (areDoubles) {
                super.add(Double.toString(Double.longBitsToDouble(values[i])));
            } else {
                super.add(Long.toString(values[i]));
            }
        }
    }
}
