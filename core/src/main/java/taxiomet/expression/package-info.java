/**
 * What expressions come to. An {@link taxiomet.charter.Expression} is declared in a charter or a statement, with its types; an {@link
 * taxiomet.expression.Evaluator} gives its value, with SQL's three-valued logic, whoever knows the values of its leaves: a batch of rows,
 * a row in a rehearsal, or nobody where it is a constant.
 */
package taxiomet.expression;
