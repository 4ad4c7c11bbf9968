/**
 * When two keys are equal, and where the keys of a table stand.
 *
 * <p>Keys are compared as pairs of longs that a {@link taxiomet.keys.KeyEncoder} makes of the {@link taxiomet.keys.ColumnKeys} of a {@link
 * taxiomet.keys.TypedBatch}, in the {@link taxiomet.keys.KeyForm} of each column: two rows have one key exactly when they have the same
 * pair. Numbers, dates and times are themselves in the pair; everything else is a {@link taxiomet.keys.Fingerprint}.
 *
 * <p>The keys of a table stand in a {@link taxiomet.keys.KeyIndex}: as bits, longs or pairs ({@link taxiomet.keys.KeySet}) while there is
 * memory, many pairs spread over {@link taxiomet.keys.PairBuckets}, and in partitions on disk otherwise. It does not know rows: it tells
 * whoever listens ({@link taxiomet.keys.KeyIndex.Repeated}) which keys come again, and asks for the rows that waited for it ({@link
 * taxiomet.keys.KeyIndex.Probe}) when all keys are there.
 */
package taxiomet.keys;
