package taxiomet.spill;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;

/**
 * Pairs of longs, given back in ascending order (by the first, then by the second). Pairs are sorted in memory in runs;
 * runs beyond the first go to a file and are merged when they are read.
 */
public final class SortedSpool implements AutoCloseable {
    private static final int RUN_PAIRS = 1 << 16;
    private static final int FIRST_PAIRS = 32;
    private static final int MERGE_CHUNK = 1_024;

    private final SpillFolder folder;
    private long[] firsts = new long[FIRST_PAIRS];
    private long[] seconds = new long[FIRST_PAIRS];
    private int buffered;
    private boolean isAscending = true;
    private LongSpool runs;
    private final List<Long> runEnds = new ArrayList<>();

    /** @param folder where runs go that memory does not hold */
    public SortedSpool(SpillFolder folder) {
        this.folder = folder;
    }

    /** Adds a pair. */
    public void add(long first, long second) {
        if (buffered == firsts.length) {
            if (buffered == RUN_PAIRS) {
                writeRun();
            } else {
                firsts = Arrays.copyOf(firsts, buffered * 2);
                seconds = Arrays.copyOf(seconds, buffered * 2);
            }
        }
        isAscending &= buffered == 0 || compare(firsts[buffered - 1], seconds[buffered - 1], first, second) <= 0;
        firsts[buffered] = first;
        seconds[buffered++] = second;
    }

    /** How many pairs there are. */
    public long size() {
        return buffered + (runs == null ? 0 : runs.size() / 2);
    }

    private static int compare(long firstA, long secondA, long firstB, long secondB) {
        int byFirst = Long.compare(firstA, firstB);
        return byFirst != 0 ? byFirst : Long.compare(secondA, secondB);
    }

    private void writeRun() {
        sortBuffer();
        if (runs == null) {
            runs = new LongSpool(folder, RUN_PAIRS);
        }
        for (int i = 0; i < buffered; i++) {
            runs.add(firsts[i]);
            runs.add(seconds[i]);
        }
        runEnds.add(runs.size());
        buffered = 0;
    }

    private void sortBuffer() {
        if (!isAscending) {
            PairSort.sort(firsts, seconds, buffered);
            isAscending = true;
        }
    }

    /** All pairs, ascending. Nothing may be added while they are read. */
    public Reader read() {
        sortBuffer();
        return new Reader();
    }

    /** Goes through the pairs once. */
    public final class Reader {
        private final PriorityQueue<Run> open =
                new PriorityQueue<>(Comparator.comparingLong((Run r) -> r.first).thenComparingLong(r -> r.second));
        private long first;
        private long second;

        private Reader() {
            long start = 0;
            for (long end : runEnds) {
                addRun(new FileRun(runs.read(start, end, MERGE_CHUNK)));
                start = end;
            }
            addRun(new BufferRun());
        }

        private void addRun(Run run) {
            if (run.advance()) {
                open.add(run);
            }
        }

        /** Goes to the next pair; false when there is none. */
        public boolean next() {
            Run least = open.poll();
            if (least == null) {
                return false;
            }
            first = least.first;
            second = least.second;
            addRun(least);
            return true;
        }

        public long first() {
            return first;
        }

        public long second() {
            return second;
        }
    }

    private abstract static class Run {
        long first;
        long second;

        abstract boolean advance();
    }

    private static final class FileRun extends Run {
        private final LongSpool.Reader reader;

        FileRun(LongSpool.Reader reader) {
            this.reader = reader;
        }

        @Override
        boolean advance() {
            if (!reader.hasNext()) {
                return false;
            }
            first = reader.next();
            second = reader.next();
            return true;
        }
    }

    private final class BufferRun extends Run {
        private int at;

        @Override
        boolean advance() {
            if (at == buffered) {
                return false;
            }
            first = firsts[at];
            second = seconds[at++];
            return true;
        }
    }

    @Override
    public void close() {
        if (runs != null) {
            runs.close();
        }
    }
}
