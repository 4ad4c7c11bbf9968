package taxiomet.check.link;

import java.util.Arrays;
import java.util.BitSet;
import taxiomet.keys.KeyTable;
import taxiomet.spill.LongSpool;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/**
 * Finds rings among edges that memory does not hold. Nearly every key has one parent, so that all may be followed at once, each
 * time twice as far as before: who comes to an end is in no ring, and as soon as nothing changes any more the keys that others
 * come to are those in rings. Passes grow with the logarithm of the longest chain; memory holds one part of 256 at a time.
 *
 * <p>A key with several parents (its rows are duplicates) is a fork. Edges to keys that come to an end are taken out, pass by
 * pass, until no fork is left; forks that stay lead to rings, and all that leads to them is looked at in memory.
 */
final class RingsOnDisk {
    /** How often edges are taken out for the sake of forks before memory is asked for. */
    private static final int MOST_PRUNINGS = 32;

    private final SpillFolder spill;
    private final Rings.Found found;

    RingsOnDisk(SpillFolder spill, Rings.Found found) {
        this.spill = spill;
        this.found = found;
    }

    /**
     * Finds all rings.
     *
     * @param edges as {@link Rings} has them
     * @return how many there are
     */
    long find(LongSpool edges) {
        Spread left = new Spread();
        LongSpool.Reader reader = edges.read();
        while (reader.hasNext()) {
            long[] edge = new long[Rings.EDGE];
            for (int i = 0; i < edge.length; i++) {
                edge[i] = reader.next();
            }
            left.add(edge);
        }
        for (int prunings = 0; ; prunings++) {
            try (Ways ways = new Ways(left)) {
                ways.follow();
                if (ways.forks.size == 0) {
                    return tell(left, ways.members());
                }
                Spread alive = ways.alive(left);
                boolean isDone = alive.size == left.size || prunings == MOST_PRUNINGS;
                left.close();
                left = alive;
                if (isDone) {
                    return findInMemory(left);
                }
            }
        }
    }

