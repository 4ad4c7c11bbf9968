package taxiomet.sources.csv;

import java.io.IOException;
import java.util.List;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowBatch.MalformedRow;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.sources.file.ByteInput;
import taxiomet.sources.file.PlaceIndex;
import taxiomet.sources.file.RowQueue;
import taxiomet.values.CellColumn;

/** Reads single rows of a part: what lies between two known places is taken apart, and the rows picked from it. */
final class RowPicker {
    private static final int RUN_BYTES = 1 << 18;

    private final CsvPart part;
    private final RowBatch all;
    private final RowBatch picked;
    private final RowSink sink;
    private final ByteForm form;
    private final RowSplitter splitter;

    /** @param width how many columns are wanted */
    RowPicker(CsvPart part, CsvFields fields, int width, RowSink sink) {
        this.part = part;
        this.all = new RowBatch(width);
        this.picked = new RowBatch(width);
        this.sink = sink;
        this.form = fields.form();
        this.splitter = new RowSplitter(fields, all);
    }

    /** Hands over the rows that a queue names in this part. */
    void pick(RowQueue wanted) {
        part.requireUnchanged();
        try (ByteInput in = part.openBytesAgain()) {
            Runs runs = new Runs(part, form, in, RUN_BYTES);
            while (wanted.hasNextIn(part.number())) {
                long before = wanted.taken();
                pickFrom(runs, part.places().before(wanted.row()), wanted);
                if (wanted.taken() == before) {
                    throw part.changed();
                }
            }
        } catch (IOException e) {
            part.requireUnchanged();
            throw part.unreadable(e);
        }
        handOver();
        part.requireUnchanged();
    }

    /** Picks rows between a place and the next, run by run; -1 stands for the beginning of the part. */
    private void pickFrom(Runs runs, int place, RowQueue wanted) throws IOException {
        PlaceIndex places = part.places();
        if (place < 0) {
            runs.startAt(part.firstOffset(), 1, 1);
        } else {
            runs.startAt(places.offset(place), places.row(place), places.line(place));
        }
        boolean isLast = place + 1 == places.size();
        long end = isLast ? Long.MAX_VALUE : places.offset(place + 1);
        long endRow = isLast ? Long.MAX_VALUE : places.row(place + 1);
        while (wanted.hasNextIn(part.number()) && wanted.row() < endRow && runs.hasMoreBefore(end)) {
            runs.next(splitter, end);
            pickFromRun(wanted);
        }
    }

    private void pickFromRun(RowQueue wanted) {
        List<MalformedRow> malformed = all.malformed();
        int nextRow = 0;
        int nextMalformed = 0;
        while (wanted.hasNextIn(part.number())) {
            long ref = RowRef.of(part.number(), wanted.row());
            while (nextRow < all.size() && all.ref(nextRow) < ref) {
                nextRow++;
            }
            while (nextMalformed < malformed.size()
                    && malformed.get(nextMalformed).ref() < ref) {
                nextMalformed++;
            }
            if (nextRow < all.size() && all.ref(nextRow) == ref) {
                copy(nextRow);
            } else if (nextMalformed < malformed.size()
                    && malformed.get(nextMalformed).ref() == ref) {
                picked.addMalformed(malformed.get(nextMalformed));
            } else {
                return;
            }
            wanted.take();
            if (picked.isFull()) {
                handOver();
            }
        }
    }

    private void copy(int row) {
        long byteCount = 0;
        for (int column = 0; column < all.columnCount(); column++) {
            CellColumn from = all.column(column);
            picked.column(column).add(from, row);
            byteCount += Math.max(0, from.length(row));
        }
        picked.endRow(all.ref(row), all.line(row), byteCount);
    }

    private void handOver() {
        if (!picked.isEmpty()) {
            sink.accept(picked);
        }
        picked.clear();
    }
}
