package taxiomet.browse;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeySet;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.SourceException;
import taxiomet.spill.MemoryBudget;
import taxiomet.total.RowTotals;
import taxiomet.values.TypedColumn;

/**
 * Finds the rows that have one of some keys in some columns: for each key that is named how many they are, which stand first and what
 * their totals come to; and the same for all keys together. Those who go on from such rows are told their keys.
 */
final class KeySeeker implements Seeker {
    private final Table table;
    private final KeyEncoder encoder;
    /** Columns that are null in the rows meant: those of a partial match that are left open. */
    private final int[] open;

    private final RowFilter filter;
    private boolean nullsAreEqual;
    private final KeySet wanted;
    private final int shown;
    private final Optional<RowTotals> totals;
    private final Map<RowKey, Tally> named = new HashMap<>();
    private final Tally all;
    private final List<Onward> onward = new ArrayList<>();

    /** Takes the keys that the rows found have in other columns. */
    private record Onward(KeyEncoder keys, KeySeeker taker) {}

    /**
     * @param encoder of the columns that are looked at
     * @param open columns that have to be null
     * @param filter the rows that count; null for all
     * @param shown how many rows of each key are named
     * @param totals of the table; empty where they are not wanted
     */
    KeySeeker(
            Table table,
            KeyEncoder encoder,
            int[] open,
            RowFilter filter,
            int shown,
            Optional<RowTotals> totals,
            MemoryBudget budget) {
        this.table = table;
        this.encoder = encoder;
        this.open = open;
        this.filter = filter;
        this.shown = shown;
        this.totals = totals;
        this.wanted = new KeySet(encoder.columns().length, budget);
        this.all = newTally(0);
    }

    private Tally newTally(int most) {
        return new Tally(totals.map(RowTotals::texts).orElse(List.of()), most);
    }

    /** A key with a null in it is sought too: nulls are equal to one another. */
    KeySeeker withEqualNulls() {
        nullsAreEqual = true;
        return this;
    }

    /** Looks for a key, and gives what will be known of it. */
    Tally want(RowKey key) {
        wantAlso(key.high(), key.low());
        return named.computeIfAbsent(key, k -> newTally(shown));
    }

    /** Looks for a key of which nothing need be said by itself. */
    void wantAlso(long high, long low) {
        if (wanted.add(high, low) == KeySet.FULL) {
            throw new SourceException(
                    table.name(),
                    "the keys of the rows above do not fit into memory",
                    "give more with --memory, or go down fewer levels");
        }
    }

    /** Has the keys of the rows that will be found looked for by another. */
    void goOnTo(KeyEncoder keys, KeySeeker taker) {
        onward.add(new Onward(keys, taker));
    }

    boolean isWanting() {
        return wanted.size() > 0;
    }

    /** What is known of the rows of all keys together. */
    Tally all() {
        return all;
    }

    @Override
    public int[] columns() {
        return Stream.of(
                        IntStream.of(RowFilter.columnsOf(encoder.columns(), filter)),
                        IntStream.of(open),
                        onward.stream()
                                .flatMapToInt(each -> IntStream.of(each.keys().columns())),
                        totals.stream().flatMapToInt(each -> IntStream.of(each.columns())))
                .flatMapToInt(each -> each)
                .distinct()
                .toArray();
    }

    @Override
    public OnThread onThread() {
        return new Finder();
    }

    private final class Finder implements OnThread {
        private final KeyEncoder keys = encoder.copy();
        private final RowFilter among = RowFilter.copyOf(filter);
        private final Optional<RowTotals.OnThread> sums = totals.map(RowTotals::onThread);
        private final Map<RowKey, Tally> seen = new HashMap<>();
        private final Tally seenInAll = newTally(0);
        private final List<KeyEncoder> onwardKeys =
                onward.stream().map(each -> each.keys().copy()).toList();

        @Override
        public void look(TypedBatch batch) {
            if (!isWanting()) {
                return;
            }
            keys.start(batch);
            keys.encodeAll(batch.size());
            sums.ifPresent(each -> each.start(batch));
            if (among != null) {
                among.start(batch);
            }
            boolean areAllComplete = keys.areAllComplete();
            boolean isStarted = false;
            for (int row = 0; row < batch.size(); row++) {
                if (wanted.contains(keys.highs()[row], keys.lows()[row]) && counts(batch, row, areAllComplete)) {
                    if (!isStarted) {
                        onwardKeys.forEach(each -> each.start(batch));
                        isStarted = true;
                    }
                    found(batch, row);
                }
            }
        }

        private boolean counts(TypedBatch batch, int row, boolean areAllComplete) {
            if (!areAllComplete) {
                keys.look(row);
                if (keys.illTyped() > 0 || (keys.nulls() > 0 && !nullsAreEqual)) {
                    return false;
                }
            }
            for (int column : open) {
                if (batch.column(column).state(row) != TypedColumn.NULL) {
                    return false;
                }
            }
            return among == null || among.holds(row);
        }

        private void found(TypedBatch batch, int row) {
            RowKey key = new RowKey(keys.highs()[row], keys.lows()[row]);
            add(batch.ref(row), row, seenInAll);
            if (named.containsKey(key)) {
                add(batch.ref(row), row, seen.computeIfAbsent(key, k -> newTally(shown)));
            }
            for (int i = 0; i < onwardKeys.size(); i++) {
                KeyEncoder other = onwardKeys.get(i);
                other.look(row);
                if (other.isComplete()) {
                    other.encode(row);
                    KeySeeker taker = onward.get(i).taker();
                    synchronized (taker) {
                        taker.wantAlso(other.high(), other.low());
                    }
                }
            }
        }

        private void add(long ref, int row, Tally tally) {
            if (sums.isPresent()) {
                tally.add(ref, row, sums.get());
            } else {
                tally.add(ref);
            }
        }

        @Override
        public void end() {
            all.addAll(seenInAll);
            seen.forEach((key, tally) -> named.get(key).addAll(tally));
        }
    }
}
