/**
 * What the totals of a table come to for its rows: {@link taxiomet.total.RowTotals}. A total may ask for values of parents; these are read
 * first, one table of parents after the other ({@link taxiomet.total.ParentValues}).
 */
package taxiomet.total;
