package taxiomet.survey.profile;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;
import taxiomet.values.CellColumn;
import taxiomet.values.Placeholders;
import taxiomet.values.TypedColumn;

/** Counts what one column holds; all in one file, since every count is added to for every cell in one pass. */
@SuppressWarnings(
        "EnumOrdinal") // one count for each class, added to for every cell: an array takes a third of a map's time
public final class ColumnProfiler {
    private static final double[] TENS = {1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9};
    private static final long MOST_USUAL_SCALE = 8;
    /** What stands for nothing is short. */
    private static final int LONGEST_NOTHING = 30;

    private static final int COMMONEST = 5;
    private static final long ONE_IN = 50;

    private final String name;
    private final Classifier classifier;
    private final ValueSample values;
    private final long[] counts = new long[ValueClass.values().length];
    private final ClassExamples examples = new ClassExamples();
    private final Ascent ascent = new Ascent();
    private final Extremes byValue = new Extremes();
    private final Extremes byText = new Extremes();
    private final TextMeasures measures = new TextMeasures();

    private ValueClass usual = ValueClass.TEXT;
    /** How many digits decimals have behind the point mostly. */
    private int usualScale;

    /** Reads cells of the usual class all at once; null where that is not done. */
    private TypedColumn usualColumn;

    /** The number of the run of rows at hand. */
    private long run;

    private long valueCount;
    private long nulls;
    private long emptyTexts;
    private long leadingZeros;
    private long compactDates;
    private long zerosAndOnes;
    /** Words for true and false as a database would write them. */
    private long plainTruths;

    private long leastWhole = Long.MAX_VALUE;
    private long greatestWhole = Long.MIN_VALUE;
    private long leastMoment = Long.MAX_VALUE;
    private long greatestMoment = Long.MIN_VALUE;
    private long mostScale;
    private long mostWholeDigits;

    /** @param capacity how many different values are kept at most */
    ColumnProfiler(String name, Classifier classifier, int capacity) {
        this.name = name;
        this.values = new ValueSample(capacity);
        this.classifier = classifier;
    }

    /**
     * Counts the cells of a batch.
     *
     * @param number of the run of rows
     * @param hashes gets the hash of each cell's value, 0 for null, every {@code width} longs from {@code place} on
     */
    void addAll(CellColumn cells, int size, long number, long[] hashes, int place, int width) {
        run = number;
        ascent.start();
        long before = counts[usual.ordinal()];
        boolean isRead = usualColumn != null;
        if (isRead) {
            usualColumn.read(cells);
        }
        for (int row = 0; row < size; row++) {
            boolean isUsual = isRead && usualColumn.state(row) == TypedColumn.GOOD && isOfUsualClass(cells, row);
            long hash = isUsual ? addUsual(cells, row, usualColumn.high(row), usualColumn.low(row)) : add(cells, row);
            hashes[row * width + place] = hash;
        }
        ascent.end(number);
        if (!isRead || (counts[usual.ordinal()] - before) * 2 < size) {
            chooseUsual();
        }
    }

    /** What most cells are is read all at once from the next batch on, where that is quicker than finding out for each. */
    private void chooseUsual() {
        ValueClass most = ValueClass.TEXT;
        for (ValueClass each : ValueClass.values()) {
            most = counts[each.ordinal()] > counts[most.ordinal()] ? each : most;
        }
        usual = most;
        usualColumn = switch (most) {
            case WHOLE -> new TypedColumn(Column.of(name, ColumnType.of(Name.BIGINT)));
            case DECIMAL -> new TypedColumn(Column.of(name, usualDecimal()));
            case DATE -> new TypedColumn(Column.of(name, ColumnType.of(Name.DATE)));
            default -> null;
        };
    }

    /** With as many digits behind the point as there were so far, since such are read quickest. */
    private ColumnType usualDecimal() {
        usualScale = (int) mostScale;
        return mostScale > MOST_USUAL_SCALE
                ? ColumnType.of(Name.NUMERIC)
                : ColumnType.parse("numeric(18," + mostScale + ")").orElseThrow();
    }

    /** A number without a point is whole, also among others. */
    private boolean isOfUsualClass(CellColumn cells, int row) {
        if (usual != ValueClass.DECIMAL || (usualColumn.low(row) > 0 && usualColumn.low(row) != TypedColumn.WIDE)) {
            return true;
        }
        byte[] bytes = cells.bytes();
        int point = cells.start(row) + cells.length(row) - 1 - usualScale;
        if (point > cells.start(row) && bytes[point] == '.' && usualColumn.low(row) != TypedColumn.WIDE) {
            return true;
        }
        for (int at = cells.start(row), end = at + cells.length(row); at < end; at++) {
            if (bytes[at] == '.') {
                return usualColumn.low(row) != TypedColumn.WIDE;
            }
        }
        return false;
    }

