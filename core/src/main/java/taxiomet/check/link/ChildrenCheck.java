package taxiomet.check.link;

import java.util.TreeMap;
import taxiomet.charter.IntRange;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.RowFilter;
import taxiomet.finding.ChildrenTally;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.LongSpool;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/**
 * How many children each parent row has over one link. A child counts for every parent row that equals it in all columns
 * of the link; a parent whose key holds a null or an ill-typed value has no children.
 */
public final class ChildrenCheck implements Conclusion {
    private final IntRange range;
    private final FaultLog tooFew;
    private final FaultLog tooMany;
    private final Partitions parents;
    private final Partitions children;
    private final TreeMap<Long, Long> parentsByCount = new TreeMap<>();

    /** @param range how many children a parent may have */
    public ChildrenCheck(SpillFolder spill, IntRange range, FaultLog tooFew, FaultLog tooMany) {
        this.range = range;
        this.tooFew = tooFew;
        this.tooMany = tooMany;
        this.parents = new Partitions(spill);
        this.children = new Partitions(spill);
    }

    /** The part of the check that sees the parent's rows. */
    public RowCheck parentSide(KeyEncoder encoder) {
        return new Side(encoder, parents, true, null);
    }

    /**
     * The part of the check that sees the child's rows.
     *
     * @param filter the rows that the link is declared for; null for all
     */
    public RowCheck childSide(KeyEncoder encoder, RowFilter filter) {
        return new Side(encoder, children, false, filter);
    }

    private final class Side extends OrderedCheck {
        private final KeyEncoder encoder;
        private final Partitions keys;
        private final boolean isParent;
        private final RowFilter filter;

        Side(KeyEncoder encoder, Partitions keys, boolean isParent, RowFilter filter) {
            this.filter = filter;
            this.encoder = encoder;
            this.keys = keys;
            this.isParent = isParent;
        }

        @Override
        public void exchange(StateExchange state) {
            state.partitions(keys, 3, 2);
            if (isParent) {
                state.tally(parentsByCount);
            }
        }

        @Override
        public int[] columns() {
            return RowFilter.columnsOf(encoder.columns(), filter);
        }

        @Override
        public void check(TypedBatch batch) {
            encoder.start(batch);
            if (filter != null) {
                filter.start(batch);
            }
            for (int row = 0; row < batch.size(); row++) {
                if (filter != null && !filter.holds(row)) {
                    continue;
                }
                encoder.look(row);
                if (encoder.isComplete()) {
                    encoder.encode(row);
                    int partition = Partitions.of(KeyTable.hash(encoder.high(), encoder.low()));
                    keys.add(partition, encoder.high(), encoder.low(), batch.ref(row));
                } else if (isParent) {
                    judge(batch.ref(row), 0);
                }
            }
        }
    }

    /** Counts; all tables have been read. */
    @Override
    public void resolve() {
        try (KeyTable counts = new KeyTable(null)) {
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                counts.clear();
                LongSpool.Reader keys = children.read(partition);
                while (keys != null && keys.hasNext()) {
                    long high = keys.next();
                    long low = keys.next();
                    keys.next();
                    counts.ensureRoom();
                    int slot = counts.slotOf(high, low);
                    if (counts.isUsed(slot)) {
                        counts.setValue(slot, counts.value(slot) + 1);
                    } else {
                        counts.insert(slot, high, low, 1);
                    }
                }
                LongSpool.Reader rows = parents.read(partition);
                while (rows != null && rows.hasNext()) {
                    int slot = counts.slotOf(rows.next(), rows.next());
                    judge(rows.next(), counts.isUsed(slot) ? counts.value(slot) : 0);
                }
            }
        }
    }

    private void judge(long parent, long count) {
        parentsByCount.merge(count, 1L, Long::sum);
        if (count < range.least()) {
            tooFew.add(parent, count);
        } else if (count > range.most()) {
            tooMany.add(parent, count);
        }
    }

    /** How many children the parents have, once all are counted. */
    public ChildrenTally tally() {
        return ChildrenTally.of(parentsByCount);
    }

    @Override
    public void close() {
        parents.close();
        children.close();
    }
}
