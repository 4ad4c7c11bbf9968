/**
 * Checks of rows: one pass over each table, parents before children.
 *
 * <p>{@link taxiomet.check.CheckRun} opens the sources, orders the tables, hands every batch of a table to all checks of
 * that table, and then puts the findings together. A {@link taxiomet.check.RowCheck} is one small class for one kind of
 * fault; it writes what it finds into a {@link taxiomet.check.FaultLog}, eight bytes for the row and eight for what is to be
 * said about it, which goes to disk when it grows.
 *
 * <p>Keys are compared as 128-bit values that a {@link taxiomet.check.KeyEncoder} makes of the typed cells: two rows have
 * one key exactly when they have the same pair of longs. A single number, date or time is itself in the pair; everything else
 * is a fingerprint, seeded anew in each run. Keys of a parent stand in a {@link taxiomet.check.KeyIndex}. A {@link
 * taxiomet.check.LinkCheck} asks it at once where the parent has been read, and otherwise (circles, tables linked to
 * themselves, indexes that went to disk) keeps the child's keys until all tables have been read.
 */
package taxiomet.check;
