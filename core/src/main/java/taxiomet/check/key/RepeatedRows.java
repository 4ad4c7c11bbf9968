package taxiomet.check.key;

import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.SecondLook;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyIndex;
import taxiomet.keys.KeySet;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RefRanges;
import taxiomet.spill.LongSpool;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/**
 * The rows of a table that share a key with others. While the table is read only the keys are noticed that come a second time, and
 * the rows of these and later times where memory holds all keys; the first row of each is found when the table's keys are read
 * again. What memory could not hold is found then as a whole.
 */
public final class RepeatedRows extends OrderedCheck implements KeyIndex.Repeated, SecondLook, AutoCloseable {
    private final KeyEncoder encoder;
    private final KeyIndex index;
    private final FaultLog duplicates;
    private final boolean nullsAreEqual;
    private final RowFilter filter;
    private final SpillFolder spill;
    private final KeySet keys;
    /** Keys whose first row has been found. */
    private final KeySet found;

    private Partitions rows;
    private boolean hasLaterRows = true;
    private boolean areKeysTooMany;
    private long groups;
    private long excess;

    /** @param duplicates gets the rows, group by group */
    public RepeatedRows(
            KeyEncoder encoder,
            KeyIndex index,
            FaultLog duplicates,
            boolean nullsAreEqual,
            RowFilter filter,
            SpillFolder spill) {
        this.encoder = encoder;
        this.index = index;
        this.duplicates = duplicates;
        this.nullsAreEqual = nullsAreEqual;
        this.filter = filter;
        this.spill = spill;
        this.keys = new KeySet(index.parts(), index.budget());
        // No more than the keys, and without an answer a row would be counted twice.
        this.found = new KeySet(index.parts(), new MemoryBudget(Long.MAX_VALUE));
        index.noticeRepeated(this);
    }

    @Override
    public void add(long high, long low, long ref) {
        add(high, low);
        if (hasLaterRows) {
            keep(high, low, ref);
        }
    }

    @Override
    public void add(long high, long low) {
        if (!areKeysTooMany && keys.add(high, low) == KeySet.FULL) {
            // Which they are is worked out from all rows, when they are read again.
            areKeysTooMany = true;
            forgetRows();
            keys.close();
        }
    }

    @Override
    public void forgetRows() {
        hasLaterRows = false;
        if (rows != null) {
            rows.close();
            rows = null;
        }
    }

    private void keep(long high, long low, long ref) {
        if (rows == null) {
            rows = new Partitions(spill);
        }
        rows.add(Partitions.of(KeyTable.hash(high, low)), high, low, ref);
    }

    @Override
    public boolean hasAny() {
        return areKeysTooMany || keys.size() > 0;
    }

    @Override
    public boolean addRowsTo(RefRanges wanted) {
        if (!hasLaterRows) {
            return false;
        }
        boolean[] areKnown = {true};
        keys.forEach((high, low) -> areKnown[0] &= index.addRowsOf(high, low, wanted));
        return areKnown[0];
    }

    @Override
    public int[] columns() {
        return RowFilter.columnsOf(encoder.columns(), filter);
    }

    /** Looks for rows with a repeated key in some rows of the second reading. */
    @Override
    public void check(TypedBatch batch) {
        encoder.start(batch);
        if (filter != null) {
            filter.start(batch);
        }
        for (int row = 0; row < batch.size(); row++) {
            encoder.look(row);
            if (filter != null && !filter.holds(row)) {
                continue;
            }
            if (encoder.illTyped() > 0 || (encoder.nulls() > 0 && !nullsAreEqual)) {
                continue;
            }
            encoder.encode(row);
            long high = encoder.high();
            long low = encoder.low();
            boolean isWanted = areKeysTooMany || keys.contains(high, low);
            if (isWanted && hasLaterRows && found.add(high, low) == KeySet.PRESENT) {
                isWanted = false;
            }
            if (isWanted) {
                keep(high, low, batch.ref(row));
            }
        }
    }

    /** Puts the rows into the log, group by group; all of them have been found. */
    @Override
    public void conclude() {
        try (KeyTable firsts = new KeyTable(null)) {
            for (int partition = 0; rows != null && partition < Partitions.COUNT; partition++) {
                firsts.clear();
                LongSpool.Reader reader = rows.read(partition);
                while (reader != null && reader.hasNext()) {
                    long high = reader.next();
                    long low = reader.next();
                    long ref = reader.next();
                    firsts.ensureRoom();
                    int slot = firsts.slotOf(high, low);
                    if (!firsts.isUsed(slot)) {
                        firsts.insert(slot, high, low, ref);
                    } else if (ref < firsts.value(slot)) {
                        firsts.setValue(slot, ref);
                    }
                }
                logPartition(firsts, partition);
            }
        }
        close();
    }

    private void logPartition(KeyTable firsts, int partition) {
        LongSpool.Reader reader = rows.read(partition);
        while (reader != null && reader.hasNext()) {
            int slot = firsts.slotOf(reader.next(), reader.next());
            long ref = reader.next();
            long first = firsts.value(slot) & ~SEEN;
            if (ref == first) {
                continue;
            }
            if (first == firsts.value(slot)) {
                firsts.setValue(slot, first | SEEN);
                groups++;
                duplicates.addDuplicate(first, first);
            }
            excess++;
            duplicates.addDuplicate(first, ref);
        }
    }

    /** Marks the first row of a key that is known to have others. */
    private static final long SEEN = 1L << 62;

    /** How many keys stand more than once. */
    public long groups() {
        return groups;
    }

    /** How many rows there are beyond the first of each group. */
    public long excess() {
        return excess;
    }

    @Override
    public void close() {
        keys.close();
        found.close();
        if (rows != null) {
            rows.close();
            rows = null;
        }
    }
}
