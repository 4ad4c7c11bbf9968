package taxiomet.survey.profile;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import taxiomet.charter.ColumnType;

/** What one table holds, with the samples that keys and links are looked for in. */
public final class TableProfile {
    private static final int ROWS_OF_VALUE = 4;
    private static final long FARTHEST_DAY = 4_000_000;

    public final FoundTable table;
    public final List<ColumnProfile> columns;
    private List<ColumnProfiler> profilers;
    public List<ValueSample> values;
    public List<RowSample> rowSamples;
    public final double[] averageLengths;
    public final long[] leastWhole;
    public final long[] greatestWhole;
    /** Where the whole numbers or the dates of a column lie; null where it holds neither. */
    public final WholeRange[] ranges;

    public final boolean[] isAscending;
    /** Whether a column holds whole numbers alone, of which none is less than the one in the row before. */
    public final boolean[] neverFalls;

    /** Whether whole numbers of a column are all days without hyphens, such as 20240229. */
    public final boolean[] isDay;

    public final long rows;
    public final long malformed;

    /** Whether there are more rows, which were not looked at. */
    public final boolean isSampled;
    /** How many rows the keys that links may point at were taken from: all of them. */
    private long keyRows;
    /** Columns of which all values are known; only those that were to be kept. */
    private final Map<Integer, KnownValues> known = new HashMap<>();
    /** Rows that were chosen evenly, by a column with many different values. */
    private RowSample evenRows;

    TableProfile(TableProfiler profiler, long rows, long malformed, boolean isSampled) {
        this.isSampled = isSampled;
        this.keyRows = rows;
        this.table = profiler.table();
        this.profilers = profiler.columns();
        this.columns = new ArrayList<>(
                profiler.columns().stream().map(ColumnProfiler::profile).toList());
        this.values = profiler.columns().stream().map(ColumnProfiler::values).toList();
        this.rowSamples = profiler.rowSamples();
        this.averageLengths = profiler.columns().stream()
                .mapToDouble(ColumnProfiler::averageLength)
                .toArray();
        this.leastWhole = profiler.columns().stream()
                .mapToLong(column -> column.numbers().leastWhole())
                .toArray();
        this.greatestWhole = profiler.columns().stream()
                .mapToLong(column -> column.numbers().greatestWhole())
                .toArray();
        this.isAscending = new boolean[columns.size()];
        this.neverFalls = new boolean[columns.size()];
        this.isDay = new boolean[columns.size()];
        for (int column = 0; column < columns.size(); column++) {
            isAscending[column] = profiler.columns().get(column).isAscending();
            neverFalls[column] = profiler.columns().get(column).neverFalls();
            isDay[column] = profiler.columns().get(column).holdsDays();
        }
        this.rows = rows;
        this.malformed = malformed;
        this.evenRows = rowSamples.isEmpty() ? new RowSample(0, 0, 1) : rowSamples.get(mostDistinct());
        this.ranges = new WholeRange[columns.size()];
        for (int column = 0; column < columns.size(); column++) {
            if (columns.get(column).guess().type().isInteger()) {
                ranges[column] = range(column);
            } else if (columns.get(column).guess().type().name() == ColumnType.Name.DATE) {
                ranges[column] = rangeOfDays(column);
            }
        }
    }

    private WholeRange range(int column) {
        RowSample sample = evenRows;
        long[] numbers = Arrays.stream(sample.hashesOf(column))
                .map(Classifier::wholeOf)
                .filter(number -> number >= leastWhole[column] && number <= greatestWhole[column])
                .sorted()
                .toArray();
        return WholeRange.of(numbers, sample.isWhole(), leastWhole[column], greatestWhole[column]);
    }

    private WholeRange rangeOfDays(int column) {
        long[] days = Arrays.stream(evenRows.hashesOf(column))
                .map(Classifier::dayOf)
                .filter(day -> Math.abs(day) < FARTHEST_DAY)
                .sorted()
                .toArray();
        return days.length == 0 ? null : WholeRange.of(days, true, days[0], days[days.length - 1]);
    }

    /** Whether there seem to be rows that are equal in all columns: looked for in rows that share a value of the most different ones. */
    public boolean repeatsRows() {
        int[] all = IntStream.range(0, width()).toArray();
        return width() > 0 && evenRows.excess(all, 0) > 0;
    }

    /** Lets go of all samples: what was looked for in them has been found. */
    public void forgetSamples() {
        profilers = List.of();
        values = List.of();
        rowSamples = List.of();
        evenRows = null;
    }

    /**
     * Keeps all values of a column, though samples are let go of: where a first pass has seen them all, and in several rows each, there is
     * nothing left to be read.
     */
    public void keepKnown(int column) {
        ColumnProfile profile = columns.get(column);
        boolean isWorthIt = !isSampled && profile.distinctIsExact() && profile.distinct() * ROWS_OF_VALUE <= rows;
        if (isWorthIt && !known.containsKey(column) && profilers.get(column).isOfOneKind(profile.guess())) {
            values.get(column).known().ifPresent(all -> known.put(column, all));
        }
    }

    /** All values of a column, where they are known. */
    public Optional<KnownValues> known(int column) {
        return Optional.ofNullable(known.get(column));
    }

    /** Rows chosen evenly. */
    public RowSample evenRows() {
        return evenRows;
    }

    /** How many rows the keys that links may point at were taken from: all of them, also of a table that is sampled. */
    public long keyRows() {
        return keyRows;
    }

    /** Takes what all rows say of some columns, where only some rows were looked at before. */
    public void takeWhole(TableProfile whole, int[] some) {
        values = new ArrayList<>(values);
        rowSamples = new ArrayList<>(rowSamples);
        for (int column : some) {
            columns.set(column, whole.columns.get(column));
            values.set(column, whole.values.get(column));
            rowSamples.set(column, whole.rowSamples.get(column));
            averageLengths[column] = whole.averageLengths[column];
            leastWhole[column] = whole.leastWhole[column];
            greatestWhole[column] = whole.greatestWhole[column];
            ranges[column] = whole.ranges[column];
            isDay[column] = whole.isDay[column];
            isAscending[column] = whole.isAscending[column];
            neverFalls[column] = whole.neverFalls[column];
        }
        keyRows = whole.rows;
    }

    /** Takes another type for a column. */
    public void retype(int column, TypeGuess guess) {
        columns.set(column, columns.get(column).withGuess(guess));
        ranges[column] = guess.type().isInteger() ? range(column) : null;
    }

    /** The guess for a column when it is of the type of another, with what is not; empty where hardly a value is. */
    public Optional<TypeGuess> guessAs(int column, TypeGuess another) {
        return profilers.get(column).guessAs(another);
    }

    public int width() {
        return columns.size();
    }

    /** The column with the most different values: rows that are sampled by it are sampled evenly. */
    private int mostDistinct() {
        int most = 0;
        for (int column = 1; column < columns.size(); column++) {
            most = columns.get(column).distinct() > columns.get(most).distinct() ? column : most;
        }
        return most;
    }

    /** The places of columns. */
    public int[] placesOf(List<String> names) {
        List<String> all = columns.stream().map(ColumnProfile::name).toList();
        return names.stream().mapToInt(all::indexOf).toArray();
    }

    public String name() {
        return table.name();
    }
}
