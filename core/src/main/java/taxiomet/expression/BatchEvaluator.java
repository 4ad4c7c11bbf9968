package taxiomet.expression;

import java.util.UUID;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.keys.ColumnKeys;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** Evaluates expressions over the rows of a batch, one row at a time. */
public final class BatchEvaluator implements Evaluator.Leaves {
    private final Evaluator evaluator = new Evaluator();
    private TypedBatch batch;
    private int row;

    /** The batch whose rows come next. */
    public void start(TypedBatch toRead) {
        batch = toRead;
    }

    /** @throws taxiomet.expression.DivisionByZero when a division by zero is evaluated */
    public Object evaluate(Expression expression, int ofRow) {
        row = ofRow;
        return evaluator.evaluate(expression, this);
    }

    /** The value of a column of the batch; null for one that is not of its type, too. */
    public Object columnValue(int column, int ofRow) {
        row = ofRow;
        return column(batch.column(column));
    }

    @Override
    public Object value(Expression leaf) {
        return column(batch.column(((ColumnValue) leaf).column()));
    }

    private Object column(TypedColumn column) {
        if (!column.isValue(row)) {
            return null;
        }
        return switch (column.column().type().family()) {
            case EXACT_NUMBER -> ColumnKeys.number(column, row);
            case APPROXIMATE_NUMBER -> Double.longBitsToDouble(column.high(row));
            case BOOLEAN -> column.high(row) == 1;
            case TEXT -> column.text(row);
            case MOMENT, INSTANT, TIME -> column.high(row);
            case UUID -> new UUID(column.high(row), column.low(row)).toString();
        };
    }
}
