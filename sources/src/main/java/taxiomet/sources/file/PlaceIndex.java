package taxiomet.sources.file;

import java.util.Arrays;

/** Where some rows of a file begin, so that single rows can be read without those before them. */
public final class PlaceIndex {
    private static final int MAX_PLACES = 1 << 16;

    private long[] rows = new long[16];
    private long[] lines = new long[16];
    private long[] offsets = new long[16];
    private int size;
    private long step = 128;

    /** Whether the place of a row is wanted: one in every so many, fewer as the file grows. */
    public boolean wants(long row) {
        return size == 0 ? row > 0 : row >= rows[size - 1] + step;
    }

    /** Remembers a place if it is wanted; as for {@link #add}. */
    public void offer(long row, long line, long offset) {
        if (wants(row)) {
            add(row, line, offset);
        }
    }

    /**
     * Remembers a place.
     *
     * @param row number of the row that begins there
     * @param line its line
     * @param offset of its first byte in the file
     */
    public void add(long row, long line, long offset) {
        if (size == MAX_PLACES) {
            thinOut();
            if (!wants(row)) {
                return;
            }
        }
        if (size == rows.length) {
            rows = Arrays.copyOf(rows, size * 2);
            lines = Arrays.copyOf(lines, size * 2);
            offsets = Arrays.copyOf(offsets, size * 2);
        }
        rows[size] = row;
        lines[size] = line;
        offsets[size++] = offset;
    }

    private void thinOut() {
        step *= 2;
        int kept = 0;
        for (int i = 0; i < size; i++) {
            if (kept == 0 || rows[i] >= rows[kept - 1] + step) {
                rows[kept] = rows[i];
                lines[kept] = lines[i];
                offsets[kept++] = offsets[i];
            }
        }
        size = kept;
    }

    public int size() {
        return size;
    }

    /** The last place at or before a row; -1 when there is none. */
    public int before(long row) {
        int found = Arrays.binarySearch(rows, 0, size, row);
        return found >= 0 ? found : -found - 2;
    }

    public long row(int place) {
        return rows[place];
    }

    public long line(int place) {
        return lines[place];
    }

    public long offset(int place) {
        return offsets[place];
    }
}