    private long tell(Spread edges, Spread members) {
        long rings = 0;
        try (edges;
                members;
                Part part = new Part()) {
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                part.load(members, partition);
                for (LongSpool.Reader reader = edges.read(partition); has(reader); ) {
                    long[] edge = Partitions.nextRecord(reader);
                    int member = part.find(edge[0], edge[1]);
                    if (member >= 0) {
                        long first = part.record(member)[2];
                        rings += first == edge[4] ? 1 : 0;
                        found.add(first, edge[4]);
                    }
                }
            }
        }
        return rings;
    }

    private long findInMemory(Spread edges) {
        try (edges;
                LongSpool all = new LongSpool(spill, 1 << 14)) {
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                for (LongSpool.Reader reader = edges.read(partition); has(reader); ) {
                    for (long part : Partitions.nextRecord(reader)) {
                        all.add(part);
                    }
                }
            }
            return Rings.inMemory(all, found);
        }
    }

    private static boolean has(LongSpool.Reader reader) {
        return reader != null && reader.hasNext();
    }

    /** Records that begin with a key, in the partition of that key. */
    private final class Spread implements AutoCloseable {
        private final Partitions partitions = new Partitions(spill);
        private long size;

        void add(long... record) {
            partitions.addRecord(Partitions.of(KeyTable.hash(record[0], record[1])), record);
            size++;
        }

        LongSpool.Reader read(int partition) {
            return partitions.read(partition);
        }

        @Override
        public void close() {
            partitions.close();
        }
    }

    /** The records of one partition, each found by its key. */
    private static final class Part implements AutoCloseable {
        private static final int FIRST_ROOM = 64;

        private final KeyTable keys = new KeyTable(null);
        private long[][] records = new long[FIRST_ROOM][];
        private int size;

        void load(Spread spread, int partition) {
            clear();
            add(spread, partition);
        }

        void add(Spread spread, int partition) {
            for (LongSpool.Reader reader = spread.read(partition); has(reader); ) {
                put(Partitions.nextRecord(reader));
            }
        }

        void clear() {
            keys.clear();
            Arrays.fill(records, 0, size, null);
            size = 0;
        }

        /** Puts a record under its key, unless there is one; its place either way. */
        int put(long[] record) {
            keys.ensureRoom();
            int slot = keys.slotOf(record[0], record[1]);
            if (keys.isUsed(slot)) {
                return (int) keys.value(slot);
            }
            if (size == records.length) {
                records = Arrays.copyOf(records, size * 2);
            }
            keys.insert(slot, record[0], record[1], size);
            records[size] = record;
            return size++;
        }

        /** The place of a key's record; negative for none. */
        int find(long high, long low) {
            return (int) keys.value(keys.slotOf(high, low));
        }

        long[] record(int place) {
            return records[place];
        }

        int size() {
            return size;
        }

        @Override
        public void close() {
            keys.close();
        }
    }

    /**
     * Where each key with one parent comes to. A step is five longs: a key (two), the key that it has come to (two), the first row
     * on the way there.
     */
    private final class Ways implements AutoCloseable {
        private final Spread forks = new Spread();
        /** Keys that come to a fork. */
        private final Spread forked = new Spread();

        private Spread steps = new Spread();

        Ways(Spread edges) {
            try (Part part = new Part()) {
                for (int partition = 0; partition < Partitions.COUNT; partition++) {
                    BitSet isFork = new BitSet();
                    part.clear();
                    for (LongSpool.Reader reader = edges.read(partition); has(reader); ) {
                        long[] edge = Partitions.nextRecord(reader);
                        int place = part.put(edge);
                        long[] step = part.record(place);
                        step[4] = Math.min(step[4], edge[4]);
                        if (step[2] != edge[2] || step[3] != edge[3]) {
                            isFork.set(place);
                        }
                    }
                    for (int place = 0; place < part.size(); place++) {
                        (isFork.get(place) ? forks : steps).add(part.record(place));
                    }
                }
            }
        }

        /** Goes on until nothing changes: what is left then leads into rings. */
        void follow() {
            long comeTo = Long.MAX_VALUE;
            boolean isChanged = true;
            while (isChanged && steps.size > 0) {
                Doubling doubling = new Doubling(steps);
                isChanged = doubling.isChanged || doubling.next.size < steps.size || doubling.comeTo < comeTo;
                comeTo = doubling.comeTo;
                steps.close();
                steps = doubling.next;
            }
        }

        /** All steps made once more from where they have come to. */
        private final class Doubling {
            private final Spread next = new Spread();
            /** How many keys others have come to. */
            private long comeTo;
            /** Whether a row was met that comes before those met till now. */
            private boolean isChanged;

            Doubling(Spread steps) {
                try (Spread asked = byTarget(steps);
                        Part part = new Part();
                        Part forksHere = new Part()) {
                    for (int partition = 0; partition < Partitions.COUNT; partition++) {
                        part.load(steps, partition);
                        forksHere.load(forks, partition);
                        forksHere.add(forked, partition);
                        BitSet isCome = new BitSet();
                        for (LongSpool.Reader reader = asked.read(partition); has(reader); ) {
                            long[] step = Partitions.nextRecord(reader);
                            int place = part.find(step[0], step[1]);
                            if (place >= 0) {
                                isCome.set(place);
                                add(step, part.record(place));
                            } else if (forksHere.find(step[0], step[1]) >= 0) {
                                forked.add(step[2], step[3]);
                            }
                        }
                        comeTo += isCome.cardinality();
                    }
                }
            }

            private void add(long[] turned, long[] further) {
                isChanged |= further[4] < turned[4];
                next.add(turned[2], turned[3], further[2], further[3], Math.min(turned[4], further[4]));
            }
        }

        /** The steps with both ends changed, by the key that they have come to. */
        private Spread byTarget(Spread records) {
            Spread turned = new Spread();
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                for (LongSpool.Reader reader = records.read(partition); has(reader); ) {
                    long[] step = Partitions.nextRecord(reader);
                    turned.add(step[2], step[3], step[0], step[1], step[4]);
                }
            }
            return turned;
        }

        /** The keys in rings, each with the first row of its ring; there are no forks, and all has been followed. */
        Spread members() {
            Spread members = new Spread();
            try (Spread asked = byTarget(steps);
                    Part part = new Part()) {
                for (int partition = 0; partition < Partitions.COUNT; partition++) {
                    part.load(asked, partition);
                    for (LongSpool.Reader reader = steps.read(partition); has(reader); ) {
                        long[] step = Partitions.nextRecord(reader);
                        if (part.find(step[0], step[1]) >= 0) {
                            members.add(step[0], step[1], step[4]);
                        }
                    }
                }
            }
            return members;
        }

        /** The edges between keys that do not come to an end. */
        Spread alive(Spread edges) {
            try (Spread turned = turnedFromAlive(edges)) {
                return turnedFromAlive(turned);
            }
        }

        /** The edges that start at such a key, with both ends changed. */
        private Spread turnedFromAlive(Spread edges) {
            Spread turned = new Spread();
            try (Part alive = new Part()) {
                for (int partition = 0; partition < Partitions.COUNT; partition++) {
                    loadAlive(alive, partition);
                    for (LongSpool.Reader reader = edges.read(partition); has(reader); ) {
                        long[] edge = Partitions.nextRecord(reader);
                        if (alive.find(edge[0], edge[1]) >= 0) {
                            turned.add(edge[2], edge[3], edge[0], edge[1], edge[4]);
                        }
                    }
                }
            }
            return turned;
        }

        private void loadAlive(Part alive, int partition) {
            alive.load(steps, partition);
            alive.add(forks, partition);
            alive.add(forked, partition);
        }

        @Override
        public void close() {
            forks.close();
            forked.close();
            steps.close();
        }
    }
}
