package taxiomet.check.rule;

import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.StoredValues;
import taxiomet.keys.TypedBatch;

/** Keeps the values of the rows that a link points at. */
final class ParentSide extends OrderedCheck {
    private final JoinPlan plan;
    private final RuleStep step;
    private final StoredValues scratch = new StoredValues();
    private final int number;

    ParentSide(JoinPlan plan, RuleStep step) {
        this.plan = plan;
        this.step = step;
        this.number = plan.steps.indexOf(step);
    }

    @Override
    public int[] columns() {
        return plan.columnsWith(step.columns, number, step.far);
    }

    @Override
    public void exchange(StateExchange state) {
        state.records(step.others, StateExchange.NONE);
    }

    @Override
    public void check(TypedBatch batch) {
        step.far.start(batch);
        plan.startKeys(batch, number);
        for (int row = 0; row < batch.size(); row++) {
            step.far.look(row);
            if (!step.far.isComplete()) {
                continue;
            }
            step.startRecord(row, scratch);
            // A parent without the link that goes on from it ends the way: its child is not judged.
            if (plan.addKeys(row, number, scratch)) {
                step.keep(batch, row, scratch);
            }
        }
    }
}
