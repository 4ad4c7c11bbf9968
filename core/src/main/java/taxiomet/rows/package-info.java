/**
 * The ports to rows. A {@link taxiomet.rows.TableSource} gives its rows in a {@link taxiomet.rows.Scan}, whose readers hand over {@link
 * taxiomet.rows.RowBatch}es on several threads: one {@link taxiomet.values.CellColumn} for each column asked for.
 *
 * <p>A row is named by a {@link taxiomet.rows.RowRef}, one long that holds the part (file) and the row number in it.
 */
package taxiomet.rows;
