package taxiomet.expression;

import java.util.UUID;
import java.util.function.ToIntFunction;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.keys.ColumnKeys;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** Evaluates expressions over the rows of a batch, one row at a time. */
public final class BatchEvaluator implements Evaluator.Leaves {
    private final Evaluator evaluator = new Evaluator();
    private final ToIntFunction<Expression> places;
    private TypedBatch batch;
    private int row;

    /** For expressions over a row's own columns, in batches of its table. */
    public BatchEvaluator() {
        this(BatchEvaluator::placeInTable);
    }

    /** @param places gives the column of the batch in which the value of a leaf stands */
    BatchEvaluator(ToIntFunction<Expression> places) {
        this.places = places;
    }

    /** The place of a row's own column in its table; -1 for any other leaf. */
    static int placeInTable(Expression leaf) {
        return leaf instanceof ColumnValue column ? column.column() : -1;
    }

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
        return column(batch.column(places.applyAsInt(leaf)));
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
