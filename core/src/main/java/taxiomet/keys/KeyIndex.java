package taxiomet.keys;

import java.util.ArrayList;
import java.util.List;
import taxiomet.rows.RefRanges;
import taxiomet.spill.LongSpool;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/**
 * The keys of one table: which there are, and which stand more than once. They stand in a {@link KeySet} while the budget has room, and
 * otherwise in partitions on disk, which are taken up one after the other once all rows have been read. The rows behind a key
 * are not kept: those of keys that are repeated are found by reading the table's keys again ({@link Repeated}).
 */
public final class KeyIndex implements AutoCloseable {
    private final SpillFolder spill;
    private final MemoryBudget budget;
    private final int parts;
    private final List<Probe> waiting = new ArrayList<>();
    private KeySet keys;
    private Partitions spilled;
    private boolean isSealed;
    private Repeated repeated;
    private long[] buffer = new long[0];

    /** Keys of children that are looked up when their parents are all there. */
    public interface Probe {
        /** The keys, as records of (high, low, row reference). */
        Partitions keys();

        /** Takes a record whose key no parent has. */
        void missing(long high, long low, long ref);
    }

    /** @param parts how many columns a key has */
    public KeyIndex(SpillFolder spill, MemoryBudget budget, int parts) {
        this.spill = spill;
        this.budget = budget;
        this.parts = parts;
        this.keys = new KeySet(parts, budget, true);
    }

    /** Takes note of the keys that come again. */
    public interface Repeated {
        /** A key comes again, in this row. */
        void add(long high, long low, long ref);

        /** A key is there more than once. */
        void add(long high, long low);

        /** The rows told so far are not all: they are to be looked for anew. */
        void forgetRows();
    }

    /** From now on, it is noticed which keys are repeated. */
    public void noticeRepeated(Repeated rows) {
        repeated = rows;
    }

    /** Whether it is. */
    public boolean isRepeatedNoticed() {
        return repeated != null;
    }

    /**
     * Adds the keys of some rows, which stand in the table behind all those added before.
     *
     * @param usable which of the rows have a key; null for all
     * @param refs the rows
     */
    public void add(long[] highs, long[] lows, boolean[] usable, int size, RowRefs refs) {
        int added = 0;
        if (size > 0 && spilled == null) {
            keys.startRows(refs.of(0), refs.of(size - 1));
            if (buffer.length < size) {
                buffer = new long[size];
            }
            added = usable == null ? keys.addFirst(highs, lows, size, buffer) : 0;
            if (added == 0) {
                keys.touch(highs, lows, size, buffer);
            }
        }
        for (int row = added; row < size; row++) {
            if (usable == null || usable[row]) {
                add(highs[row], lows[row], refs, row);
            }
        }
    }

    /** The reference of each row of a batch. */
    public interface RowRefs {
        long of(int row);
    }

    private void add(long high, long low, RowRefs refs, int row) {
        if (spilled == null) {
            int answer = keys.add(high, low);
            if (answer == KeySet.PRESENT && repeated != null) {
                repeated.add(high, low, refs.of(row));
            }
            if (answer != KeySet.FULL) {
                return;
            }
            spillKeys();
        }
        spilled.add(Partitions.of(KeyTable.hash(high, low)), high, low);
    }

    private void spillKeys() {
        spilled = new Partitions(spill);
        keys.forEach((high, low) -> spilled.add(Partitions.of(KeyTable.hash(high, low)), high, low));
        keys.close();
        keys = null;
        if (repeated != null) {
            repeated.forgetRows();
        }
    }

    /** From the first key on, keeps every one apart from memory, as often as it comes: so they can be handed over. */
    public void keepApart() {
        if (spilled == null) {
            spillKeys();
        }
    }

    /** All keys, as often as they came, in records of two longs; after {@link #keepApart} alone. */
    public Partitions keysApart() {
        return spilled;
    }

    /** All keys of the table have been added. */
    public void seal() {
        boolean isAsked = !waiting.isEmpty();
        boolean hasRoom = keys == null
                || keys.seal(isAsked, (high, low) -> {
                    if (repeated != null) {
                        repeated.forgetRows();
                        repeated.add(high, low);
                    }
                });
        if (!hasRoom) {
            spillKeys();
        }
        isSealed = true;
    }

    /** Whether {@link #contains} can answer now. */
    public boolean canAnswer() {
        return isSealed && keys != null;
    }

    /** Whether a key is there; only once {@link #canAnswer}. */
    public boolean contains(long high, long low) {
        return keys.contains(high, low);
    }

    /** The set of all keys, once {@link #canAnswer}. */
    public KeySet keys() {
        return keys;
    }

    /** Has the keys of a child looked up when {@link #resolve} is called. */
    public void await(Probe probe) {
        waiting.add(probe);
    }

    /** Answers what could not be answered before; all tables have been read. */
    public void resolve() {
        if (spilled != null) {
            resolveFromDisk();
        } else {
            for (Probe probe : waiting) {
                for (int partition = 0; partition < Partitions.COUNT; partition++) {
                    answer(probe, partition, keys::contains);
                }
            }
        }
    }

    private interface Lookup {
        boolean contains(long high, long low);
    }

    private void resolveFromDisk() {
        // One partition must fit whatever the budget says: there is no smaller piece.
        try (KeyTable table = new KeyTable(null)) {
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                table.clear();
                LongSpool.Reader records = spilled.read(partition);
                while (records != null && records.hasNext()) {
                    long high = records.next();
                    long low = records.next();
                    table.ensureRoom();
                    int slot = table.slotOf(high, low);
                    if (!table.isUsed(slot)) {
                        table.insert(slot, high, low, 0);
                    } else if (repeated != null) {
                        repeated.add(high, low);
                    }
                }
                for (Probe probe : waiting) {
                    answer(probe, partition, table::contains);
                }
            }
        }
        spilled.close();
    }

    private static void answer(Probe probe, int partition, Lookup parents) {
        LongSpool.Reader records = probe.keys().read(partition);
        while (records != null && records.hasNext()) {
            long high = records.next();
            long low = records.next();
            long ref = records.next();
            if (!parents.contains(high, low)) {
                probe.missing(high, low, ref);
            }
        }
    }

    /** Adds the rows among which the first with a repeated key stands; false when that is not known. */
    public boolean addRowsOf(long high, long low, RefRanges rows) {
        return keys != null && keys.addRowsOf(high, low, rows);
    }

    /** How many columns a key has. */
    public int parts() {
        return parts;
    }

    /** What bounds the keys in memory. */
    public MemoryBudget budget() {
        return budget;
    }

    @Override
    public void close() {
        if (keys != null) {
            keys.close();
            keys = null;
        }
        if (spilled != null) {
            spilled.close();
        }
    }
}
