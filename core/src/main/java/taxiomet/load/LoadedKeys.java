package taxiomet.load;

import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeySet;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.SourceException;
import taxiomet.spill.MemoryBudget;

/** The keys of the rows of a table that are in, over some of its columns: those of one of its keys, or those that links point at. */
final class LoadedKeys {
    private final Table table;
    private final KeyEncoder encoder;
    private final boolean nullsAreEqual;
    private final RowFilter filter;
    private final KeySet keys;

    /** @param filter the rows that count; null for all */
    LoadedKeys(Table table, KeyEncoder encoder, boolean nullsAreEqual, RowFilter filter, MemoryBudget budget) {
        this.table = table;
        this.encoder = encoder;
        this.nullsAreEqual = nullsAreEqual;
        this.filter = filter;
        this.keys = new KeySet(encoder.columns().length, budget);
    }

    int[] columns() {
        return RowFilter.columnsOf(encoder.columns(), filter);
    }

    void start(TypedBatch batch) {
        encoder.start(batch);
        if (filter != null) {
            filter.start(batch);
        }
    }

    /** Whether a row has a key here that can be equal to another one; then it is the encoder's. */
    private boolean encode(int row) {
        encoder.look(row);
        boolean counts = encoder.illTyped() == 0
                && (encoder.nulls() == 0 || nullsAreEqual)
                && (filter == null || filter.holds(row));
        if (counts) {
            encoder.encode(row);
        }
        return counts;
    }

    /** Whether a row that is in has the key of this one. */
    boolean hasKeyOf(int row) {
        return encode(row) && keys.contains(encoder.high(), encoder.low());
    }

    /** Whether a row's own key is this one. */
    boolean isKeyOf(int row, long high, long low) {
        return encode(row) && encoder.high() == high && encoder.low() == low;
    }

    boolean contains(long high, long low) {
        return keys.contains(high, low);
    }

    /** A row gets in. */
    void add(int row) {
        if (encode(row) && keys.add(encoder.high(), encoder.low()) == KeySet.FULL) {
            throw new SourceException(
                    table.name(),
                    "the keys of the rows that get in do not fit into memory",
                    "give more with --memory, or in the environment: TAXIOMET_JAVA_OPTS=-Xmx4g");
        }
    }

    void close() {
        keys.close();
    }
}
