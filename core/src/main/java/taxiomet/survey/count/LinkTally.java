package taxiomet.survey.count;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.stream.IntStream;
import taxiomet.charter.Column;
import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.keys.KeyCounts;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.survey.profile.KnownValues;
import taxiomet.work.Secret;

/** Counts over a candidate link: rows with and without a parent, the children of each parent, and some of the values that no parent has. */
public final class LinkTally implements RowCheck {
    /** So many different values without a parent are kept, with their counts: those that come first. */
    private static final int MOST_MISSING = 1_000;

    private static final int NOT_ASKED = -2;

    private final KeyEncoder encoder;
    private final KeyCounts parents;
    /** Its number among the links to these parents; negative before it has one. */
    private int link = NOT_ASKED;

    /** Where all values are known, the children of each parent that has some; null otherwise. */
    private Map<Integer, Long> known;

    /** From each of these values to its place in {@link #values}. */
    private final KeyTable missing = new KeyTable(null);

    private final List<List<String>> values = new ArrayList<>();
    private final long[] valueRows = new long[MOST_MISSING];
    private long rows;
    private long nulls;
    private long halfNulls;
    private long illTyped;
    private long orphans;

    /**
     * @param encoder of the child's columns, in the forms of the parent's
     * @param parents all of them
     */
    LinkTally(KeyEncoder encoder, KeyCounts parents) {
        this.encoder = encoder;
        this.parents = parents;
    }

    @Override
    public int[] columns() {
        return encoder.columns();
    }

    @Override
    public BatchCheck onThread() {
        return new Finder(encoder.copy());
    }

    /**
     * Counts all rows of a single column at once, where its values are known.
     *
     * @param column what it is declared as
     * @param nullRows how many rows have none
     */
    void count(KnownValues all, long nullRows, Column column, Secret secret) {
        Finder finder = new Finder(new KeyEncoder(new int[] {0}, encoder.forms(), secret));
        finder.look(TypedBatch.of(column, all.texts(), secret));
        known = new HashMap<>();
        finder.settle(all.rows());
        rows += nullRows;
        nulls += nullRows;
    }

    private final class Finder implements BatchCheck {
        private final KeyEncoder keys;
        private TypedBatch batch;
        private int[] slots = new int[0];
        private boolean areAll;

        Finder(KeyEncoder keys) {
            this.keys = keys;
        }

        @Override
        public void look(TypedBatch toRead) {
            batch = toRead;
            int size = batch.size();
            keys.start(batch);
            keys.encodeAll(size);
            if (slots.length < size) {
                slots = new int[size];
            }
            areAll = keys.areAllComplete();
            parents.find(keys.highs(), keys.lows(), size, slots);
        }

        @Override
        public void settle() {
            settle(null);
        }

        /** @param rowsOfEach for how many rows of the table each row of the batch stands; null when each stands for itself */
        void settle(int[] rowsOfEach) {
            int size = batch.size();
            if (rowsOfEach == null && !start()) {
                return;
            }
            int[] children = rowsOfEach == null ? parents.children(link) : null;
            for (int row = 0; row < size; row++) {
                int times = rowsOfEach == null ? 1 : rowsOfEach[row];
                rows += times;
                if (!areAll && !isComplete(row, times)) {
                    continue;
                }
                int slot = slots[row];
                if (slot >= 0 && children != null) {
                    children[slot]++;
                } else if (slot >= 0) {
                    known.merge(slot, (long) times, Long::sum);
                } else {
                    miss(row, keys.highs()[row], keys.lows()[row], times);
                }
            }
        }

        private boolean isComplete(int row, int times) {
            keys.look(row);
            if (keys.nulls() > 0) {
                nulls += keys.isAllNull() ? times : 0;
                halfNulls += keys.isAllNull() ? 0 : times;
                return false;
            }
            if (keys.illTyped() > 0) {
                illTyped += times;
                keys.encodeAsWritten(row);
                miss(row, keys.high(), keys.low(), times);
                return false;
            }
            return true;
        }

        private void miss(int row, long high, long low, int times) {
            orphans += times;
            int slot = missing.slotOf(high, low);
            if (missing.isUsed(slot)) {
                valueRows[(int) missing.value(slot)] += times;
            } else if (values.size() < MOST_MISSING) {
                missing.ensureRoom();
                missing.insert(missing.slotOf(high, low), high, low, values.size());
                valueRows[values.size()] = times;
                values.add(textsOf(row));
            }
        }

        private List<String> textsOf(int row) {
            List<String> texts = new ArrayList<>();
            for (int column : keys.columns()) {
                texts.add(batch.column(column).cells().text(row));
            }
            return texts;
        }
    }

    /** Takes room when the first rows have been looked at: all parents are there then. */
    private boolean start() {
        if (link == NOT_ASKED) {
            link = parents.addLink();
        }
        return link >= 0;
    }

    /** Whether there was room for the children, and is for all parents. */
    boolean hasRoom() {
        return !parents.isFull() && (known != null || start());
    }

    /** How many parents there are for each number of children; those without a key are not among them. */
    SortedMap<Long, Long> parentsByChildren() {
        return known == null ? parents.rowsByChildren(link) : parents.rowsByChildren(known);
    }

    /** The child's rows, once all were seen. */
    CountedLink.Rows rows() {
        return new CountedLink.Rows(rows, nulls, halfNulls, illTyped, orphans);
    }

    /** Some of the values that no parent has, the commonest first. */
    List<MissingValue> commonestMissing(int most) {
        return IntStream.range(0, values.size())
                .boxed()
                .sorted(Comparator.comparingLong((Integer place) -> -valueRows[place])
                        .thenComparing(place -> String.join("\u0000", values.get(place))))
                .limit(most)
                .map(place -> new MissingValue(values.get(place), valueRows[place], Optional.empty()))
                .toList();
    }
}
