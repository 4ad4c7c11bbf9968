package taxiomet.spill;

/** Sorts two arrays as one array of pairs, in place: a heap sort, so that no order of input is slow. */
final class PairSort {
    private final long[] firsts;
    private final long[] seconds;

    private PairSort(long[] firsts, long[] seconds) {
        this.firsts = firsts;
        this.seconds = seconds;
    }

    /** Sorts the first {@code size} pairs by the first, then by the second. */
    static void sort(long[] firsts, long[] seconds, int size) {
        PairSort sort = new PairSort(firsts, seconds);
        for (int root = size / 2 - 1; root >= 0; root--) {
            sort.sift(root, size);
        }
        for (int end = size - 1; end > 0; end--) {
            sort.swap(0, end);
            sort.sift(0, end);
        }
    }

    private void sift(int from, int end) {
        int root = from;
        while (2 * root + 1 < end) {
            int child = 2 * root + 1;
            if (child + 1 < end && isLess(child, child + 1)) {
                child++;
            }
            if (!isLess(root, child)) {
                return;
            }
            swap(root, child);
            root = child;
        }
    }

    private boolean isLess(int a, int b) {
        return firsts[a] < firsts[b] || (firsts[a] == firsts[b] && seconds[a] < seconds[b]);
    }

    private void swap(int a, int b) {
        long first = firsts[a];
        firsts[a] = firsts[b];
        firsts[b] = first;
        long second = seconds[a];
        seconds[a] = seconds[b];
        seconds[b] = second;
    }
}
