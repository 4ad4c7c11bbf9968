package taxiomet.rows;

import java.util.stream.IntStream;
import java.util.stream.LongStream;

/** Some rows of a table, kept in memory as they were read, as though the table had no others. */
public final class RowsKept extends KeptBatches {
    /**
     * Reads the rows.
     *
     * @param read all of whose rows have been read once
     * @param refs which rows, ascending
     */
    public RowsKept(TableSource read, long[] refs) {
        super(read);
        if (refs.length == 0) {
            return;
        }
        int[] all = IntStream.range(0, read.columns().size()).toArray();
        read.fetch(RefCursor.of(LongStream.of(refs).iterator()), all, this::keep);
    }

    @Override
    public void fetch(RefCursor refs, int[] columns, RowSink sink) {
        owned().fetch(refs, columns, sink);
    }

    @Override
    public void close() {
        // What was read is closed by whoever opened it.
    }
}
