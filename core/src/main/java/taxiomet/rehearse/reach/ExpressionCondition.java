package taxiomet.rehearse.reach;

import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.InQuery;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.Evaluator;
import taxiomet.proposal.ProposalException;

/**
 * A search condition over the rows of a table; without an expression it names them all.
 *
 * @param answers what the queries in it gave
 */
public record ExpressionCondition(
        ReachedTable table, Optional<Expression> expression, Map<InQuery, QueryAnswer> answers, String place)
        implements RowCondition {
    @Override
    public int[] columns() {
        return expression.map(Expression::columnsRead).orElse(new int[0]);
    }

    @Override
    public Optional<NamedKeys> namedKeys() {
        return expression.flatMap(condition -> KeyEqualities.of(table, condition));
    }

    @Override
    public Optional<NamedKeys> onlyKeys() {
        return namedKeys();
    }

    @Override
    public boolean holds(long ref, Object[] values) {
        if (expression.isEmpty()) {
            return true;
        }
        try {
            return Boolean.TRUE.equals(
                    new Evaluator().evaluate(expression.get(), new RowLeaves(table, ref, values, answers)));
        } catch (DivisionByZero e) {
            throw new ProposalException(
                    place,
                    "the condition divides by zero in a row of " + table.table().name(),
                    "add a condition that leaves such rows out before the division");
        }
    }
}
