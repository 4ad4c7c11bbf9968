/**
 * Checks of rows: one pass over each table, parents before children, on all cores.
 *
 * <p>{@link taxiomet.check.CheckRun} opens the sources, plans a {@link taxiomet.check.TablePass} for each table, and puts the findings
 * together. A {@link taxiomet.check.Reading} runs the passes: each thread takes batches as they come, reads their values ({@link
 * taxiomet.check.TypedBatch}) and has all checks of the table look at them; what they saw is settled by one thread at a time, in
 * the order of the rows, so that nothing depends on the number of threads. A {@link taxiomet.check.RowCheck} is one small class
 * for one kind of fault; its {@link taxiomet.check.BatchCheck} is the part of it on one thread. Faults go into a {@link
 * taxiomet.check.FaultLog}, eight bytes for the row and eight for what is to be said about it, which goes to disk when it grows.
 *
 * <p>Keys are compared as pairs of longs that a {@link taxiomet.check.KeyEncoder} makes of the {@link taxiomet.check.ColumnKeys} of a
 * batch: two rows have one key exactly when they have the same pair. Numbers, dates and times are themselves in the pair; everything else is a
 * {@link taxiomet.check.Fingerprint}, under a secret of each run. The keys of a table stand in a {@link taxiomet.check.KeyIndex}: as bits,
 * longs or pairs ({@link taxiomet.check.KeySet}) while there is memory, many pairs spread over {@link taxiomet.check.PairBuckets}, and in
 * partitions on disk otherwise. It does not know rows: where
 * a key comes again, {@link taxiomet.check.RepeatedRows} finds them by reading what is needed of the table a second time. A {@link
 * taxiomet.check.LinkCheck} asks the index at once where the parent has been read, and otherwise (circles, tables linked to themselves,
 * indexes that went to disk) keeps the child's keys until all tables have been read.
 */
package taxiomet.check;
