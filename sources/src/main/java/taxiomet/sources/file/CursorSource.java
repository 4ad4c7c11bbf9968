package taxiomet.sources.file;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;

/**
 * Rows that come one after the other from a cursor, whichever thread asks for them. A row is found again by reading from the last place
 * before it that a cursor can begin at.
 */
public abstract class CursorSource implements TableSource {
    /** From which rows on it can be read without those before: their references, and the places. */
    private final TreeMap<Long, Object> places = new TreeMap<>();

    private boolean isRead;
    private volatile long bytesRead;
    private volatile long emptyLines;

    /** Goes over rows; it serves one thread at a time. What goes wrong is turned into a {@link SourceException} by its source. */
    public interface Cursor extends AutoCloseable {
        /** Goes to the next row; false when there is none. */
        boolean next() throws Exception;

        /** The place of the row, if it can be read from there on without those before it; null otherwise. */
        Object place();

        /** The line or sheet row that the row stands in; 0 where there are none. */
        long line();

        /** How many lines without any cell it has passed over. */
        long emptyLines();

        /** What is wrong with it where it is no row of the table; null where nothing is. */
        default String fault() {
            return null;
        }

        /** The row as a person reads it, or its beginning, where something is wrong with it. */
        default String raw() {
            return "";
        }

        /** Adds the row's cells to all columns of a batch, and gives about how many bytes they take. */
        long addTo(RowBatch batch) throws Exception;

        @Override
        void close();
    }

    /**
     * Begins to read.
     *
     * @param wanted places of the columns wanted
     * @param place where, as a cursor gave it; null for the first row
     */
    protected abstract Cursor open(int[] wanted, Object place) throws Exception;

    /** The same in one of several parts. */
    protected Cursor open(int part, int[] wanted, Object place) throws Exception {
        return open(wanted, place);
    }

    /** A batch for so many columns. */
    protected abstract RowBatch batchOf(int width);

    /** What is said when reading fails. */
    protected abstract SourceException refused(Exception e);

    /** All rows have been read once to their end: whether they are still the same. */
    protected void requireUnchanged() {
        // Most cannot change while they are open.
    }

    /** What is said of anything that went wrong: a fault of the program is none of the rows, and thrown as it is. */
    protected final SourceException said(Exception e) {
        if (e instanceof SourceException known) {
            return known;
        } else if (e instanceof RuntimeException unexpected && !(e instanceof IllegalArgumentException)) {
            throw unexpected;
        }
        return refused(e);
    }

    @Override
    public int partCount() {
        return 1;
    }

    @Override
    public long bytesRead() {
        return Math.min(bytes(), bytesRead);
    }

    @Override
    public long emptyLines() {
        return emptyLines;
    }

    @Override
    public Scan scan(int[] wanted, RefRanges ranges) {
        return new CursorScan(wanted.clone());
    }

    private final class CursorScan implements Scan {
        private final int[] wanted;
        private Cursor cursor;
        private int part;
        private boolean isAtEnd;
        private long empty;
        private long number;
        private long row;

        CursorScan(int[] wanted) {
            this.wanted = wanted;
            bytesRead = 0;
        }

        @Override
        public BatchReader reader() {
            return new FilledReader(batchOf(wanted.length), this::fill);
        }

        private synchronized boolean fill(RowBatch batch) {
            if (isAtEnd) {
                return false;
            }
            try {
                while (!batch.isFull() && !isAtEnd) {
                    if (cursor == null) {
                        cursor = open(part, wanted, null);
                    }
                    if (cursor.next()) {
                        row++;
                        if (!isRead && cursor.place() != null) {
                            places.put(RowRef.of(part, row), cursor.place());
                        }
                        bytesRead += take(cursor, RowRef.of(part, row), batch);
                    } else {
                        empty += cursor.emptyLines();
                        close();
                        row = 0;
                        part++;
                        endAt(part == partCount());
                    }
                }
            } catch (Exception e) {
                throw said(e);
            }
            batch.setNumber(number);
            number += batch.isEmpty() ? 0 : 1;
            return !batch.isEmpty();
        }

        private void endAt(boolean isEnd) {
            isAtEnd = isEnd;
            if (isEnd) {
                isRead = true;
                emptyLines = empty;
                requireUnchanged();
            }
        }

        @Override
        public synchronized void close() {
            if (cursor != null) {
                cursor.close();
                cursor = null;
            }
        }
    }

    /** Takes the row that a cursor stands at, and gives about how many bytes it takes. */
    private static long take(Cursor cursor, long ref, RowBatch batch) throws Exception {
        String fault = cursor.fault();
        if (fault != null) {
            batch.addMalformed(new RowBatch.MalformedRow(ref, cursor.line(), fault, cursor.raw()));
            return cursor.raw().length();
        }
        long size = cursor.addTo(batch);
        batch.endRow(ref, cursor.line(), size);
        return size;
    }

    @Override
    public void fetch(RefCursor refs, int[] wanted, RowSink sink) {
        RowQueue queue = new RowQueue(refs);
        RowBatch batch = batchOf(wanted.length);
        try {
            while (!queue.isEmpty()) {
                fetchFrom(queue, wanted, batch, sink);
            }
            requireUnchanged();
        } catch (Exception e) {
            throw said(e);
        }
    }

    /** Reads on from the best place before the next row that is asked for, as long as no other place or part is better. */
    private void fetchFrom(RowQueue queue, int[] wanted, RowBatch batch, RowSink sink) throws Exception {
        int part = queue.part();
        Map.Entry<Long, Object> start = places.floorEntry(RowRef.of(part, queue.row()));
        boolean isOfPart = start != null && RowRef.part(start.getKey()) == part;
        long row = isOfPart ? RowRef.row(start.getKey()) - 1 : 0;
        batch.clear();
        try (Cursor cursor = open(part, wanted, isOfPart ? start.getValue() : null)) {
            while (queue.hasNextIn(part)) {
                Long better = places.floorKey(RowRef.of(part, queue.row()));
                if (better != null && better > RowRef.of(part, row + 1)) {
                    break;
                }
                if (!cursor.next()) {
                    throw new SourceException(
                            partName(part), "there are fewer rows than when it was read first", "check again");
                }
                row++;
                if (row == queue.row()) {
                    take(cursor, RowRef.of(part, row), batch);
                    queue.take();
                }
                if (batch.isFull()) {
                    sink.accept(batch);
                    batch.clear();
                }
            }
        }
        if (!batch.isEmpty()) {
            sink.accept(batch);
        }
    }

    /** Names of columns by their places. */
    protected static List<String> names(List<String> columns, int[] wanted) {
        return java.util.Arrays.stream(wanted).mapToObj(columns::get).toList();
    }
}
