package taxiomet.sources.csv;

import java.io.IOException;
import taxiomet.sources.file.ByteInput;

/** A walk over the rows of a part on one thread, some bytes at a time, from any place on at which a row is known to begin. */
final class Runs {
    private final CsvPart part;
    private final ByteInput in;
    private final int bytes;
    private final Chunk chunk;

    private long offset;
    private long row;
    private long line;
    private boolean isHeaderNext;
    private long emptyLines;

    /**
     * @param in the part's bytes; whoever opened them closes them
     * @param bytes about how many are taken apart at once
     */
    Runs(CsvPart part, ByteForm form, ByteInput in, int bytes) {
        this.part = part;
        this.in = in;
        this.bytes = bytes;
        this.chunk = new Chunk(form);
        startAt(part.firstOffset(), 1, 1);
    }

    /** Goes on at a place; at the beginning of the part the row that names the columns, if there is one, is passed over. */
    void startAt(long newOffset, long newRow, long newLine) {
        offset = newOffset;
        row = newRow;
        line = newLine;
        isHeaderNext = offset == part.firstOffset() && part.header() != null;
    }

    /** Whether there is anything more before an offset. */
    boolean hasMoreBefore(long end) throws IOException {
        long last = in.end();
        return offset < end && (last >= 0 ? offset < last : in.read(offset, new byte[1], 0, 1) == 1);
    }

    /** Has the rows that begin in the next bytes, and before an offset, taken apart and put into the splitter's batch. */
    void next(RowSplitter splitter, long end) throws IOException {
        int count = (int) Math.min(bytes, end - offset);
        chunk.load(in, offset, count);
        splitter.split(chunk, 0, chunk.placeOf(offset + count), isHeaderNext, true);
        splitter.handOver(part.number(), row, line);
        offset = splitter.endOffset();
        row += splitter.records();
        line += splitter.lines();
        isHeaderNext &= splitter.isHeaderNext();
        emptyLines += splitter.emptyLines();
        if (!part.isPlain()) {
            in.forgetBefore(offset);
        }
    }

    /** Where the next row begins. */
    long offset() {
        return offset;
    }

    /** The number of the next row. */
    long row() {
        return row;
    }

    /** Rows are numbered from 1 on again. */
    void numberAnew() {
        row = 1;
    }

    /** How many lines without any field were passed. */
    long emptyLines() {
        return emptyLines;
    }
}
