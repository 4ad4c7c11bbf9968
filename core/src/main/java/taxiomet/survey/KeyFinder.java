package taxiomet.survey;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;

/** Looks on the samples of a table for columns that may identify a row: minimal ones, single first. */
final class KeyFinder {
    private static final int MOST_COLUMNS = 24;
    private static final int MOST_CANDIDATES = 10;
    private static final double LONG_TEXT = 60;
    /** Of the rows of a sample so many may repeat in an almost key. */
    private static final double TOLERATED = 0.003;

    private final TableProfile table;
    private final int widest;
    private final List<int[]> found = new ArrayList<>();

    KeyFinder(TableProfile table, int widest) {
        this.table = table;
        this.widest = widest;
    }

    /** How many rows may repeat in a key that is one but for them. */
    static long tolerated(long rows) {
        return rows < 20 ? 0 : Math.max(Math.min(3, rows / 15), rows / 1000);
    }

    /** Places of columns, ascending. */
    List<int[]> find() {
        if (table.rows < 2) {
            return List.of();
        }
        int[] columns = eligible();
        for (int column : columns) {
            if (mayBeKey(new int[] {column})) {
                found.add(new int[] {column});
            }
        }
        int[] rest = Arrays.stream(columns)
                .filter(c -> found.stream().noneMatch(key -> key[0] == c))
                .filter(c -> table.columns.get(c).distinct() > 1)
                .toArray();
        for (int width = 2; width <= Math.min(widest, rest.length) && found.size() < MOST_CANDIDATES; width++) {
            combine(rest, new int[width], 0, 0);
        }
        return found.subList(0, Math.min(found.size(), MOST_CANDIDATES));
    }

    /** Columns with few nulls and values that can be compared; in a wide table the likeliest of them. */
    private int[] eligible() {
        long tolerated = tolerated(table.rows);
        return IntStream.range(0, table.width())
                .filter(c -> table.columns.get(c).nulls() <= tolerated
                        && table.columns.get(c).values() > 0)
                .filter(c -> table.averageLengths[c] <= LONG_TEXT)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer c) -> -KeyRanking.likeness(table, c)))
                .limit(MOST_COLUMNS)
                .mapToInt(Integer::intValue)
                .sorted()
                .toArray();
    }

    private void combine(int[] columns, int[] chosen, int size, int from) {
        if (size == chosen.length) {
            if (isMinimal(chosen) && mayBeKey(chosen)) {
                found.add(chosen.clone());
            }
            return;
        }
        for (int i = from; i < columns.length && found.size() < MOST_CANDIDATES; i++) {
            chosen[size] = columns[i];
            combine(columns, chosen, size + 1, i + 1);
        }
    }

    private boolean isMinimal(int[] columns) {
        return found.stream()
                .noneMatch(key ->
                        Arrays.stream(key).allMatch(k -> Arrays.stream(columns).anyMatch(c -> c == k)));
    }

    private boolean mayBeKey(int[] columns) {
        double combinations = 1;
        int lead = columns[0];
        for (int column : columns) {
            combinations *= table.columns.get(column).distinct();
            if (table.columns.get(column).distinct() > table.columns.get(lead).distinct()) {
                lead = column;
            }
        }
        long tolerated = tolerated(table.rows);
        if (combinations < (table.rows - 2 * tolerated) * 0.97) {
            return false;
        }
        RowSample sample = table.rowSamples.get(lead);
        int most = sample.isWhole() ? (int) tolerated : Math.max(1, (int) (sample.rows() * TOLERATED));
        return sample.excess(columns, most) <= most;
    }
}
