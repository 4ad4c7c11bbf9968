package taxiomet.check.rule;

import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.Faults;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.CompiledCondition;
import taxiomet.expression.DivisionByZero;
import taxiomet.finding.Finding.Broken;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** Rows that break a condition over their own columns. */
public final class RuleCheck implements RowCheck {
    private final RuleTally tally;
    private final int[] columns;

    /** @param tally of the rule */
    public RuleCheck(RuleTally tally) {
        this.tally = tally;
        this.columns = tally.rule().condition().columnsRead();
    }

    @Override
    public int[] columns() {
        return columns.clone();
    }

    @Override
    public void exchange(StateExchange state) {
        tally.exchange(state);
    }

    @Override
    public BatchCheck onThread() {
        return new Judge();
    }

    private final class Judge implements BatchCheck {
        private final CompiledCondition condition =
                new CompiledCondition(tally.rule().condition());
        private final Faults found = new Faults(tally.faults());
        private long judgedHere;
        private long notJudgedHere;
        private long unknownHere;

        @Override
        public void look(TypedBatch batch) {
            condition.start(batch);
            boolean areSound = hasNoIllTyped(batch);
            for (int row = 0; row < batch.size(); row++) {
                if (!areSound && hasIllTyped(batch, row)) {
                    notJudgedHere++;
                    continue;
                }
                judgedHere++;
                try {
                    switch (condition.at(row)) {
                        case UNKNOWN -> unknownHere++;
                        case FALSE -> found.add(batch.ref(row), Broken.FALSE);
                        case TRUE -> {}
                    }
                } catch (DivisionByZero e) {
                    found.add(batch.ref(row), e.getMessage());
                }
            }
        }

        @Override
        public void settle() {
            found.settle();
            tally.addJudged(judgedHere);
            tally.addNotJudged(notJudgedHere);
            tally.addUnknown(unknownHere);
            judgedHere = 0;
            notJudgedHere = 0;
            unknownHere = 0;
        }
    }

    private boolean hasNoIllTyped(TypedBatch batch) {
        for (int column : columns) {
            if (batch.column(column).has(TypedColumn.BAD)) {
                return false;
            }
        }
        return true;
    }

    private boolean hasIllTyped(TypedBatch batch, int row) {
        for (int column : columns) {
            if (batch.column(column).state(row) == TypedColumn.BAD) {
                return true;
            }
        }
        return false;
    }
}
