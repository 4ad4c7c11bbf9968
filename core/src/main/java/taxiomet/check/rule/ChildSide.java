package taxiomet.check.rule;

import java.util.stream.IntStream;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.BatchEvaluator;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.Partitions;
import taxiomet.values.TypedColumn;

/** Keeps the values of the rows that point at a row of the rule's table. */
final class ChildSide extends OrderedCheck {
    private final RuleStep step;
    private final StoredValues scratch = new StoredValues();
    private final BatchEvaluator values = new BatchEvaluator();

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
        values.start(batch);
        if (step.filter != null) {
            step.filter.start(batch);
        }
        for (int row = 0; row < batch.size(); row++) {
            step.far.look(row);
            if (!step.far.isComplete() || (step.filter != null && !step.filter.holds(row))) {
                continue;
            }
            step.far.encode(row);
            scratch.clear();
            scratch.add(step.far.high());
            scratch.add(step.far.low());
            for (int column : step.columns) {
                boolean isIllTyped = batch.column(column).state(row) == TypedColumn.BAD;
                scratch.addValue(isIllTyped ? StoredValues.ILL_TYPED : values.columnValue(column, row));
            }
            step.others.addRecord(Partitions.of(KeyTable.hash(step.far.high(), step.far.low())), scratch.toArray());
        }
    }
}
