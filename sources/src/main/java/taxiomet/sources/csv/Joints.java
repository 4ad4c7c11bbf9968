package taxiomet.sources.csv;

import java.util.Arrays;

/**
 * Where the rows of a part's chunks begin: for each chunk the offset of the first row that begins in it or behind, its number (0 when
 * the row that names the columns comes first) and its line. Each joint is known once the chunk before it has been taken apart,
 * and they are kept, so that a second pass knows them all.
 */
final class Joints {
    private long[] offsets = new long[16];
    private long[] rows = new long[16];
    private long[] lines = new long[16];
    private int known;
    private RuntimeException failure;
    private long bytesReadAgain;
    private long emptyLines;

    Joints(long firstOffset, boolean hasHeader) {
        add(firstOffset, hasHeader ? 0 : 1, 1);
    }

    private void add(long offset, long row, long line) {
        if (known == offsets.length) {
            offsets = Arrays.copyOf(offsets, known * 2);
            rows = Arrays.copyOf(rows, known * 2);
            lines = Arrays.copyOf(lines, known * 2);
        }
        offsets[known] = offset;
        rows[known] = row;
        lines[known++] = line;
    }

    /** Waits until it is known where a chunk's rows begin. */
    synchronized void await(int chunk) {
        while (known <= chunk && failure == null) {
            try {
                wait();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                failure = new IllegalStateException("interrupted");
            }
        }
        if (failure != null) {
            throw failure;
        }
    }

    synchronized boolean isKnown(int chunk) {
        return known > chunk;
    }

    /** Makes known where the rows of the next chunk begin, unless it is known already. */
    synchronized void add(int chunk, long offset, long row, long line) {
        if (chunk == known) {
            add(offset, row, line);
            notifyAll();
        }
    }

    /** A chunk cannot be taken apart: nobody shall wait for those behind it. */
    synchronized void fail(RuntimeException e) {
        failure = e;
        notifyAll();
    }

    synchronized long offset(int chunk) {
        return offsets[chunk];
    }

    synchronized long row(int chunk) {
        return rows[chunk];
    }

    synchronized long line(int chunk) {
        return lines[chunk];
    }

    /** Counts lines without any field. */
    synchronized void addEmptyLines(long count) {
        emptyLines += count;
    }

    synchronized long emptyLines() {
        return emptyLines;
    }

    /** Counts bytes that were looked at again behind open quotes; gives how many there are in all. */
    synchronized long addReadAgain(long count) {
        bytesReadAgain += count;
        return bytesReadAgain;
    }
}
