package taxiomet.rows;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import taxiomet.values.CellColumn;

/** Some rows of a table, kept in memory as though it had no others. */
abstract class KeptBatches extends ForwardingSource {
    private final List<RowBatch> batches = new ArrayList<>();
    private long bytes;

    /** @param whole the table that the rows are of */
    KeptBatches(TableSource whole) {
        super(whole);
    }

    /** Keeps a copy of all rows of a batch, which has all columns of the table. */
    final void keep(RowBatch batch) {
        int[] all = IntStream.range(0, batch.columnCount()).toArray();
        RowBatch copy = new RowBatch(all.length);
        for (int row = 0; row < batch.size(); row++) {
            bytes += copy(batch, row, all, copy);
        }
        batch.malformed().forEach(copy::addMalformed);
        copy.setNumber(batches.size());
        batches.add(copy);
    }

    /** Copies some cells of a row, and gives how many bytes they take. */
    static long copy(RowBatch from, int row, int[] columns, RowBatch to) {
        long length = 0;
        for (int i = 0; i < columns.length; i++) {
            CellColumn cells = from.column(columns[i]);
            to.column(i).add(cells, row);
            length += Math.max(0, cells.length(row));
        }
        to.endRow(from.ref(row), from.line(row), length);
        return length;
    }

    final List<RowBatch> batches() {
        return batches;
    }

    @Override
    public final Scan scan(int[] columns, RefRanges ranges) {
        AtomicInteger taken = new AtomicInteger();
        return new Scan() {
            @Override
            public BatchReader reader() {
                return new Reader(columns, taken);
            }

            @Override
            public void close() {
                // The rows are kept as long as the source.
            }
        };
    }

    private final class Reader implements Scan.BatchReader {
        private final int[] columns;
        private final AtomicInteger taken;

        Reader(int[] columns, AtomicInteger taken) {
            this.columns = columns;
            this.taken = taken;
        }

        @Override
        public RowBatch next() {
            int place = taken.getAndIncrement();
            if (place >= batches.size()) {
                return null;
            }
            RowBatch kept = batches.get(place);
            RowBatch batch = new RowBatch(columns.length);
            for (int row = 0; row < kept.size(); row++) {
                copy(kept, row, columns, batch);
            }
            kept.malformed().forEach(batch::addMalformed);
            batch.setNumber(place);
            return batch;
        }

        @Override
        public void close() {
            // Nothing is open.
        }
    }

    @Override
    public final long bytes() {
        return bytes;
    }

    @Override
    public final long bytesRead() {
        return bytes;
    }
}
