/**
 * The values of expressions, with SQL's three-valued logic: {@link taxiomet.expression.Evaluator} takes the leaves from whoever has the
 * row, {@link taxiomet.expression.BatchEvaluator} from a batch. A {@link taxiomet.expression.RowFilter} tells which rows of a batch a
 * key or link is declared for.
 */
package taxiomet.expression;
