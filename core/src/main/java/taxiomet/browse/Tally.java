package taxiomet.browse;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import taxiomet.charter.Total;
import taxiomet.expression.BatchEvaluator;
import taxiomet.finding.TraceResult.Sum;

/** How many rows there are, which stand first, and what the totals of their table come to. */
final class Tally {
    private final List<Total> totals;
    private final BigDecimal[] sums;
    private final FirstRefs first;
    private long rows;

    /**
     * @param totals of their table that are wanted
     * @param most how many references are kept
     */
    Tally(List<Total> totals, int most) {
        this.totals = totals;
        this.sums = new BigDecimal[totals.size()];
        Arrays.fill(sums, BigDecimal.ZERO);
        this.first = new FirstRefs(most);
    }

    void add(long ref) {
        rows++;
        first.add(ref);
    }

    void add(long ref, int row, BatchEvaluator values) {
        add(ref);
        for (int i = 0; i < sums.length; i++) {
            sums[i] = sums[i].add(values.numberToAdd(totals.get(i).value(), row));
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
            all.add(new Sum(totals.get(i).text(), sums[i]));
        }
        return all;
    }
}
