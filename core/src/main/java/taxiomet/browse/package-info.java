/**
 * One row with its parents and its children: {@link taxiomet.browse.Trace}. Rows are looked up by reading the columns of their keys, one
 * pass a table for all that is asked of it at a time ({@link taxiomet.browse.TablePass}), without a check of all rows; what is
 * wrong with the row is found by a check of the rows around it ({@link taxiomet.browse.FaultsOfRow}).
 */
package taxiomet.browse;
