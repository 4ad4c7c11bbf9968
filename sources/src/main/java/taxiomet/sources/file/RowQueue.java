package taxiomet.sources.file;

import taxiomet.rows.RefCursor;
import taxiomet.rows.RowRef;

/** The rows that are asked for, one after the other, through all parts of a table. */
public final class RowQueue {
    private final RefCursor refs;
    private long next;
    private long taken;

    public RowQueue(RefCursor refs) {
        this.refs = refs;
        this.next = refs.next();
    }

    public boolean isEmpty() {
        return next == RefCursor.END;
    }

    /** The part in which the next row stands. */
    public int part() {
        return RowRef.part(next);
    }

    public boolean hasNextIn(int part) {
        return next != RefCursor.END && RowRef.part(next) == part;
    }

    /** The number of the next row in its part. */
    public long row() {
        return RowRef.row(next);
    }

    public boolean isNext(int part, long row) {
        return next == RowRef.of(part, row);
    }

    /** The next row has been handed over. */
    public void take() {
        next = refs.next();
        taken++;
    }

    /** How many rows have been handed over. */
    public long taken() {
        return taken;
    }
}
