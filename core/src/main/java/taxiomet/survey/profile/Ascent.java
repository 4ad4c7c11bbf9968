package taxiomet.survey.profile;

import java.util.Arrays;
import java.util.Comparator;

/** Whether the values of a column go up row by row, told from runs of rows that may be looked at in any order. */
public final class Ascent {
    private static final int FIELDS = 3;

    /** Whether each value so far is greater than the one before in its run, or equal. */
    private boolean neverFalls = true;

    private boolean neverStays = true;
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
            neverFalls &= value >= last;
            neverStays &= value != last;
        }
        last = value;
    }

    /** There is a value that has no order. */
    void breakOff() {
        neverFalls = false;
    }

    /** Ends a run. */
    void end(long number) {
        if (isEmpty || !neverFalls) {
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
        neverFalls &= other.neverFalls;
        neverStays &= other.neverStays;
        int all = count + other.count;
        runs = Arrays.copyOf(runs, all * FIELDS);
        System.arraycopy(other.runs, 0, runs, count * FIELDS, other.count * FIELDS);
        count = all;
    }

    /** Whether each value is greater than the one before, once all rows were seen. */
    boolean isAscending() {
        return neverStays && stepUp(false);
    }

    /** Whether no value is less than the one before, once all rows were seen. */
    boolean neverFalls() {
        return stepUp(true);
    }

    /** Whether no run begins with less than the one before ended with, nor with as much unless that may be. */
    private boolean stepUp(boolean mayStay) {
        if (!neverFalls) {
            return false;
        }
        Run[] inOrder = new Run[count];
        for (int run = 0; run < count; run++) {
            inOrder[run] = new Run(runs[run * FIELDS], runs[run * FIELDS + 1], runs[run * FIELDS + 2]);
        }
        Arrays.sort(inOrder, Comparator.comparingLong(Run::number));
        for (int i = 1; i < count; i++) {
            if (inOrder[i].first < inOrder[i - 1].last || (!mayStay && inOrder[i].first == inOrder[i - 1].last)) {
                return false;
            }
        }
        return true;
    }
}
