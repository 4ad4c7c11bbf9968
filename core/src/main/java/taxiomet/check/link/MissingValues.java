package taxiomet.check.link;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import taxiomet.check.pass.StateExchange;
import taxiomet.keys.KeyTable;
import taxiomet.spill.LongSpool;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/** The different values behind the orphans of a link, and how many rows have each. */
public final class MissingValues implements AutoCloseable {
    private final Partitions orphans;
    private long distinct;
    private List<Value> commonest = List.of();

    /** A value, by one row that has it (the first), and how many rows have it. */
    public record Value(long firstRef, long rows) {
        static final Comparator<Value> COMMONEST_FIRST =
                Comparator.comparingLong(Value::rows).reversed().thenComparingLong(Value::firstRef);
    }

    MissingValues(SpillFolder spill) {
        orphans = new Partitions(spill);
    }

    void add(long high, long low, long ref) {
        orphans.add(Partitions.of(KeyTable.hash(high, low)), high, low, ref);
    }

    void exchange(StateExchange state) {
        state.partitions(orphans, 3, 2);
    }

    /** Counts; afterwards {@link #distinct} and {@link #commonest} are known. */
    public void count(int wanted) {
        PriorityQueue<Value> top = new PriorityQueue<>(Value.COMMONEST_FIRST.reversed());
        try (KeyTable places = new KeyTable(null)) {
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                countPartition(orphans.read(partition), places, top, wanted);
            }
        }
        List<Value> sorted = new ArrayList<>(top);
        sorted.sort(Value.COMMONEST_FIRST);
        commonest = sorted;
    }

    private void countPartition(LongSpool.Reader keys, KeyTable places, PriorityQueue<Value> top, int wanted) {
        if (keys == null) {
            return;
        }
        places.clear();
        GrowingLongs counts = new GrowingLongs();
        GrowingLongs firsts = new GrowingLongs();
        while (keys.hasNext()) {
            long high = keys.next();
            long low = keys.next();
            long ref = keys.next();
            places.ensureRoom();
            int slot = places.slotOf(high, low);
            if (places.isUsed(slot)) {
                int place = (int) places.value(slot);
                counts.set(place, counts.get(place) + 1);
                firsts.set(place, Math.min(firsts.get(place), ref));
            } else {
                places.insert(slot, high, low, counts.size());
                counts.add(1);
                firsts.add(ref);
            }
        }
        distinct += counts.size();
        for (int i = 0; i < counts.size(); i++) {
            Value value = new Value(firsts.get(i), counts.get(i));
            if (top.size() < wanted) {
                top.add(value);
            } else if (!top.isEmpty() && Value.COMMONEST_FIRST.compare(value, top.peek()) < 0) {
                top.poll();
                top.add(value);
            }
        }
    }

    /** How many different values there are; after {@link #count}. */
    public long distinct() {
        return distinct;
    }

    /** As many of the commonest as were wanted, the commonest first; after {@link #count}. */
    public List<Value> commonest() {
        return commonest;
    }

    @Override
    public void close() {
        orphans.close();
    }

    /** A list of longs without an object for each. */
    private static final class GrowingLongs {
        private long[] values = new long[16];
        private int size;

        void add(long value) {
            if (size == values.length) {
                values = Arrays.copyOf(values, size * 2);
            }
            values[size++] = value;
        }

        long get(int place) {
            return values[place];
        }

        void set(int place, long value) {
            values[place] = value;
        }

        int size() {
            return size;
        }
    }
}
