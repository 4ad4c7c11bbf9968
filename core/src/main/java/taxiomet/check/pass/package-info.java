/**
 * The pass over a table, and what a check of a row is.
 *
 * <p>A {@link taxiomet.check.pass.Reading} runs the passes: each thread takes batches as they come, reads their values ({@link
 * taxiomet.keys.TypedBatch}) and has all checks of the table look at them; what they saw is settled by one thread at a time, in
 * the order of the rows, so that nothing depends on the number of threads. A {@link taxiomet.check.pass.RowCheck} is one small class
 * for one kind of fault; its {@link taxiomet.check.pass.BatchCheck} is the part of it on one thread. Faults go into a {@link
 * taxiomet.check.pass.FaultLog}, eight bytes for the row and eight for what is to be said about it, which goes to disk when it grows.
 */
package taxiomet.check.pass;
