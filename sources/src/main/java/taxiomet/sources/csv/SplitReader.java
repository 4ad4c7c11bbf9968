package taxiomet.sources.csv;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource.SplitScan;
import taxiomet.sources.file.ByteInput;
import taxiomet.sources.file.SingleByteText;

/** Reads the rows that begin in some bytes of a part, one run after the other; rows and lines are numbered from 1. */
final class SplitReader implements SplitScan {
    private final CsvPart part;
    private final CsvFields fields;
    private final int width;
    private final int runBytes;
    private final Chunk chunk;
    private final ByteInput in;
    private final long to;
    private final boolean isPacked;

    private long offset;
    private long row = 1;
    private long line = 1;
    private boolean isHeaderNext;
    private long number;
    private long emptyLines;
    private boolean isClosed;

    /**
     * @param width how many columns the batches have
     * @param runBytes about how many bytes are taken apart at once
     * @param encoding empty for UTF-8
     */
    SplitReader(
            CsvPart part, CsvFields fields, Split split, int width, int runBytes, Optional<SingleByteText> encoding) {
        this.part = part;
        this.fields = fields;
        this.width = width;
        this.runBytes = runBytes;
        this.chunk = newChunk(fields, encoding);
        this.offset = Math.max(part.firstOffset(), split.from());
        this.to = split.to();
        this.isHeaderNext = offset == part.firstOffset() && part.header() != null;
        this.isPacked = !part.isPlain();
        try {
            this.in = part.openBytes();
        } catch (IOException e) {
            throw part.unreadable(e);
        }
    }

    private static Chunk newChunk(CsvFields fields, Optional<SingleByteText> encoding) {
        return new Chunk(encoding, (byte) fields.format().delimiter(), (byte)
                fields.format().quote());
    }

    /** Where rows begin in a part, about so many bytes apart: the splits that this makes. */
    static List<Split> cut(CsvPart part, CsvFields noFields, long bytes, Optional<SingleByteText> encoding) {
        int step = (int) Math.max(1, Math.min(bytes, 1 << 28));
        List<Split> splits = new ArrayList<>();
        Split whole = new Split(part.number(), part.firstOffset(), Long.MAX_VALUE);
        try (SplitReader reader = new SplitReader(part, noFields, whole, 0, step, encoding)) {
            RowBatch none = new RowBatch(0);
            RowSplitter splitter = new RowSplitter(noFields, none);
            long from = reader.offset;
            while (reader.hasMore()) {
                reader.fill(splitter, none);
                if (reader.row > 1 && reader.hasMore()) {
                    splits.add(new Split(part.number(), from, reader.offset));
                    from = reader.offset;
                    reader.row = 1;
                }
            }
            splits.add(new Split(part.number(), from, Long.MAX_VALUE));
            return splits;
        } catch (IOException e) {
            part.requireUnchanged();
            throw part.unreadable(e);
        }
    }

    private boolean hasMore() throws IOException {
        long end = in.end();
        return offset < to && (end >= 0 ? offset < end : in.read(offset, new byte[1], 0, 1) == 1);
    }

    private void fill(RowSplitter splitter, RowBatch batch) throws IOException {
        int count = (int) Math.min(runBytes, to - offset);
        chunk.load(in, offset, count);
        splitter.split(chunk, 0, chunk.placeOf(offset + count), isHeaderNext, true);
        splitter.handOver(part.number(), row, line);
        offset = splitter.endOffset();
        row += splitter.records();
        line += splitter.lines();
        isHeaderNext &= splitter.isHeaderNext();
        emptyLines += splitter.emptyLines();
        if (isPacked) {
            in.forgetBefore(offset);
        }
        batch.setNumber(number++);
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
                        if (!hasMore()) {
                            return null;
                        }
                        fill(splitter, batch);
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
        return emptyLines;
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
