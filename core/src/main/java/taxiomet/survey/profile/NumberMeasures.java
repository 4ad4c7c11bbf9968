package taxiomet.survey.profile;

import taxiomet.values.CellColumn;

/** Between which values the numbers and moments of a column lie, and what tells the type of its numbers from how they are written. */
public final class NumberMeasures {
    private static final double[] TENS = {1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9};
    private static final long[] WHOLE_TENS = {1, 10, 100, 1_000, 10_000, 100_000, 1_000_000, 10_000_000, 100_000_000};
    private static final long FIRST_DAY = 1000_01_01;
    private static final long LAST_DAY = 2999_12_31;
    private static final int LENGTH_OF_DAY = 8;

    private final Extremes extremes = new Extremes();
    private long leastWhole = Long.MAX_VALUE;
    private long greatestWhole = Long.MIN_VALUE;
    private long leadingZeros;
    private long compactDates;
    private long zerosAndOnes;
    private long mostScale;
    private long mostWholeDigits;
    /** Values of a batch, so that they can be compared, with the least and the greatest; only while it is added. */
    private long[] ordered = new long[0];

    private long least;
    private long greatest;

    /** @param times in how many rows it stands like this */
    void addWhole(long value, byte[] bytes, int start, int length, long times) {
        leastWhole = Math.min(leastWhole, value);
        greatestWhole = Math.max(greatestWhole, value);
        extremes.addNumber((double) value, value, bytes, start, length);
        leadingZeros += length > 1 && bytes[start] == '0' ? times : 0;
        zerosAndOnes += isZeroOrOne(value) ? times : 0;
        compactDates += length == LENGTH_OF_DAY && isDay(value) ? times : 0;
    }

    /**
     * @param digits without the point
     * @param scale how many of them stand behind it
     */
    void addDecimal(long digits, long scale, char point, byte[] bytes, int start, int length) {
        noteDigits(bytes, start, length, point);
        extremes.addNumber(byPoint(digits, scale), 0, bytes, start, length);
    }

    /** @param value days or microseconds */
    void addMoment(long value, byte[] bytes, int start, int length) {
        extremes.addNumber((double) value, 0, bytes, start, length);
    }

    /**
     * Adds whole numbers that are written as usual: digits alone, perhaps behind a minus, without zeros in front.
     *
     * @param values of all rows
     * @param rows places of those to be added
     * @param count how many of them there are
     */
    void addWholes(long[] values, int[] rows, int count, CellColumn cells) {
        for (int i = 0; i < count; i++) {
            long value = values[rows[i]];
            zerosAndOnes += isZeroOrOne(value) ? 1 : 0;
            compactDates += isDay(value) ? 1 : 0;
        }
        addDays(values, rows, count, cells);
        leastWhole = Math.min(leastWhole, least);
        greatestWhole = Math.max(greatestWhole, greatest);
    }

    /** The same for dates. */
    void addDays(long[] values, int[] rows, int count, CellColumn cells) {
        makeRoom(count);
        for (int i = 0; i < count; i++) {
            ordered[i] = values[rows[i]];
        }
        addOrdered(0, rows, count, cells);
    }

    /**
     * The same for decimals.
     *
     * @param scales of each, at most {@code scale}
     * @param scale with so many digits behind the point all are whole numbers
     */
    void addDecimals(long[] digits, long[] scales, int scale, int[] rows, int count, CellColumn cells) {
        makeRoom(count);
        for (int i = 0; i < count; i++) {
            int row = rows[i];
            ordered[i] = digits[row] * WHOLE_TENS[scale - (int) scales[row]];
        }
        addOrdered(scale, rows, count, cells);
        if (count > 0) {
            long widest = Math.max(Math.abs(least), Math.abs(greatest)) / WHOLE_TENS[scale];
            mostWholeDigits = Math.max(
                    mostWholeDigits, widest == 0 ? 0 : Long.toString(widest).length());
        }
    }

    private void makeRoom(int count) {
        if (ordered.length < count) {
            ordered = new long[count];
        }
    }

