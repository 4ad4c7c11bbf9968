/**
 * Checks of rows: one pass over each table, parents before children, on all cores.
 *
 * <p>{@link taxiomet.check.CheckRun} opens the sources, plans a {@link taxiomet.check.pass.TablePass} for each table, has them read, and
 * puts the findings together. {@code check.pass} is what all kinds of checks share; {@code check.column}, {@code check.key}, {@code
 * check.link}, {@code check.rule} and {@code check.alike} hold the kinds, by what the charter declares.
 */
package taxiomet.check;