    /** The same as {@link #add} for a value of the usual class that is written as usual: digits and marks alone, no blanks. */
    private long addUsual(CellColumn cells, int row, long high, long low) {
        byte[] bytes = cells.bytes();
        int start = cells.start(row);
        int length = cells.length(row);
        long hash = count(usual, Classifier.hashOf(usual, high, low), bytes, start, length);
        measures.addLength(length);
        noteValue(usual, high, low, bytes, start, length);
        return hash;
    }

    /** Counts one cell, and gives the hash of its value; 0 for null. */
    private long add(CellColumn cells, int row) {
        if (cells.isNull(row)) {
            nulls++;
            return 0;
        }
        byte[] bytes = cells.bytes();
        int start = cells.start(row);
        int length = cells.length(row);
        if (length == 0) {
            emptyTexts++;
        }
        ValueClass found = classifier.classify(bytes, start, length);
        long hash = count(found, classifier.hash(), bytes, start, length);
        measures.add(bytes, start, length);
        note(found, bytes, start, length, cells, row);
        return hash;
    }

    /** Counts a value by its class and its hash; gives the hash under which it is kept, never 0. */
    private long count(ValueClass found, long valueHash, byte[] bytes, int start, int length) {
        valueCount++;
        counts[found.ordinal()]++;
        long hash = valueHash == 0 ? 1 : valueHash;
        values.add(hash, bytes, start, length);
        return hash;
    }

    private void note(ValueClass found, byte[] bytes, int start, int length, CellColumn cells, int row) {
        noteValue(found, classifier.high(), classifier.low(), bytes, start, length);
        examples.add(found, classifier.hash(), cells, row, run);
    }

    private void noteValue(ValueClass found, long high, long low, byte[] bytes, int start, int length) {
        if (found == ValueClass.TEXT || found == ValueClass.TRUTH || found == ValueClass.UUID) {
            ascent.breakOff();
        } else {
            ascent.add(high);
        }
        switch (found) {
            case WHOLE -> {
                if (high <= leastWhole || high >= greatestWhole) {
                    leastWhole = Math.min(leastWhole, high);
                    greatestWhole = Math.max(greatestWhole, high);
                    byValue.addNumber((double) high, bytes, start, length);
                }
                leadingZeros += length > 1 && bytes[start] == '0' ? 1 : 0;
                zerosAndOnes += high == 0 || high == 1 ? 1 : 0;
                compactDates += length == 8 && high >= 1000_01_01 && high <= 2999_12_31 && isDay(high) ? 1 : 0;
            }
            case DECIMAL, DECIMAL_COMMA -> {
                noteDigits(bytes, start, length, found == ValueClass.DECIMAL ? '.' : ',');
                byValue.addNumber(byPoint(high, low), bytes, start, length);
            }
            case TRUTH -> {
                plainTruths += bytes[start] == 't' || bytes[start] == 'f' ? 1 : 0;
                byText.addText(bytes, start, length);
            }
            case TEXT, FLOATING, UUID -> byText.addText(bytes, start, length);
            default -> {
                if (high <= leastMoment || high >= greatestMoment) {
                    leastMoment = Math.min(leastMoment, high);
                    greatestMoment = Math.max(greatestMoment, high);
                    byValue.addNumber((double) high, bytes, start, length);
                }
            }
        }
    }

    /** A decimal by its digits and scale, near enough to tell the least and the greatest. */
    private static double byPoint(long digits, long scale) {
        return scale >= 0 && scale < TENS.length
                ? digits / TENS[(int) scale]
                : (double) digits * Math.pow(10, (double) -Math.max(scale, -1));
    }

    private static boolean isDay(long compact) {
        long month = compact / 100 % 100;
        long day = compact % 100;
        return month >= 1 && month <= 12 && day >= 1 && day <= 31;
    }