    /** Finds the least and the greatest value of a batch. */
    private void compare(int count) {
        least = Long.MAX_VALUE;
        greatest = Long.MIN_VALUE;
        for (int i = 0; i < count; i++) {
            least = Math.min(least, ordered[i]);
            greatest = Math.max(greatest, ordered[i]);
        }
    }

    /** Of equal values the one that is written shortest counts, therefore all rows with the least and the greatest are looked at. */
    private void addOrdered(int scale, int[] rows, int count, CellColumn cells) {
        compare(count);
        if (count > 0) {
            addEqual(least, scale, rows, count, cells);
            addEqual(greatest, scale, rows, count, cells);
        }
    }

    private void addEqual(long value, int scale, int[] rows, int count, CellColumn cells) {
        double number = value / TENS[scale];
        if (extremes.isBetween(number)) {
            return;
        }
        int shortest = -1;
        for (int i = 0; i < count; i++) {
            if (ordered[i] == value && (shortest < 0 || cells.length(rows[i]) < cells.length(rows[shortest]))) {
                shortest = i;
            }
        }
        int row = rows[shortest];
        extremes.addNumber(number, scale == 0 ? value : 0, cells.bytes(), cells.start(row), cells.length(row));
    }

    private static boolean isZeroOrOne(long value) {
        return value == 0 || value == 1;
    }

    private static boolean isDay(long compact) {
        if (compact < FIRST_DAY || compact > LAST_DAY) {
            return false;
        }
        long month = compact / 100 % 100;
        long day = compact % 100;
        return month >= 1 && month <= 12 && day >= 1 && day <= 31;
    }

    /** A decimal by its digits and scale, near enough to tell the least and the greatest. */
    private static double byPoint(long digits, long scale) {
        return scale >= 0 && scale < TENS.length
                ? digits / TENS[(int) scale]
                : (double) digits * Math.pow(10, (double) -Math.max(scale, -1));
    }

    /** Takes note of how many digits stand in front of the point and behind it. */
    void noteDigits(byte[] bytes, int start, int length, char point) {
        int wholes = 0;
        int scale = 0;
        boolean afterPoint = false;
        for (int i = start; i < start + length; i++) {
            if (bytes[i] == point) {
                afterPoint = true;
            } else if (bytes[i] >= '0' && bytes[i] <= '9') {
                wholes += afterPoint || (wholes == 0 && bytes[i] == '0') ? 0 : 1;
                scale += afterPoint ? 1 : 0;
            }
        }
        mostScale = Math.max(mostScale, scale);
        mostWholeDigits = Math.max(mostWholeDigits, wholes);
    }

    /** Adds what was measured of another part of the column. */
    void merge(NumberMeasures other) {
        extremes.merge(other.extremes);
        leastWhole = Math.min(leastWhole, other.leastWhole);
        greatestWhole = Math.max(greatestWhole, other.greatestWhole);
        leadingZeros += other.leadingZeros;
        compactDates += other.compactDates;
        zerosAndOnes += other.zerosAndOnes;
        mostScale = Math.max(mostScale, other.mostScale);
        mostWholeDigits = Math.max(mostWholeDigits, other.mostWholeDigits);
    }

    /** The least and the greatest value, as they are written. */
    Extremes extremes() {
        return extremes;
    }

    /** {@link Long#MAX_VALUE} where there is no whole number. */
    long leastWhole() {
        return leastWhole;
    }

    /** {@link Long#MIN_VALUE} where there is no whole number. */
    long greatestWhole() {
        return greatestWhole;
    }

    /** Whole numbers that begin with a zero, though they have more digits. */
    long leadingZeros() {
        return leadingZeros;
    }

    /** Whole numbers that are days without hyphens, such as 20240229. */
    long compactDates() {
        return compactDates;
    }

    long zerosAndOnes() {
        return zerosAndOnes;
    }

    /** Digits behind the point of the decimal that has most. */
    long mostScale() {
        return mostScale;
    }

    /** Digits in front of the point of the decimal that has most, without zeros at their front. */
    long mostWholeDigits() {
        return mostWholeDigits;
    }
}
