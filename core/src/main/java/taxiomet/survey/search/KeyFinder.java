package taxiomet.survey.search;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.RowSample;
import taxiomet.survey.profile.TableProfile;

/**
 * Looks on the samples of a table for columns that may identify a row: minimal ones, single first. Columns that identify every row of the
 * sample bar all that contain them; columns that do so but for a few rows are candidates too, and bar nothing, since what they lack may be
 * one column more.
 */
public final class KeyFinder {
    /** Of a wider table only the likeliest columns are combined, and not as many of them. */
    private static final int NARROW = 12;

    private static final int MOST_COLUMNS = 24;
    private static final int MOST_IN_WIDE = 3;
    private static final int MOST_FOUND = 400;
    /** All candidates of a table together may have so many rows counted; a few have all of them, however many there are. */
    private static final long ROWS_COUNTED = 1_500_000;

    private static final int LEAST_COUNTED = 5;
    private static final int LEAST_OF_MORE = 3;
    private static final int LEAST_OF_MANY = 2;
    private static final long MANY_ROWS = 1_000_000;
    private static final int FEW_COLUMNS = 8;
    private static final int WIDER = 2;
    private static final double LIKELY = 0.6;
    /** Of fewer rows none may repeat. */
    private static final long FEWEST = 5;

    private static final double LONG_TEXT = 60;
    /** Of the rows of a sample so many may repeat in an almost key. */
    private static final double TOLERATED = 0.003;

    private final TableProfile table;
    private final int widest;
    private final List<int[]> exact = new ArrayList<>();
    private final List<int[]> almost = new ArrayList<>();

    /** @param widest of how many columns a key may be made */
    public KeyFinder(TableProfile table, int widest) {
        this.table = table;
        this.widest = widest;
    }

    /** How many rows may repeat in a key that is one but for them. */
    public static long tolerated(long rows) {
        return rows < FEWEST ? 0 : Math.max(Math.min(3, 1 + rows / 20), rows / 1000);
    }

    /** Places of columns, ascending: those that are worth counting, the likeliest first. */
    public List<int[]> find() {
        if (table.rows < 2) {
            return List.of();
        }
        int[] columns = eligible();
        int most = Math.min(columns.length, columns.length <= NARROW ? widest : Math.min(widest, MOST_IN_WIDE));
        for (int width = 1; width <= most && exact.size() < MOST_FOUND; width++) {
            combine(columns, new int[width], 0, 0);
        }
        if (columns.length <= FEW_COLUMNS && exact.stream().allMatch(key -> KeyRanking.holdAmount(table, key))) {
            // Nothing but amounts tells rows apart so far: a wider key is likelier.
            for (int width = most + 1; width <= Math.min(columns.length, widest + WIDER); width++) {
                combine(columns, new int[width], 0, 0);
            }
        }
        List<int[]> all = new ArrayList<>(exact);
        almost.stream().filter(this::isWorthwhile).forEach(all::add);
        boolean hasSingle =
                exact.stream().anyMatch(key -> key.length == 1 && KeyRanking.likeness(table, key[0]) >= LIKELY);
        if (table.rows > MANY_ROWS && hasSingle) {
            // Where one column will do, combinations of others are not worth a count of so many rows.
            all.removeIf(key -> key.length > 1);
        } else if (table.rows > MANY_ROWS && !exact.isEmpty()) {
            all.retainAll(exact);
        }
        all = likeliestFirst(all);
        long least =
                table.rows > MANY_ROWS ? LEAST_OF_MANY : table.rows > MANY_ROWS / 4 ? LEAST_OF_MORE : LEAST_COUNTED;
        long counted = Math.max(least, ROWS_COUNTED / table.rows);
        return all.subList(0, (int) Math.min(all.size(), counted));
    }

    @SuppressWarnings("ArrayRecordComponent") // places of columns, as everywhere; never compared
    private record Scored(int[] key, boolean isAlmost, double score) {}

    /** Those that hold in the sample and single columns, then the others; each is scored once. */
    private List<int[]> likeliestFirst(List<int[]> all) {
        return all.stream()
                .map(key -> new Scored(
                        key, key.length > 1 && !exact.contains(key), KeyRanking.score(table, key, new ArrayList<>())))
                .sorted(Comparator.comparing(Scored::isAlmost)
                        .thenComparing(Comparator.comparingDouble(Scored::score).reversed()))
                .map(Scored::key)
                .toList();
    }

    /** An almost key of several columns is one where its parts are none: otherwise it only repeats what they say. */
    private boolean isWorthwhile(int[] key) {
        return key.length == 1 || almost.stream().noneMatch(part -> part.length < key.length && isIn(part, key));
    }

    /** Columns with few nulls and values that can be compared; in a wide table the likeliest of them. */
    private int[] eligible() {
        boolean isNarrow = table.width() <= NARROW;
        long tolerated = tolerated(table.rows);
        return IntStream.range(0, table.width())
                .filter(c -> table.columns.get(c).nulls() <= tolerated
                        && table.columns.get(c).distinct() > 1)
                .filter(c -> isNarrow || table.averageLengths[c] <= LONG_TEXT)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer c) -> -KeyRanking.likeness(table, c)))
                .limit(MOST_COLUMNS)
                .mapToInt(Integer::intValue)
                .sorted()
                .toArray();
    }

    private void combine(int[] columns, int[] chosen, int size, int from) {
        if (size == chosen.length) {
            if (exact.stream().noneMatch(key -> isIn(key, chosen))) {
                judge(chosen.clone());
            }
            return;
        }
        for (int i = from; i < columns.length && exact.size() < MOST_FOUND; i++) {
            chosen[size] = columns[i];
            combine(columns, chosen, size + 1, i + 1);
        }
    }

    private static boolean isIn(int[] part, int[] columns) {
        return Arrays.stream(part).allMatch(k -> Arrays.stream(columns).anyMatch(c -> c == k));
    }

    private void judge(int[] columns) {
        double combinations = 1;
        long nulls = 0;
        int lead = columns[0];
        for (int column : columns) {
            ColumnProfile profile = table.columns.get(column);
            combinations *= profile.distinct();
            nulls += profile.nulls();
            if (profile.distinct() > table.columns.get(lead).distinct()) {
                lead = column;
            }
        }
        long tolerated = tolerated(table.rows);
        if (combinations < (table.rows - 2 * tolerated) * 0.97) {
            return;
        }
        RowSample sample = table.rowSamples.get(lead);
        int most = sample.isWhole() ? (int) tolerated : Math.max(1, (int) (sample.rows() * TOLERATED));
        int excess = sample.excess(columns, most);
        if (excess == 0 && nulls == 0) {
            exact.add(columns);
        } else if (excess <= most && nulls <= tolerated) {
            almost.add(columns);
        }
    }
}
