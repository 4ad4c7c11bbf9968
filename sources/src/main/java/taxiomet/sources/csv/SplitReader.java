package taxiomet.sources.csv;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource.SplitScan;
import taxiomet.sources.file.ByteInput;

/** Reads the rows that begin in some bytes of a part, one run after the other; rows and lines are numbered from 1. */
final class SplitReader implements SplitScan {
    private final CsvPart part;
    private final CsvFields fields;
    private final int width;
    private final ByteInput in;
    private final Runs runs;
    private final long to;

    private long number;
    private boolean isClosed;

    /**
     * @param width how many columns the batches have
     * @param runBytes about how many bytes are taken apart at once
     */
    SplitReader(CsvPart part, CsvFields fields, Split split, int width, int runBytes) {
        this.part = part;
        this.fields = fields;
        this.width = width;
        this.to = split.to();
        try {
            this.in = part.openBytes();
        } catch (IOException e) {
            throw part.unreadable(e);
        }
        this.runs = new Runs(part, fields.form(), in, runBytes);
        runs.startAt(Math.max(part.firstOffset(), split.from()), 1, 1);
    }

    /** Where rows begin in a part, about so many bytes apart: the splits that this makes. */
    static List<Split> cut(CsvPart part, CsvFields noFields, long bytes) {
        int step = (int) Math.max(1, Math.min(bytes, 1 << 28));
        List<Split> splits = new ArrayList<>();
        long from = part.firstOffset();
        try (ByteInput in = part.openBytes()) {
            Runs runs = new Runs(part, noFields.form(), in, step);
            RowSplitter splitter = new RowSplitter(noFields, new RowBatch(0));
            while (runs.hasMoreBefore(Long.MAX_VALUE)) {
                runs.next(splitter, Long.MAX_VALUE);
                if (runs.row() > 1 && runs.hasMoreBefore(Long.MAX_VALUE)) {
                    splits.add(new Split(part.number(), from, runs.offset()));
                    from = runs.offset();
                    runs.numberAnew();
                }
            }
        } catch (IOException e) {
            part.requireUnchanged();
            throw part.unreadable(e);
        }
        part.requireUnchanged();
        splits.add(new Split(part.number(), from, Long.MAX_VALUE));
        return splits;
    }

    @Override
    public BatchReader reader() {
        RowBatch batch = new RowBatch(width);
        RowSplitter splitter = new RowSplitter(fields, batch);
        return new BatchReader() {
            @Override
            public RowBatch next() {
                synchronized (SplitReader.this) {
                    try {
                        if (!runs.hasMoreBefore(to)) {
                            return null;
                        }
                        runs.next(splitter, to);
                        batch.setNumber(number++);
                        return batch;
                    } catch (IOException e) {
                        part.requireUnchanged();
                        throw part.unreadable(e);
                    }
                }
            }

            @Override
            public void close() {
                // The scan holds what is open.
            }
        };
    }

    @Override
    public synchronized long emptyLines() {
        return runs.emptyLines();
    }

    @Override
    public synchronized void close() {
        if (isClosed) {
            return;
        }
        isClosed = true;
        try {
            in.close();
        } catch (IOException e) {
            throw part.unreadable(e);
        }
        part.requireUnchanged();
    }
}
