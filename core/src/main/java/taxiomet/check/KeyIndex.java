package taxiomet.check;

import java.util.ArrayList;
import java.util.List;
import taxiomet.spill.LongSpool;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/**
 * The keys of one table. They stand in a table in memory while the budget has room, and otherwise in partitions on disk,
 * which are taken up one after the other once all rows have been read.
 */
final class KeyIndex implements AutoCloseable {
    /** Marks the value of a key that is known to stand more than once. */
    private static final long REPEATED = 1L << 62;

    private final SpillFolder spill;
    private final List<Probe> waiting = new ArrayList<>();
    private FaultLog duplicates;
    private KeyTable table;
    private Partitions spilled;
    private boolean isSealed;
    private long groups;
    private long excess;

    /** Keys of children that are looked up when their parents are all there. */
    interface Probe {
        /** The keys, as records of (high, low, row reference). */
        Partitions keys();

        /** Takes a record whose key no parent has. */
        void missing(long high, long low, long ref);
    }

    KeyIndex(SpillFolder spill, MemoryBudget budget) {
        this.spill = spill;
        this.table = new KeyTable(budget);
    }

    /** From now on, rows that share a key go into this log. */
    void reportDuplicates(FaultLog log) {
        duplicates = log;
    }

    void add(long high, long low, long ref) {
        if (spilled == null) {
            if (table.ensureRoom()) {
                put(high, low, ref);
                return;
            }
            spillTable();
        }
        spilled.add(Partitions.of(KeyTable.hash(high, low)), high, low, ref);
    }

    private void spillTable() {
        spilled = new Partitions(spill);
        for (int slot = 0; slot < table.slots(); slot++) {
            if (table.isUsed(slot)) {
                long high = table.high(slot);
                long low = table.low(slot);
                spilled.add(Partitions.of(KeyTable.hash(high, low)), high, low, table.value(slot));
            }
        }
        table.close();
    }

    private void put(long high, long low, long ref) {
        int slot = table.slotOf(high, low);
        if (!table.isUsed(slot)) {
            table.insert(slot, high, low, ref);
        } else if (duplicates != null) {
            long first = table.value(slot) & ~REPEATED;
            if (table.value(slot) == first) {
                table.setValue(slot, first | REPEATED);
                groups++;
                duplicates.addDuplicate(first, first);
            }
            excess++;
            duplicates.addDuplicate(first, ref);
        }
    }

    /** All keys of the table have been added. */
    void seal() {
        isSealed = true;
    }

    /** Whether {@link #contains} can answer now. */
    boolean canAnswer() {
        return isSealed && spilled == null;
    }

    boolean contains(long high, long low) {
        return table.contains(high, low);
    }

    /** Has the keys of a child looked up when {@link #resolve} is called. */
    void await(Probe probe) {
        waiting.add(probe);
    }

    /** Answers what could not be answered before; all tables have been read. */
    void resolve() {
        for (int partition = 0; partition < Partitions.COUNT; partition++) {
            if (spilled != null) {
                load(partition);
            }
            for (Probe probe : waiting) {
                LongSpool.Reader keys = probe.keys().read(partition);
                while (keys != null && keys.hasNext()) {
                    long high = keys.next();
                    long low = keys.next();
                    long ref = keys.next();
                    if (!table.contains(high, low)) {
                        probe.missing(high, low, ref);
                    }
                }
            }
        }
        close();
    }

    private void load(int partition) {
        // One partition must fit whatever the budget says: there is no smaller piece.
        if (partition == 0) {
            table = new KeyTable(null);
        }
        table.clear();
        LongSpool.Reader records = spilled.read(partition);
        while (records != null && records.hasNext()) {
            table.ensureRoom();
            put(records.next(), records.next(), records.next());
        }
    }

    /** How many keys stand more than once. */
    long groups() {
        return groups;
    }

    /** How many rows there are beyond the first of each group. */
    long excess() {
        return excess;
    }

    @Override
    public void close() {
        table.close();
        if (spilled != null) {
            spilled.close();
        }
    }
}
