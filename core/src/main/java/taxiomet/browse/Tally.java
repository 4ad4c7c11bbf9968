package taxiomet.browse;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.total.RowTotals;

/** How many rows there are, which stand first, and what the totals of their table come to. */
final class Tally {
    private final List<String> totals;
    private final BigDecimal[] sums;
    private final FirstRefs first;
    private long rows;

    /**
     * @param totals of their table that are wanted, as they are written
     * @param most how many references are kept
     */
    Tally(List<String> totals, int most) {
        this.totals = totals;
        this.sums = new BigDecimal[totals.size()];
        Arrays.fill(sums, BigDecimal.ZERO);
        this.first = new FirstRefs(most);
    }

    void add(long ref) {
        rows++;
        first.add(ref);
    }

    /** Adds a row of a batch with its totals. */
    void add(long ref, int row, RowTotals.OnThread values) {
        add(ref);
        values.look(row);
        for (int i = 0; i < sums.length; i++) {
            sums[i] = sums[i].add(values.of(i));
        }
    }

    void addAll(Tally other) {
        rows += other.rows;
        first.addAll(other.first);
        for (int i = 0; i < sums.length; i++) {
            sums[i] = sums[i].add(other.sums[i]);
        }
    }

    long rows() {
        return rows;
    }

    /** The first rows' references, ascending. */
    long[] first() {
        return first.refs();
    }

    List<Sum> sums() {
        List<Sum> all = new ArrayList<>();
        for (int i = 0; i < sums.length; i++) {
            all.add(new Sum(totals.get(i), sums[i]));
        }
        return all;
    }
}
