package taxiomet.settle.sift;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import taxiomet.finding.settled.SiftResult.Aside;
import taxiomet.finding.settled.SiftResult.Reason;
import taxiomet.keys.RowSet;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;

/** The rows of one table that are set aside, each with the first reason for it and the row that caused it. */
final class AsideRows implements AutoCloseable {
    /** In place of a reference where a row is set aside for its own fault. */
    static final long ITSELF = -1;

    private final RowSet rows = new RowSet();
    private final SortedSpool reasonsOfRows;
    private final SortedSpool causesOfRows;
    private final Map<Reason, Integer> numbers = new LinkedHashMap<>();
    private final List<Reason> reasons = new ArrayList<>();
    private long[] counts = new long[4];
    private long[] fresh = new long[16];
    private int freshSize;

    AsideRows(SpillFolder spill) {
        reasonsOfRows = new SortedSpool(spill);
        causesOfRows = new SortedSpool(spill);
    }

    /** The rows, of which none is taken back. */
    RowSet rows() {
        return rows;
    }

    boolean contains(long ref) {
        return rows.contains(ref);
    }

    /**
     * Sets a row aside, unless it is already.
     *
     * @param cause the row that caused it, in the table that the reason names; {@link #ITSELF} where there is none
     */
    void add(long ref, Reason reason, long cause) {
        if (rows.contains(ref)) {
            return;
        }
        rows.add(ref);
        int number = numbers.computeIfAbsent(reason, this::numbered);
        counts[number]++;
        reasonsOfRows.add(ref, number);
        causesOfRows.add(ref, cause);
        if (freshSize == fresh.length) {
            fresh = Arrays.copyOf(fresh, freshSize * 2);
        }
        fresh[freshSize++] = ref;
    }

    private int numbered(Reason reason) {
        reasons.add(reason);
        if (counts.length < reasons.size()) {
            counts = Arrays.copyOf(counts, counts.length * 2);
        }
        return reasons.size() - 1;
    }

    /** The rows that were set aside since this was asked last, ascending. */
    long[] takeFresh() {
        long[] taken = Arrays.copyOf(fresh, freshSize);
        Arrays.sort(taken);
        freshSize = 0;
        return taken;
    }

    boolean hasFresh() {
        return freshSize > 0;
    }

    /** How many rows are set aside for each reason. */
    List<Aside> counted() {
        List<Aside> all = new ArrayList<>();
        for (int i = 0; i < reasons.size(); i++) {
            all.add(new Aside(reasons.get(i), counts[i]));
        }
        return all;
    }

    /** Hands over all rows, ascending. */
    void forEach(Sift.AsideSink sink) {
        SortedSpool.Reader reason = reasonsOfRows.read();
        SortedSpool.Reader cause = causesOfRows.read();
        while (reason.next() && cause.next()) {
            sink.aside(reason.first(), reasons.get((int) reason.second()), cause.second());
        }
    }

    @Override
    public void close() {
        reasonsOfRows.close();
        causesOfRows.close();
    }
}
