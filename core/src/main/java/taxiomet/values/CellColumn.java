package taxiomet.values;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * The cells of one column of a batch: places in a flat array of UTF-8 bytes, which is the column's own or one that all columns
 * of a batch share. A cell is null, or a text that may be empty. {@link ValueCells} keep values as such until somebody asks for
 * their texts.
 */
public sealed class CellColumn permits ValueCells {
    /** So many bytes of the array can be read behind the end of any cell: words may be loaded without asking. */
    public static final int PADDING = 16;

    /** The length of a null. */
    public static final int NULL = -1;

    private byte[] bytes;
    private int used;
    /** For each cell its start in the high half, its length in the low one. */
    private long[] spans;

    private int size;

    /** @param rows how many cells to make room for at first */
    public CellColumn(int rows) {
        spans = new long[rows];
        bytes = new byte[rows * 8 + PADDING];
    }

    /** A cell as one long: where it starts, and how many bytes it has ({@link #NULL} for a null). */
    public static long span(int start, int length) {
        return (long) start << 32 | length & 0xFFFFFFFFL;
    }

    /** Sees to it that the texts of all cells are there; they are, where cells come as texts. */
    void print() {}

    /** Whether the cells are values that nobody has printed; they are in {@link ValueCells}. */
    public boolean areValues() {
        return false;
    }

    /** Takes all cells out, so that it can be filled again. */
    public void clear() {
        size = 0;
        used = 0;
    }

    /** How many cells there are. */
    public int size() {
        return size;
    }

    /** How many bytes all cells take that were added one by one. */
    public int byteCount() {
        print();
        return used;
    }

    /** Whether a cell is null. */
    public boolean isNull(int row) {
        print();
        return (int) spans[row] == NULL;
    }

    /** The array that {@link #start} and {@link #length} point into; valid until the next cell is added. */
    public byte[] bytes() {
        print();
        return bytes;
    }

    /** Where a cell begins in {@link #bytes}. */
    public int start(int row) {
        print();
        return (int) (spans[row] >>> 32);
    }

    /** Length in bytes; -1 for null. */
    public int length(int row) {
        print();
        return (int) spans[row];
    }

    /** All cells as {@link #span spans}: the array itself, with room for at least so many, for whoever fills it. */
    public long[] spans(int rows) {
        print();
        return room(rows);
    }

    private long[] room(int rows) {
        if (spans.length < rows) {
            spans = Arrays.copyOf(spans, Math.max(rows, spans.length * 2));
        }
        return spans;
    }

    /**
     * Takes the first {@code count} of {@link #spans} as the cells.
     *
     * @param shared what they point into, with {@link #PADDING} behind the last of them
     */
    public void set(byte[] shared, int count) {
        bytes = shared;
        size = count;
    }

    /** The cell as text, or null. */
    public String text(int row) {
        return isNull(row) ? null : new String(bytes, start(row), length(row), StandardCharsets.UTF_8);
    }

    /** Adds a null. */
    public void addNull() {
        room(size + 1)[size++] = span(used, NULL);
    }

    /** Adds a text. */
    public void add(String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        add(utf8, 0, utf8.length);
    }

    /** Adds a cell whose bytes stand elsewhere. */
    public void add(byte[] from, int start, int length) {
        System.arraycopy(from, start, reserve(length), used, length);
        commit(used + length);
    }

    /** Adds a cell of another column: its text, or null. */
    public void add(CellColumn from, int row) {
        if (from.isNull(row)) {
            addNull();
        } else {
            add(from.bytes(), from.start(row), from.length(row));
        }
    }

    /**
     * Adds cells that stand one behind the other elsewhere.
     *
     * @param places their {@link #span spans} in {@code from}, ascending
     * @param first the number of the first of them, and {@code count} how many
     */
    public void addAll(byte[] from, long[] places, int first, int count) {
        if (count == 0) {
            return;
        }
        int start = (int) (places[first] >>> Integer.SIZE);
        long last = places[first + count - 1];
        int length = (int) (last >>> Integer.SIZE) + (int) last - start;
        System.arraycopy(from, start, reserve(length), used, length);
        long moved = (long) (used - start) << Integer.SIZE;
        long[] own = room(size + count);
        for (int i = 0; i < count; i++) {
            own[size + i] = places[first + i] + moved;
        }
        size += count;
        used += length;
    }

    /** Makes room for that many more bytes; the caller writes them from {@link #byteCount()} on, then commits. */
    public byte[] reserve(int count) {
        if (bytes.length - PADDING - used < count) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, used + count + PADDING));
        }
        return bytes;
    }

    /** Ends a cell whose bytes run from {@link #byteCount()} to {@code end}, exclusive. */
    public void commit(int end) {
        room(size + 1)[size++] = span(used, end - used);
        used = end;
    }

    /** Takes back all cells from {@code row} on that were added one by one. */
    public void truncate(int row) {
        if (row < size) {
            used = (int) (spans[row] >>> 32);
            size = row;
        }
    }
}
