package taxiomet.survey.profile;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;

/** Counts what one column holds; all in one file, since every count is added to for every cell in one pass. */
@SuppressWarnings(
        "EnumOrdinal") // one count for each class, added to for every cell: an array takes a third of a map's time
public final class ColumnProfiler {
    private static final long MOST_USUAL_SCALE = 8;
    private static final int COMMONEST = 5;
    private static final long ONE_IN = 50;

    private final String name;
    private final Classifier classifier;
    private final ValueSample values;
    private final long[] counts = new long[ValueClass.values().length];
    private final ClassExamples examples = new ClassExamples();
    private final Ascent ascent = new Ascent();
    private final Extremes byText = new Extremes();
    private final TextMeasures texts = new TextMeasures();
    private final NumberMeasures numbers = new NumberMeasures();

    private ValueClass usual = ValueClass.TEXT;
    /** How many digits decimals have behind the point mostly. */
    private int usualScale;

    /** Reads cells of the usual class all at once; null where that is not done. */
    private TypedColumn usualColumn;

    /** Rows of a batch whose cells are of the usual class, and written as usual. */
    private int[] plainRows = new int[0];

    /** Texts that came before; null where these are no help. */
    private Spellings spellings = new Spellings();

    /** The number of the run of rows at hand. */
    private long run;

    private long valueCount;
    private long nulls;
    private long emptyTexts;
    /** Words for true and false as a database would write them. */
    private long plainTruths;

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
     * @param hashes gets the hash of each cell's value, 0 for null
     */
    void addAll(CellColumn cells, int size, long number, long[] hashes) {
        run = number;
        ascent.start();
        long before = counts[usual.ordinal()];
        boolean isRead = usualColumn != null;
        if (isRead) {
            addMostlyUsual(cells, size, hashes);
        } else {
            for (int row = 0; row < size; row++) {
                hashes[row] = add(cells, row);
            }
        }
        endSpellings();
        ascent.end(number);
        if (!isRead || (counts[usual.ordinal()] - before) * 2 < size) {
            chooseUsual();
        }
    }

    private void endSpellings() {
        if (spellings != null) {
            spellings.tellAll(this::measureAgain);
            spellings = spellings.areInVain() ? null : spellings;
        }
    }

    /** What most cells are is read all at once from the next batch on, where that is quicker than finding out for each. */
    private void chooseUsual() {
        ValueClass most = ValueClass.TEXT;
        for (ValueClass each : ValueClass.values()) {
            most = counts[each.ordinal()] > counts[most.ordinal()] ? each : most;
        }
        usual = most;
        usualScale = (int) Math.min(MOST_USUAL_SCALE, numbers.mostScale());
        usualColumn = switch (most) {
            case WHOLE -> new TypedColumn(Column.of(name, ColumnType.of(Name.BIGINT)));
            case DECIMAL ->
                new TypedColumn(Column.of(
                        name, ColumnType.parse("numeric(18," + usualScale + ")").orElseThrow()));
            case DATE -> new TypedColumn(Column.of(name, ColumnType.of(Name.DATE)));
            default -> null;
        };
    }

    private void addMostlyUsual(CellColumn cells, int size, long[] hashes) {
        usualColumn.read(cells);
        if (plainRows.length < size) {
            plainRows = new int[size];
        }
        long[] highs = usualColumn.highs();
        long[] lows = usualColumn.lows();
        int plain = 0;
        for (int row = 0; row < size; row++) {
            if (usualColumn.state(row) == TypedColumn.GOOD && isOfUsualClass(cells, row, lows[row])) {
                plainRows[plain++] = row;
                ascent.add(highs[row]);
            } else {
                hashes[row] = add(cells, row);
            }
        }
        valueCount += plain;
        counts[usual.ordinal()] += plain;
        Classifier.hashAll(usual, highs, lows, plainRows, plain, hashes);
        values.addAll(hashes, plainRows, plain, cells);
        texts.addPlain(cells, plainRows, plain);
        switch (usual) {
            case WHOLE -> numbers.addWholes(highs, plainRows, plain, cells);
            case DECIMAL -> numbers.addDecimals(highs, lows, usualScale, plainRows, plain, cells);
            default -> numbers.addDays(highs, plainRows, plain, cells);
        }
    }

    /** A number without a point is whole, also among others. */
    private boolean isOfUsualClass(CellColumn cells, int row, long scale) {
        if (usual != ValueClass.DECIMAL) {
            return true;
        }
        if (scale == TypedColumn.WIDE) {
            return false;
        }
        byte[] bytes = cells.bytes();
        int start = cells.start(row);
        int length = cells.length(row);
        int point = length - 1 - usualScale;
        if (point > 0 && bytes[start + point] == '.') {
            return true;
        }
        if (scale > 0) {
            numbers.noteDigits(bytes, start, length, '.');
            return true;
        }
        return false;
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
        int slot = spellings == null ? -1 : spellings.slotOf(bytes, start, length);
        if (slot >= 0 && spellings.comesAgain(slot, bytes, start, length)) {
            long hash = spellings.hash(slot);
            values.addAgain(hash);
            // A text that has no order has broken it off already.
            ascent.add(spellings.value(slot));
            return hash;
        }
        emptyTexts += length == 0 ? 1 : 0;
        ValueClass found = classifier.classify(bytes, start, length);
        long hash = Classifier.notZero(classifier.hash());
        values.add(hash, bytes, start, length);
        if (found == ValueClass.TEXT || found == ValueClass.TRUTH || found == ValueClass.UUID) {
            ascent.breakOff();
        } else {
            ascent.add(classifier.high());
        }
        measure(found, bytes, start, length, 1);
        examples.add(found, classifier.hash(), cells, row, run);
        if (slot >= 0) {
            spellings.put(slot, bytes, start, length, hash, classifier.high());
        }
        return hash;
    }

