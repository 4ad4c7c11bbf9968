package taxiomet.check.rule;

import java.util.ArrayList;
import java.util.List;
import taxiomet.expression.BatchEvaluator;
import taxiomet.expression.CompiledCondition;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.StoredValues;
import taxiomet.finding.Finding.Broken;
import taxiomet.keys.TypedBatch;

/** Rows that have met all relatives their rule reads, judged some at a time. */
final class JoinedBatch {
    private static final int ROWS = 512;

    private final JoinPlan plan;
    private final TypedBatch values;
    private final CompiledCondition condition;
    private final BatchEvaluator objects = new BatchEvaluator();
    private final long[] refs = new long[ROWS];
    private final long[] several = new long[ROWS];
    private int size;

    /** Is told what the rule says of a row. */
    interface Verdicts {
        /** The condition is true, or neither true nor false. */
        void holds(long ref, long several, boolean isKnown);

        /**
         * The condition is false, or cannot be evaluated.
         *
         * @param reason as a clause
         * @param figures those that are kept for the evidence
         */
        void breaks(long ref, long several, String reason, List<Object> figures);
    }

    JoinedBatch(RuleTally tally, JoinPlan plan) {
        this.plan = plan;
        this.values = TypedBatch.toFill(plan.slotColumns());
        this.condition = new CompiledCondition(tally.rule().condition(), plan::slotOf);
    }

    boolean isFull() {
        return size == ROWS;
    }

    /** Takes all rows out. */
    void clear() {
        size = 0;
        for (int slot = 0; slot < plan.slotColumns().size(); slot++) {
            values.column(slot).clear();
        }
    }

    /**
     * Adds a row whose values stand in a record, one for each slot, and all of their types.
     *
     * @param severalParents how many it has met; 0 for one alone
     */
    void add(long ref, long severalParents, StoredValues record) {
        refs[size] = ref;
        several[size++] = severalParents;
        for (int slot = 0; record.hasNext(); slot++) {
            record.nextInto(values.column(slot));
        }
    }

    /** Judges all rows, and takes them out. */
    void judge(Verdicts verdicts) {
        condition.start(values);
        objects.start(values);
        for (int row = 0; row < size; row++) {
            try {
                switch (condition.at(row)) {
                    case TRUE -> verdicts.holds(refs[row], several[row], true);
                    case UNKNOWN -> verdicts.holds(refs[row], several[row], false);
                    case FALSE -> verdicts.breaks(refs[row], several[row], Broken.FALSE, figures(row));
                }
            } catch (DivisionByZero e) {
                verdicts.breaks(refs[row], several[row], e.getMessage(), figures(row));
            }
        }
        clear();
    }

    private List<Object> figures(int row) {
        List<Object> figures = new ArrayList<>();
        plan.keptSlots.forEach(slot -> figures.add(objects.columnValue(slot, row)));
        return figures;
    }
}
