/**
 * Rows of a table or view in an SQLite database, read only, in one transaction for the whole run.
 *
 * <p>Rows come in the order of {@code rowid} where the table has one, else in that of its primary key, else as the database gives them; a
 * row's number is its place in that order, 1 for the first. Whole numbers and floating-point numbers come as such ({@link
 * taxiomet.values.ValueCells}), texts as texts, blobs as their bytes in hexadecimal digits.
 */
package taxiomet.sources.sqlite;
