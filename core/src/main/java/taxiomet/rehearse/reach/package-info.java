/**
 * The rows that a proposal reaches, in memory, and the ways to them.
 *
 * <p>A {@link taxiomet.rehearse.reach.ReachedTable} holds the rows read of one table and the keys by which they are looked up; a {@link
 * taxiomet.rehearse.reach.ReachedLink} the way between two of them. A {@link taxiomet.rehearse.reach.ReachedRow} knows what it was
 * and what it is now; {@link taxiomet.rehearse.reach.ReachedRows} takes changes back (R1). A {@link
 * taxiomet.rehearse.reach.RowGatherer} reads what is asked for, one pass a table for all that is wanted of it, never a pass for a single
 * row (C2); a {@link taxiomet.rehearse.reach.RowCondition} says which rows a change names.
 *
 * <p>A row's values stand by <em>slots</em>: the columns that the proposal needs, in the order of the table; a value that is not of its
 * column's type is an {@link taxiomet.rehearse.reach.Unread}.
 */
package taxiomet.rehearse.reach;
