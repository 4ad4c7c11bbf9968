package taxiomet.check.rule;

import java.util.stream.IntStream;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.RowFilter;
import taxiomet.expression.StoredValues;
import taxiomet.keys.TypedBatch;

/** Keeps the values of the rows that point at a row of the rule's table. */
final class ChildSide extends OrderedCheck {
    private final RuleStep step;
    private final StoredValues scratch = new StoredValues();

    ChildSide(RuleStep step) {
        this.step = step;
    }

    @Override
    public int[] columns() {
        int[] columns = IntStream.concat(
                        IntStream.of(step.far.columns()), step.columns.stream().mapToInt(column -> column))
                .distinct()
                .toArray();
        return RowFilter.columnsOf(columns, step.filter);
    }

    @Override
    public void exchange(StateExchange state) {
        state.records(step.others, StateExchange.NONE);
    }

    @Override
    public void check(TypedBatch batch) {
        step.far.start(batch);
        if (step.filter != null) {
            step.filter.start(batch);
        }
        for (int row = 0; row < batch.size(); row++) {
            step.far.look(row);
            if (!step.far.isComplete() || (step.filter != null && !step.filter.holds(row))) {
                continue;
            }
            step.startRecord(row, scratch);
            step.keep(batch, row, scratch);
        }
    }
}
