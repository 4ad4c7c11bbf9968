package taxiomet.check;

import taxiomet.charter.Condition;
import taxiomet.charter.Expression;
import taxiomet.expression.DivisionByZero;
import taxiomet.rows.TypedColumn;

/** Tells for which rows of a batch a key or link is declared: those for which its condition is true. It serves one thread. */
final class RowFilter {
    private final Expression condition;
    private final int[] columns;
    private final BatchEvaluator evaluator = new BatchEvaluator();
    private TypedBatch batch;

    private RowFilter(Expression condition) {
        this.condition = condition;
        this.columns = condition.columnsRead();
    }

    static RowFilter of(Condition condition) {
        return new RowFilter(condition.value());
    }

    /** Another one for the same condition, to be used on another thread. */
    RowFilter copy() {
        return new RowFilter(condition);
    }

    /** Places of the columns that the condition reads. */
    int[] columns() {
        return columns.clone();
    }

    void start(TypedBatch toRead) {
        batch = toRead;
        evaluator.start(toRead);
    }

    /** Whether the condition is true for a row; not where one of its operands is not of its type, or it divides by zero. */
    boolean holds(int row) {
        for (int column : columns) {
            if (batch.column(column).state(row) == TypedColumn.BAD) {
                return false;
            }
        }
        try {
            return Boolean.TRUE.equals(evaluator.evaluate(condition, row));
        } catch (DivisionByZero e) {
            return false;
        }
    }
}
