/**
 * The ports to rows, and their typed values.
 *
 * <p>A {@link taxiomet.rows.TableSource} gives its rows as {@link taxiomet.rows.Split}s, each of which hands over {@link
 * taxiomet.rows.RowBatch}es: one {@link taxiomet.rows.CellColumn} of UTF-8 bytes for each column asked for. A
 * {@link taxiomet.rows.ValueReader} turns cells into a {@link taxiomet.rows.TypedColumn} of primitive values, or says
 * with a {@link taxiomet.rows.Refusal} why a cell is not of its type. No object is made for a cell.
 *
 * <p>A row is named by a {@link taxiomet.rows.RowRef}, one long that holds the part (file) and the row number in it.
 */
package taxiomet.rows;
