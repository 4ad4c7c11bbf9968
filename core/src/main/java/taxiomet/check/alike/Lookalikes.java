package taxiomet.check.alike;

import java.util.Arrays;
import taxiomet.check.pass.FaultLog;
import taxiomet.keys.RowSet;
import taxiomet.spill.LongSpool;
import taxiomet.spill.SpillFolder;

/** Pairs of rows that are alike, in groups: what is like one row is of its group. About 24 bytes of memory for each such row. */
final class Lookalikes implements AutoCloseable {
    private static final int PAIR = 3;
    private static final int BLOCK = PAIR << 12;

    private final Resemblance resemblance;
    private final LongSpool pairs;
    private final RowSet all = new RowSet();
    private long[] refs = new long[0];
    private int[] likest = new int[0];
    private long[] manners = new long[0];
    private long groups;

    Lookalikes(Resemblance resemblance, SpillFolder spill) {
        this.resemblance = resemblance;
        this.pairs = new LongSpool(spill, BLOCK);
    }

    /** Adds a pair and the manners in which it is alike; each pair once. */
    void add(long one, long other, long how) {
        pairs.add(one);
        pairs.add(other);
        pairs.add(how);
        all.add(one);
        all.add(other);
    }

    /** Makes groups of all pairs, and puts their rows into the log. */
    void group(FaultLog log) {
        int size = Math.toIntExact(all.size());
        refs = new long[size];
        int[] filled = {0};
        all.forEach(ref -> refs[filled[0]++] = ref);
        int[] leader = new int[size];
        likest = new int[size];
        manners = new long[size];
        int[] best = new int[size];
        Arrays.setAll(leader, i -> i);
        Arrays.fill(likest, -1);
        LongSpool.Reader reader = pairs.read();
        while (reader.hasNext()) {
            int one = place(reader.next());
            int other = place(reader.next());
            long how = reader.next();
            int weight = resemblance.weight(how);
            note(one, other, how, weight, best);
            note(other, one, how, weight, best);
            int a = leaderOf(leader, one);
            int b = leaderOf(leader, other);
            leader[Math.max(a, b)] = Math.min(a, b);
        }
        for (int i = 0; i < size; i++) {
            int first = leaderOf(leader, i);
            groups += first == i ? 1 : 0;
            log.addDuplicate(refs[first], refs[i]);
        }
    }

    private void note(int row, int other, long how, int weight, int[] best) {
        if (likest[row] < 0 || weight > best[row]) {
            likest[row] = other;
            manners[row] = how;
            best[row] = weight;
        }
    }

    private static int leaderOf(int[] leader, int of) {
        int at = of;
        while (leader[at] != at) {
            leader[at] = leader[leader[at]];
            at = leader[at];
        }
        return at;
    }

    private int place(long ref) {
        return Arrays.binarySearch(refs, ref);
    }

    /** The row that a row is likest to. */
    long likestTo(long ref) {
        return refs[likest[place(ref)]];
    }

    /** In which manners a row is like the one that it is likest to. */
    long mannersOf(long ref) {
        return manners[place(ref)];
    }

    long groups() {
        return groups;
    }

    long pairs() {
        return pairs.size() / PAIR;
    }

    @Override
    public void close() {
        pairs.close();
    }
}
