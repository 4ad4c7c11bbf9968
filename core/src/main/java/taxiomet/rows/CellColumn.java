package taxiomet.rows;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** The cells of one column of a batch, as UTF-8 bytes in one flat array. A cell is null, or a text that may be empty. */
public final class CellColumn {
    private static final int NULL = -1;

    private byte[] bytes;
    private int used;
    private int[] starts;
    private int[] lengths;
    private int size;

    /** @param rows how many cells to make room for at first */
    public CellColumn(int rows) {
        starts = new int[rows];
        lengths = new int[rows];
        bytes = new byte[rows * 8];
    }

    public void clear() {
        size = 0;
        used = 0;
    }

    public int size() {
        return size;
    }

    /** How many bytes all cells take. */
    public int byteCount() {
        return used;
    }

    public boolean isNull(int row) {
        return lengths[row] == NULL;
    }

    /** The array that {@link #start} and {@link #length} point into; valid until the next cell is added. */
    public byte[] bytes() {
        return bytes;
    }

    public int start(int row) {
        return starts[row];
    }

    /** Length in bytes; -1 for null. */
    public int length(int row) {
        return lengths[row];
    }

    /** The cell as text, or null. */
    public String text(int row) {
        return isNull(row) ? null : new String(bytes, starts[row], lengths[row], StandardCharsets.UTF_8);
    }

    public void addNull() {
        ensureRow();
        starts[size] = used;
        lengths[size++] = NULL;
    }

    public void add(String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        byte[] target = reserve(utf8.length);
        System.arraycopy(utf8, 0, target, used, utf8.length);
        commit(used + utf8.length);
    }

    /** Makes room for that many more bytes; the caller writes them from {@link #byteCount()} on, then commits. */
    public byte[] reserve(int count) {
        if (bytes.length - used < count) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, used + count));
        }
        return bytes;
    }

    /** Ends a cell whose bytes run from {@link #byteCount()} to {@code end}, exclusive. */
    public void commit(int end) {
        ensureRow();
        starts[size] = used;
        lengths[size++] = end - used;
        used = end;
    }

    /** Takes back all cells from {@code row} on. */
    public void truncate(int row) {
        if (row < size) {
            used = starts[row];
            size = row;
        }
    }

    private void ensureRow() {
        if (size == starts.length) {
            starts = Arrays.copyOf(starts, size * 2 + 1);
            lengths = Arrays.copyOf(lengths, size * 2 + 1);
        }
    }
}
