package taxiomet.check.rule;

import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.BatchEvaluator;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.Partitions;
import taxiomet.values.TypedColumn;

/** Keeps the values of the rows that a link points at. */
final class ParentSide extends OrderedCheck {
    private final JoinPlan plan;
    private final RuleStep step;
    private final StoredValues scratch = new StoredValues();
    private final KeyEncoder key;
    private final BatchEvaluator values = new BatchEvaluator();
    private final int number;

    ParentSide(JoinPlan plan, RuleStep step) {
        this.plan = plan;
        this.step = step;
        this.number = plan.steps.indexOf(step);
        this.key = step.far;
    }

    @Override
    public int[] columns() {
        return plan.columnsWith(step.columns, number, key);
    }

    @Override
    public void exchange(StateExchange state) {
        state.records(step.others, StateExchange.NONE);
    }

    @Override
    public void check(TypedBatch batch) {
        key.start(batch);
        plan.startKeys(batch, number);
        values.start(batch);
        for (int row = 0; row < batch.size(); row++) {
            key.look(row);
            if (!key.isComplete()) {
                continue;
            }
            key.encode(row);
            scratch.clear();
            scratch.add(key.high());
            scratch.add(key.low());
            // A parent without the link that goes on from it ends the way: its child is not judged.
            if (plan.addKeys(row, number, scratch)) {
                for (int column : step.columns) {
                    boolean isIllTyped = batch.column(column).state(row) == TypedColumn.BAD;
                    scratch.addValue(isIllTyped ? StoredValues.ILL_TYPED : values.columnValue(column, row));
                }
                step.others.addRecord(Partitions.of(KeyTable.hash(key.high(), key.low())), scratch.toArray());
            }
        }
    }
}
