package taxiomet.sources.csv;

import java.io.IOException;
import java.util.List;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;

/** A pass with the library's reader: one thread at a time reads on, whichever comes. */
final class LibraryScan implements Scan {
    private final List<CsvPart> parts;
    private final List<CsvFields> fields;
    private final int width;
    private int part;
    private long number;
    private RecordCursor cursor;
    private RowBatch target;

    /**
     * @param fields of each part
     * @param width how many columns the batches have
     */
    LibraryScan(List<CsvPart> parts, List<CsvFields> fields, int width) {
        this.parts = parts;
        this.fields = fields;
        this.width = width;
        this.target = new RowBatch(width);
    }

    @Override
    public BatchReader reader() {
        return new BatchReader() {
            private RowBatch mine = new RowBatch(width);

            @Override
            public RowBatch next() {
                if (mine != null) {
                    mine.clear();
                    mine = exchange(mine);
                }
                return mine;
            }

            @Override
            public void close() {
                // The scan holds what is open.
            }
        };
    }

    /** Fills the batch that the open part writes to, and leaves the caller's in its place. */
    private synchronized RowBatch exchange(RowBatch empty) {
        while (part < parts.size()) {
            CsvPart current = parts.get(part);
            try {
                if (cursor == null) {
                    cursor = current.records(fields.get(part), target);
                }
                boolean hasMore = cursor.read(() -> !target.isFull());
                if (!hasMore) {
                    current.endFirstPass(cursor.emptyLines());
                    close();
                    current.requireUnchanged();
                    part++;
                }
            } catch (IOException e) {
                current.requireUnchanged();
                throw current.unreadable(e);
            }
            if (!target.isEmpty()) {
                return handOut(empty);
            }
        }
        return null;
    }

    private RowBatch handOut(RowBatch empty) {
        RowBatch full = target;
        full.setNumber(number++);
        target = empty;
        if (cursor != null) {
            cursor.writeTo(empty);
        }
        return full;
    }

    @Override
    public synchronized void close() {
        if (cursor != null) {
            try {
                cursor.close();
            } catch (IOException e) {
                throw parts.get(part).unreadable(e);
            } finally {
                cursor = null;
            }
        }
    }
}
