package taxiomet.rehearse.reach;

import java.math.BigDecimal;
import java.util.Map;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.InQuery;
import taxiomet.charter.Expression.RowFile;
import taxiomet.charter.Expression.RowNumber;
import taxiomet.expression.Evaluator;
import taxiomet.rows.RowRef;

/** Gives an expression the values of one row's columns, and what the queries in it came to. */
public final class RowLeaves implements Evaluator.Leaves {
    /** Where no row is being named: nothing asks where it stands. */
    private static final long NOWHERE = 0;

    private final ReachedTable table;
    private final long ref;
    private final Object[] values;
    private final Map<InQuery, QueryAnswer> answers;

    /** The values of a row of which nothing else is asked. */
    public RowLeaves(ReachedTable table, Object[] values) {
        this(table, NOWHERE, values, Map.of());
    }

    /** @param answers what the queries in the expression gave */
    public RowLeaves(ReachedTable table, long ref, Object[] values, Map<InQuery, QueryAnswer> answers) {
        this.table = table;
        this.ref = ref;
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
        if (leaf instanceof RowNumber) {
            return table.isAsRead(ref) ? BigDecimal.valueOf(RowRef.row(ref)) : null;
        } else if (leaf instanceof RowFile) {
            return table.isAsRead(ref) ? table.fileOf(ref) : null;
        }
        throw new IllegalStateException("no value for " + leaf);
    }
}
