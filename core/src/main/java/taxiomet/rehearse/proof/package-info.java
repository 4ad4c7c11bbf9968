/**
 * Holds a rehearsal against what a database does: {@code Proving} is the database, which carries the changes out in a transaction that is
 * rolled back; {@code Proof} compares each change's end, and the rows of all tables then, as {@code RowContents} without regard to their order.
 */
package taxiomet.rehearse.proof;