    private void measureAgain(byte[] bytes, int start, int length, int times) {
        measure(classifier.classify(bytes, start, length), bytes, start, length, times);
    }

    /** Takes the measures of what has just been classified. */
    private void measure(ValueClass found, byte[] bytes, int start, int length, int times) {
        valueCount += times;
        counts[found.ordinal()] += times;
        texts.add(bytes, start, length, times);
        long high = classifier.high();
        switch (found) {
            case WHOLE -> numbers.addWhole(high, bytes, start, length, times);
            case DECIMAL -> numbers.addDecimal(high, classifier.low(), '.', bytes, start, length);
            case DECIMAL_COMMA -> numbers.addDecimal(high, classifier.low(), ',', bytes, start, length);
            case TEXT, TRUTH, FLOATING, UUID -> byText.addText(bytes, start, length);
            default -> numbers.addMoment(high, bytes, start, length);
        }
        if (found == ValueClass.TRUTH) {
            plainTruths += bytes[start] == 't' || bytes[start] == 'f' ? times : 0;
        }
    }

    /** Whether every value is greater than the one before it; false for texts. */
    boolean isAscending() {
        return ascent.isAscending();
    }

    /** Whether no whole number is less than the one before, and there is nothing else. */
    boolean neverFalls() {
        return counts[ValueClass.WHOLE.ordinal()] == valueCount && ascent.neverFalls();
    }

    /** Whether there are several values, and all of them are days without hyphens. */
    boolean holdsDays() {
        return numbers.compactDates() == counts[ValueClass.WHOLE.ordinal()]
                && valueCount == numbers.compactDates()
                && valueCount > 1;
    }

    /** Whether values that have one hash are one value also for those who compare them as they are guessed: texts are, if all are. */
    boolean isOfOneKind(TypeGuess guess) {
        return !guess.type().isText() || counts[ValueClass.TEXT.ordinal()] == valueCount;
    }

    ValueSample values() {
        return values;
    }

    double averageLength() {
        return valueCount == 0 ? 0 : (double) texts.characters() / valueCount;
    }

    NumberMeasures numbers() {
        return numbers;
    }

    /** Adds what was counted of another part of the column. */
    void merge(ColumnProfiler other) {
        values.merge(other.values);
        for (int i = 0; i < counts.length; i++) {
            counts[i] += other.counts[i];
        }
        examples.merge(other.examples);
        ascent.merge(other.ascent);
        byText.merge(other.byText);
        texts.merge(other.texts);
        numbers.merge(other.numbers);
        valueCount += other.valueCount;
        nulls += other.nulls;
        emptyTexts += other.emptyTexts;
        plainTruths += other.plainTruths;
    }

    ColumnProfile profile() {
        TypeGuesser guesser = guesser();
        TypeGuess guess = guesser.guess();
        Extremes extremes = guess.type().isText() || numbers.extremes().isEmpty() ? byText : numbers.extremes();
        if (guess.type().isText()) {
            examples.ofOthers(List.of()).forEach(text -> byText.addText(text.getBytes(StandardCharsets.UTF_8)));
            byText.addTextsOf(numbers.extremes());
        }
        List<ColumnProfile.CommonValue> commonest = commonest();
        return new ColumnProfile(
                name,
                valueCount,
                nulls,
                emptyTexts,
                values.distinct(),
                values.isExact(),
                guess,
                valueCount == 0 ? 0 : texts.shortest(),
                texts.longest(),
                extremes.leastWritten(),
                extremes.greatestWritten(),
                commonest.subList(0, Math.min(COMMONEST, commonest.size())),
                new ColumnRemarks(guess, guesser, commonest, holdsDays()).all());
    }

    /** Values that stand more than once; where not all could be counted, those in so many rows that they were seen at once. */
    private List<ColumnProfile.CommonValue> commonest() {
        long least = values.isExact() ? 2 : Math.max(2, valueCount / ONE_IN);
        return values.commonest(ColumnRemarks.ENOUGH).stream()
                .filter(v -> v.rows() >= least)
                .toList();
    }

    private TypeGuesser guesser() {
        return new TypeGuesser(counts, examples, texts, numbers, valueCount, plainTruths);
    }

    /** The guess when the column is of a type that another has, where more than a few of its values are of it. */
    public Optional<TypeGuess> guessAs(TypeGuess another) {
        return guesser().guessAs(another);
    }
}
