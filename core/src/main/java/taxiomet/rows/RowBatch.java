package taxiomet.rows;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import taxiomet.values.CellColumn;
import taxiomet.values.ValueCells;

/**
 * Some rows of a table, column by column. Sound rows stand in the columns; rows that could not be taken apart stand in
 * {@link #malformed()}. A batch is filled again by its source: nothing of it may be kept.
 */
public final class RowBatch {
    /** How many rows a batch takes that is filled row by row; fewer where there are many columns. */
    public static final int ROWS = 2_000;

    private static final int LEAST_ROWS = 64;
    private static final int CELLS = 400_000;
    /** How many bytes of cells end a batch before it has all its rows. */
    public static final int BYTES = 4 << 20;

    private final CellColumn[] columns;
    private final int fullAt;
    private long[] refs;
    private long[] lines;
    private final List<MalformedRow> malformed = new ArrayList<>();
    private int size;
    private long bytes;
    private long number;

    /**
     * A row that is not a row of its table.
     *
     * @param ref where it stands
     * @param line the line it begins in, 1 for the first of the file
     * @param reason what is wrong with it, as a clause
     * @param raw the line it begins in as it stands there, of a long one the first {@link #MOST_RAW} characters; U+FFFD for bytes that
     *     are none in the file's encoding
     */
    public record MalformedRow(long ref, long line, String reason, String raw) {
        public static final int MOST_RAW = 1_000;
    }

    /** For cells that come as texts. */
    public RowBatch(int columnCount) {
        this(columnCount, CellColumn::new);
    }

    /** For cells of which many come as values of their types. */
    public static RowBatch ofValues(int columnCount) {
        return new RowBatch(columnCount, ValueCells::new);
    }

    private RowBatch(int columnCount, IntFunction<CellColumn> newColumn) {
        fullAt = Math.max(LEAST_ROWS, Math.min(ROWS, CELLS / Math.max(1, columnCount)));
        refs = new long[fullAt];
        lines = new long[fullAt];
        columns = new CellColumn[columnCount];
        for (int i = 0; i < columnCount; i++) {
            columns[i] = newColumn.apply(fullAt);
        }
    }

    /** Takes all rows out, so that it can be filled again. */
    public void clear() {
        size = 0;
        bytes = 0;
        malformed.clear();
        for (CellColumn column : columns) {
            column.clear();
        }
    }

    /**
     * Ends a row whose cells have been added to all columns.
     *
     * @param byteCount about how many bytes the cells take
     */
    public void endRow(long ref, long line, long byteCount) {
        if (size == refs.length) {
            ensureRows(size + 1);
        }
        bytes += byteCount;
        refs[size] = ref;
        lines[size++] = line;
    }

    private void ensureRows(int rows) {
        if (refs.length < rows) {
            int room = Math.max(rows, refs.length * 2);
            refs = Arrays.copyOf(refs, room);
            lines = Arrays.copyOf(lines, room);
        }
    }

    /** Adds a row that is none of the table. */
    public void addMalformed(MalformedRow row) {
        malformed.add(row);
    }

    /** Takes all rows at once, for columns that were {@link CellColumn#set set} at once; references and lines go into the arrays given. */
    public void setRows(int rows, RowNames names) {
        ensureRows(rows);
        size = rows;
        names.fill(refs, lines);
    }

    /** Fills in the references and lines of all rows of a batch. */
    public interface RowNames {
        void fill(long[] refs, long[] lines);
    }

    /** Says which run of its table this is, 0 for the first. */
    public void setNumber(long run) {
        number = run;
    }

    /** Which run of its table this is, 0 for the first. */
    public long number() {
        return number;
    }

    /** How many more rows should go in, those of few bytes. */
    public int room() {
        return Math.max(0, fullAt - size);
    }

    /** Whether no more rows should go in. */
    public boolean isFull() {
        return size >= fullAt || malformed.size() >= fullAt || bytes >= BYTES;
    }

    /** Whether it has neither sound nor malformed rows. */
    public boolean isEmpty() {
        return size == 0 && malformed.isEmpty();
    }

    /** How many sound rows it has. */
    public int size() {
        return size;
    }

    /** How many columns it has. */
    public int columnCount() {
        return columns.length;
    }

    /** The cells of a column, in the order in which columns were asked for. */
    public CellColumn column(int index) {
        return columns[index];
    }

    /** The {@link RowRef} of a row of this batch. */
    public long ref(int row) {
        return refs[row];
    }

    /** The line in which a row of this batch begins, 1 for the first of its file; 0 where there are no lines. */
    public long line(int row) {
        return lines[row];
    }

    /** The rows that could not be taken apart. */
    public List<MalformedRow> malformed() {
        return malformed;
    }
}
