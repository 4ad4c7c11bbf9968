/**
 * The ports to rows, and their typed values.
 *
 * <p>A {@link taxiomet.rows.TableSource} gives its rows in a {@link taxiomet.rows.Scan}, whose readers hand over {@link
 * taxiomet.rows.RowBatch}es on several threads: one {@link taxiomet.rows.CellColumn} for each column asked for, places in a flat array of
 * UTF-8 bytes. A {@link taxiomet.rows.ValueReader} turns the cells of a column into a {@link taxiomet.rows.TypedColumn} of primitive
 * values, all at once and as {@link taxiomet.rows.Words} where they are written as usual, or says with a {@link
 * taxiomet.rows.Refusal} why a cell is not of its type. No object is made for a cell.
 *
 * <p>A row is named by a {@link taxiomet.rows.RowRef}, one long that holds the part (file) and the row number in it.
 */
package taxiomet.rows;
