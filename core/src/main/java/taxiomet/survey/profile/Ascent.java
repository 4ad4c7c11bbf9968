package taxiomet.survey.profile;

import java.util.Arrays;
import java.util.Comparator;

/** Whether each value of a column is greater than the one before, told from runs of rows that may be looked at in any order. */
public final class Ascent {
    private static final int FIELDS = 3;

    private boolean isAscending = true;
    private boolean isEmpty = true;
    private long first;
    private long last;
    /** Of each run of rows its number, its first value and its last. */
    private long[] runs = new long[8 * FIELDS];

    private int count;

    private record Run(long number, long first, long last) {}

    /** Begins a run. */
    void start() {
        isEmpty = true;
    }

    void add(long value) {
        if (isEmpty) {
            first = value;
            isEmpty = false;
        } else {
            isAscending &= value > last;
        }
        last = value;
    }

    /** There is a value that has no order. */
    void breakOff() {
        isAscending = false;
    }

    /** Ends a run. */
    void end(long number) {
        if (isEmpty || !isAscending) {
            return;
        }
        if (count * FIELDS == runs.length) {
            runs = Arrays.copyOf(runs, runs.length * 2);
        }
        runs[count * FIELDS] = number;
        runs[count * FIELDS + 1] = first;
        runs[count * FIELDS + 2] = last;
        count++;
    }

    void merge(Ascent other) {
        isAscending &= other.isAscending;
        int all = count + other.count;
        runs = Arrays.copyOf(runs, all * FIELDS);
        System.arraycopy(other.runs, 0, runs, count * FIELDS, other.count * FIELDS);
        count = all;
    }

    /** Once all rows were seen. */
    boolean isAscending() {
        if (!isAscending) {
            return false;
        }
        Run[] inOrder = new Run[count];
        for (int run = 0; run < count; run++) {
            inOrder[run] = new Run(runs[run * FIELDS], runs[run * FIELDS + 1], runs[run * FIELDS + 2]);
        }
        Arrays.sort(inOrder, Comparator.comparingLong(Run::number));
        for (int i = 1; i < count; i++) {
            if (inOrder[i].first <= inOrder[i - 1].last) {
                return false;
            }
        }
        return true;
    }
}