    private void noteDigits(byte[] bytes, int start, int length, char point) {
        int behind = (int) mostScale + 1;
        if (length > behind && length - behind <= mostWholeDigits && bytes[start + length - behind] == point) {
            return;
        }
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

    /** Whether every value is greater than the one before it; false for texts. */
    boolean isAscending() {
        return ascent.isAscending();
    }

    /** Whether there are several values, and all of them are days without hyphens. */
    boolean holdsDays() {
        return compactDates == counts[ValueClass.WHOLE.ordinal()] && valueCount == compactDates && valueCount > 1;
    }

    ValueSample values() {
        return values;
    }

    double averageLength() {
        return valueCount == 0 ? 0 : (double) measures.characters() / valueCount;
    }

    long leastWhole() {
        return leastWhole;
    }

    long greatestWhole() {
        return greatestWhole;
    }

    /** Adds what was counted of another part of the column. */
    void merge(ColumnProfiler other) {
        values.merge(other.values);
        for (int i = 0; i < counts.length; i++) {
            counts[i] += other.counts[i];
        }
        examples.merge(other.examples);
        ascent.merge(other.ascent);
        byValue.merge(other.byValue);
        byText.merge(other.byText);
        measures.merge(other.measures);
        valueCount += other.valueCount;
        nulls += other.nulls;
        emptyTexts += other.emptyTexts;
        leadingZeros += other.leadingZeros;
        compactDates += other.compactDates;
        zerosAndOnes += other.zerosAndOnes;
        plainTruths += other.plainTruths;
        leastWhole = Math.min(leastWhole, other.leastWhole);
        greatestWhole = Math.max(greatestWhole, other.greatestWhole);
        mostScale = Math.max(mostScale, other.mostScale);
        mostWholeDigits = Math.max(mostWholeDigits, other.mostWholeDigits);
    }

    ColumnProfile profile() {
        TypeGuess guess = guesser().guess();
        Extremes extremes = guess.type().isText() || byValue.isEmpty() ? byText : byValue;
        if (guess.type().isText()) {
            examples.ofOthers(List.of()).forEach(text -> byText.addText(text.getBytes(StandardCharsets.UTF_8)));
            byText.addTextsOf(byValue);
        }
        return new ColumnProfile(
                name,
                valueCount,
                nulls,
                emptyTexts,
                values.distinct(),
                values.isExact(),
                guess,
                valueCount == 0 ? 0 : measures.shortest(),
                measures.longest(),
                extremes.leastWritten(),
                extremes.greatestWritten(),
                commonest(COMMONEST),
                remarks(guess));
    }

    /** Values that stand more than once; where not all could be counted, those in so many rows that they were seen at once. */
    private List<ColumnProfile.CommonValue> commonest(int most) {
        long least = values.isExact() ? 2 : Math.max(2, valueCount / ONE_IN);
        return values.commonest(most).stream().filter(v -> v.rows() >= least).toList();
    }

    private List<String> remarks(TypeGuess guess) {
        List<String> remarks = new ArrayList<>();
        if (!guess.reason().isEmpty()) {
            remarks.add(guess.reason());
        }
        if (measures.padded() > 0) {
            remarks.add(measures.padded() + " with blanks at an end");
        }
        TypeGuesser guesser = guesser();
        long formats = LongStream.of(
                        guesser.count(ValueClass.DATE),
                        guesser.count(ValueClass.DATE_DAY_FIRST_POINTS),
                        guesser.count(ValueClass.DATE_DAY_FIRST_SLASHES, ValueClass.DATE_MONTH_FIRST))
                .filter(n -> n > 0)
                .count();
        if (formats > 1) {
            remarks.add("dates in mixed formats");
        }
        if (guess.type().isText()
                && measures.upper() > 0
                && measures.lower() > 0
                && Math.min(measures.upper(), measures.lower()) * 20 <= Math.max(measures.upper(), measures.lower())) {
            remarks.add(Math.min(measures.upper(), measures.lower()) + " in another case");
        }
        if (holdsDays()) {
            remarks.add("could be dates without hyphens");
        }
        List<String> nothings = commonest(128).stream()
                .map(ColumnProfile.CommonValue::value)
                .filter(value -> value.length() <= LONGEST_NOTHING
                        && Placeholders.standsForNothing(value)
                        && isStrange(value, guess))
                .limit(3)
                .toList();
        if (!nothings.isEmpty()) {
            remarks.add("may stand for nothing: " + String.join(", ", nothings));
        }
        return remarks;
    }

    /** 0 and 1 are ordinary among small numbers; a placeholder stands apart from the rest. */
    private boolean isStrange(String value, TypeGuess guess) {
        if (guess.type().family().isNumber() && value.strip().matches("-?[0-9]+")) {
            return (value.strip().equals("0") && leastWhole == 0 && greatestWhole > 1_000)
                    || (value.strip().equals("-1") && leastWhole == -1)
                    || value.strip().matches("9{3,}");
        }
        return true;
    }

    private TypeGuesser guesser() {
        return new TypeGuesser(
                counts,
                examples,
                measures,
                valueCount,
                leastWhole,
                greatestWhole,
                leadingZeros,
                zerosAndOnes,
                plainTruths,
                mostScale,
                mostWholeDigits);
    }

    /** The guess when the column is of a type that another has, where more than a few of its values are of it. */
    public Optional<TypeGuess> guessAs(TypeGuess another) {
        return guesser().guessAs(another);
    }
}
