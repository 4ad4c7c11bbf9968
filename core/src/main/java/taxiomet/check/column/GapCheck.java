package taxiomet.check.column;

import java.util.ArrayList;
import java.util.List;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.finding.Finding.Gap;
import taxiomet.finding.Finding.Gaps;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;
import taxiomet.values.TypedColumn;

/** The numbers that no row has, between the least and the greatest in a column that the database numbers. */
public final class GapCheck extends OrderedCheck implements Conclusion {
    /** So many gaps are named; all are counted. */
    private static final int MOST_NAMED = 1_000;

    private final int column;
    private final SortedSpool numbers;
    private final List<Gap> named = new ArrayList<>();
    private long gaps;
    private long missing;

    /** @param column its place in its table; of whole numbers */
    public GapCheck(int column, SpillFolder spill) {
        this.column = column;
        this.numbers = new SortedSpool(spill);
    }

    @Override
    public int[] columns() {
        return new int[] {column};
    }

    @Override
    public void check(TypedBatch batch) {
        TypedColumn values = batch.column(column);
        for (int row = 0; row < batch.size(); row++) {
            if (values.isValue(row)) {
                numbers.add(values.high(row), 0);
            }
        }
    }

    @Override
    public void exchange(StateExchange state) {
        state.pairs(numbers, false);
    }

    @Override
    public void resolve() {
        SortedSpool.Reader reader = numbers.read();
        boolean isFirst = true;
        long before = 0;
        while (reader.next()) {
            long number = reader.first();
            // Compared without a difference, which could be too large.
            if (!isFirst && number > before && number - 1 != before) {
                gaps++;
                missing += number - 1 - before;
                if (named.size() < MOST_NAMED) {
                    named.add(new Gap(before + 1, number - 1));
                }
            }
            before = number;
            isFirst = false;
        }
    }

    /** What was found, the least first. */
    public Gaps found() {
        return new Gaps(gaps, missing, named);
    }

    @Override
    public void close() {
        numbers.close();
    }
}
