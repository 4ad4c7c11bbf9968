package taxiomet.rows;

import java.util.ArrayList;
import java.util.List;
import java.util.PrimitiveIterator;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import taxiomet.values.CellColumn;

/** Some rows of a table, kept in memory as they were read, as though the table had no others. */
public final class RowsKept implements TableSource {
    private final TableSource read;
    private final List<RowBatch> batches = new ArrayList<>();
    private long bytes;

    /**
     * Reads the rows.
     *
     * @param read all of whose rows have been read once
     * @param refs which rows, ascending
     */
    public RowsKept(TableSource read, long[] refs) {
        this.read = read;
        if (refs.length == 0) {
            return;
        }
        int[] all = IntStream.range(0, read.columns().size()).toArray();
        PrimitiveIterator.OfLong next = LongStream.of(refs).iterator();
        read.fetch(() -> next.hasNext() ? next.nextLong() : RefCursor.END, all, batch -> {
            RowBatch copy = new RowBatch(all.length);
            bytes += copy(batch, all, copy);
            batch.malformed().forEach(copy::addMalformed);
            copy.setNumber(batches.size());
            batches.add(copy);
        });
    }

    /** Gives how many bytes the cells take. */
    private static long copy(RowBatch from, int[] columns, RowBatch to) {
        long sum = 0;
        for (int row = 0; row < from.size(); row++) {
            long length = 0;
            for (int i = 0; i < columns.length; i++) {
                CellColumn cells = from.column(columns[i]);
                if (cells.isNull(row)) {
                    to.column(i).addNull();
                } else {
                    to.column(i).add(cells.bytes(), cells.start(row), cells.length(row));
                    length += cells.length(row);
                }
            }
            to.endRow(from.ref(row), from.line(row), length);
            sum += length;
        }
        return sum;
    }

    @Override
    public Scan scan(int[] columns, RefRanges ranges) {
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
            copy(kept, columns, batch);
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
    public List<String> columns() {
        return read.columns();
    }

    @Override
    public String partName(int part) {
        return read.partName(part);
    }

    @Override
    public int partCount() {
        return read.partCount();
    }

    @Override
    public Undeclared undeclared() {
        return read.undeclared();
    }

    @Override
    public long bytes() {
        return bytes;
    }

    @Override
    public void fetch(RefCursor refs, int[] columns, RowSink sink) {
        read.fetch(refs, columns, sink);
    }

    @Override
    public long bytesRead() {
        return bytes;
    }

    @Override
    public long emptyLines() {
        return read.emptyLines();
    }

    @Override
    public void close() {
        // What was read is closed by whoever opened it.
    }
}
