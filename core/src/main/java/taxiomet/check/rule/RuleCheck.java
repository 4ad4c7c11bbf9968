package taxiomet.check.rule;

import taxiomet.charter.Rule;
import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.CompiledCondition;
import taxiomet.expression.DivisionByZero;
import taxiomet.finding.Finding.Broken;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** Rows that break a condition over their own columns. */
public final class RuleCheck implements RowCheck, JudgedRule {
    private final Rule rule;
    private final int[] columns;
    private final FaultLog faults;
    private long judged;
    private long notJudged;
    private long unknown;

    /** @param faults gets the rows that break the rule */
    public RuleCheck(Rule rule, FaultLog faults) {
        this.rule = rule;
        this.columns = rule.condition().columnsRead();
        this.faults = faults;
    }

    @Override
    public int[] columns() {
        return columns.clone();
    }

    @Override
    public void exchange(StateExchange state) {
        judged = state.count(judged);
        notJudged = state.count(notJudged);
        unknown = state.count(unknown);
    }

    @Override
    public BatchCheck onThread() {
        return new Judge();
    }

    private final class Judge implements BatchCheck {
        private final CompiledCondition condition = new CompiledCondition(rule.condition());
        private final Faults found = new Faults(faults);
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
            judged += judgedHere;
            notJudged += notJudgedHere;
            unknown += unknownHere;
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

    @Override
    public Rule rule() {
        return rule;
    }

    @Override
    public long judged() {
        return judged;
    }

    @Override
    public long notJudged() {
        return notJudged;
    }

    @Override
    public long unknown() {
        return unknown;
    }

    @Override
    public FaultLog faults() {
        return faults;
    }
}
