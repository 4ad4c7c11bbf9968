package taxiomet.values;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import taxiomet.charter.Column;

/**
 * The cells of one column of a batch, read as values of the column's type.
 *
 * <p>What {@link #high} and {@link #low} hold: a whole number or a numeric's digits without its point, and its scale in
 * {@code low} ({@link #WIDE} when it takes more than a long: then the cell's text is the value); the bits of a double; 0
 * or 1 of a boolean; microseconds since 1970-01-01 or since midnight; both halves of a uuid; for a text, {@code low} is
 * the length in bytes that counts.
 */
public final class TypedColumn {
    public static final byte GOOD = 0;
    public static final byte NULL = 1;
    /** Of its type, but not written as the type is usually written. */
    public static final byte ODD = 2;
    /** Not of its type. */
    public static final byte BAD = 3;
    /** In {@link #low}: the number does not fit into {@link #high}. */
    public static final long WIDE = Long.MIN_VALUE;

    private static final int FIRST_ROOM = 64;

    private final Column column;
    private final ValueReader reader;
    private final boolean keepsValues;
    private CellColumn cells;
    private int statesSeen;
    private int filled;
    byte[] states = new byte[0];
    long[] highs = new long[0];
    long[] lows = new long[0];
    Refusal[] refusals = new Refusal[0];

    /** A column whose values are kept. */
    public TypedColumn(Column column) {
        this(column, true);
    }

    /** @param keepsValues whether {@link #high} and {@link #low} will be asked for; without them reading is quicker */
    public TypedColumn(Column column, boolean keepsValues) {
        this.column = column;
        this.reader = ValueReader.of(column);
        this.keepsValues = keepsValues;
    }

    /** Reads all cells of a batch's column; what was read before is forgotten. */
    public void read(CellColumn from) {
        cells = from;
        int size = from.size();
        if (states.length < size) {
            states = new byte[size];
            refusals = new Refusal[size];
            if (keepsValues) {
                highs = new long[size];
                lows = new long[size];
            }
        } else if (statesSeen != 0) {
            // Most columns are good throughout: readers write down only what is not.
            Arrays.fill(states, GOOD);
        }
        // Asked like this, ValueCells is loaded only where a source has values: all calls below keep one target
        // without it.
        statesSeen = from.areValues() && reader.takes(((ValueCells) from).kind())
                ? reader.readValues((ValueCells) from, this)
                : reader.readAll(from, this);
    }

    /** Takes all values out, so that it can be filled one by one instead of being read from cells: by those who have them already. */
    public void clear() {
        if (cells == null) {
            cells = new CellColumn(FIRST_ROOM);
        }
        cells.clear();
        filled = 0;
        statesSeen = 0;
    }

    /** Adds a null. */
    public void addNull() {
        fill(NULL, 0, 0);
        cells.addNull();
        statesSeen |= 1 << NULL;
    }

    /** Adds a value of a type that is no text, as {@link #high} and {@link #low} have it. */
    public void add(long high, long low) {
        fill(GOOD, high, low);
        cells.addNull();
    }

    /** Adds a number of more digits than a long has. */
    public void addWide(BigDecimal number) {
        fill(GOOD, 0, WIDE);
        cells.add(number.toString());
    }

    /**
     * Adds a text.
     *
     * @param length in bytes
     * @param writer writes them in UTF-8, from a place of an array on
     */
    public void addText(int length, TextWriter writer) {
        fill(GOOD, 0, length);
        int start = cells.byteCount();
        writer.write(cells.reserve(length), start);
        cells.commit(start + length);
    }

    /** Writes the bytes of a text from a place of an array on. */
    public interface TextWriter {
        void write(byte[] bytes, int start);
    }

    private void fill(byte state, long high, long low) {
        if (filled == states.length) {
            int room = Math.max(FIRST_ROOM, filled * 2);
            states = Arrays.copyOf(states, room);
            highs = Arrays.copyOf(highs, room);
            lows = Arrays.copyOf(lows, room);
        }
        states[filled] = state;
        highs[filled] = high;
        lows[filled++] = low;
    }

    /** Whether values are to be kept, not only states. */
    boolean keepsValues() {
        return keepsValues;
    }

    /** Reads one cell that is not null; gives its state. */
    byte readOne(ValueReader with, byte[] bytes, int row, int start, int length) {
        byte state = with.read(bytes, start, length);
        keep(with, row, state);
        return state;
    }

    /** Takes what a reader has just read as the value of a row. */
    void keep(ValueReader with, int row, byte state) {
        states[row] = state;
        if (state == BAD) {
            refusals[row] = with.refusal;
        } else if (keepsValues) {
            highs[row] = with.high;
            lows[row] = with.low;
        }
    }

    /** Whether any cell has this state, which is not {@link #GOOD}. */
    public boolean has(byte state) {
        return (statesSeen & 1 << state) != 0;
    }

    /** Whether every cell is a value of the column's type. */
    public boolean isAllValues() {
        return (statesSeen & (1 << NULL | 1 << BAD)) == 0;
    }

    /** {@link #high} of all cells: the array itself, to be read only. */
    public long[] highs() {
        return highs;
    }

    /** {@link #low} of all cells: the array itself, to be read only. */
    public long[] lows() {
        return lows;
    }

    /** What is declared. */
    public Column column() {
        return column;
    }

    /** The cells as they were written. */
    public CellColumn cells() {
        return cells;
    }

    /** {@link #NULL}, {@link #GOOD}, {@link #ODD} or {@link #BAD}. */
    public byte state(int row) {
        return states[row];
    }

    /** Whether there is a value of the column's type. */
    public boolean isValue(int row) {
        byte state = states[row];
        return state == GOOD || state == ODD;
    }

    /** The text that counts: for a char(n) without its trailing blanks, for other types the cell as written. */
    public String text(int row) {
        int length = textLength(row);
        return new String(cells.bytes(), cells.start(row), length, StandardCharsets.UTF_8);
    }

    /** How many code points the text that counts has. */
    public long codePoints(int row) {
        int length = textLength(row);
        return TextReader.codePoints(cells.bytes(), cells.start(row), cells.start(row) + length);
    }

    private int textLength(int row) {
        return column.type().isText() ? (int) lows[row] : cells.length(row);
    }

    /** The first half of a value; see above. */
    public long high(int row) {
        return highs[row];
    }

    /** The second half of a value; see above. */
    public long low(int row) {
        return lows[row];
    }

    /** Why a cell that is {@link #BAD} is not of its type. */
    public Refusal refusal(int row) {
        return refusals[row];
    }
}
