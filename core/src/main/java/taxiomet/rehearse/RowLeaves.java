package taxiomet.rehearse;

import java.util.Map;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.InQuery;
import taxiomet.expression.Evaluator;

/** Gives an expression the values of one row's columns, and what the queries in it came to. */
final class RowLeaves implements Evaluator.Leaves {
    private final ReachedTable table;
    private final Object[] values;
    private final Map<InQuery, QueryAnswer> answers;

    RowLeaves(ReachedTable table, Object[] values) {
        this(table, values, Map.of());
    }

    RowLeaves(ReachedTable table, Object[] values, Map<InQuery, QueryAnswer> answers) {
        this.table = table;
        this.values = values;
        this.answers = answers;
    }

    @Override
    public Object value(Expression leaf) {
        if (leaf instanceof ColumnValue column) {
            int place = column.column();
            return table.codec(place).operand(values[table.slotOf(place)]);
        } else if (leaf instanceof InQuery in) {
            return answers.get(in).contains(new Evaluator().evaluate(in.operand(), this));
        }
        throw new IllegalStateException("no value for " + leaf);
    }
}
