package taxiomet.keys;

import java.util.List;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Comparison;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;
import taxiomet.work.Secret;

/**
 * Makes 128-bit keys of the cells of some columns. Values that fit into longs are kept as they are: one as the low half, two as both
 * halves, more of them side by side in the low half, as long as they are small; the high half is not negative then. Any other key is a
 * {@link Fingerprint}, whose high half is negative.
 */
public final class KeyEncoder {
    /** How many bits the parts behind the first have together, so that they stand side by side in the low half. */
    private static final int BITS_BEHIND_FIRST = 62;

    private static final int RAW_KIND = 6;
    private static final int COMPOSITE_KIND = 16;

    private final int[] columns;
    private final KeyForm[] forms;
    private final TypedColumn[] current;
    private final ColumnKeys[] parts;
    private final int bitsOfPart;
    private final Secret secret;
    private final Fingerprint fingerprint;
    /** Of one cell of a key that is encoded as it was written. */
    private final Fingerprint cell;

    private final long[] numbers;
    private long[] ownHighs = new long[0];
    private long[] ownLows = new long[0];
    private long[] highs;
    private long[] lows;
    private int nulls;
    private int illTyped;
    private long high;
    private long low;

    /**
     * @param columns places of the columns in their table, in key order
     * @param forms how each of them is compared
     * @param secret of the run
     */
    public KeyEncoder(int[] columns, List<KeyForm> forms, Secret secret) {
        this.secret = secret;
        this.fingerprint = new Fingerprint(secret);
        this.cell = new Fingerprint(secret);
        this.columns = columns.clone();
        this.forms = forms.toArray(new KeyForm[0]);
        this.current = new TypedColumn[columns.length];
        this.parts = new ColumnKeys[columns.length];
        this.numbers = new long[columns.length];
        this.bitsOfPart = columns.length > 2 ? BITS_BEHIND_FIRST / (columns.length - 1) : Long.SIZE;
    }

    /** Another encoder for the same key, to be used on another thread. */
    public KeyEncoder copy() {
        return new KeyEncoder(columns, forms(), secret);
    }

    /** How each of the columns is compared. */
    public List<KeyForm> forms() {
        return List.of(forms);
    }

    /** Whether texts are compared as they are written, and numbers not only about. */
    public boolean comparesAsWritten() {
        return forms().stream()
                .allMatch(form -> form.comparison() == Comparison.EXACT && form.family() != Family.APPROXIMATE_NUMBER);
    }

    /** Places of the columns in their table, in key order. */
    public int[] columns() {
        return columns.clone();
    }

    /** The batch whose rows come next. */
    public void start(TypedBatch batch) {
        for (int i = 0; i < columns.length; i++) {
            current[i] = batch.column(columns[i]);
            parts[i] = batch.keys(columns[i], forms[i]);
        }
    }

    /** Whether every cell of every row of the batch is a value. */
    public boolean areAllComplete() {
        for (TypedColumn column : current) {
            if (!column.isAllValues()) {
                return false;
            }
        }
        return true;
    }

    /** Makes the keys of all rows at once: {@link #highs} and {@link #lows}. Those of rows with an ill-typed cell say nothing. */
    public void encodeAll(int size) {
        if (columns.length == 1) {
            highs = parts[0].highs();
            lows = parts[0].lows();
            return;
        }
        if (ownHighs.length < size) {
            ownHighs = new long[size];
            ownLows = new long[size];
        }
        highs = ownHighs;
        lows = ownLows;
        if (columns.length == 2 && parts[0].isExact() && parts[1].isExact()) {
            long[] firsts = parts[0].lows();
            System.arraycopy(parts[1].lows(), 0, lows, 0, size);
            System.arraycopy(firsts, 0, highs, 0, size);
            for (int row = 0; row < size; row++) {
                if (firsts[row] < 0) {
                    encode(row);
                    highs[row] = high;
                    lows[row] = low;
                }
            }
            return;
        }
        for (int row = 0; row < size; row++) {
            encode(row);
            highs[row] = high;
            lows[row] = low;
        }
    }

    /** First halves of the keys of all rows, after {@link #encodeAll}. */
    public long[] highs() {
        return highs;
    }

    /** Second halves of the keys of all rows, after {@link #encodeAll}. */
    public long[] lows() {
        return lows;
    }

    /** Looks at a row: afterwards {@link #nulls} and {@link #illTyped} are known. */
    public void look(int row) {
        nulls = 0;
        illTyped = 0;
        for (TypedColumn column : current) {
            byte state = column.state(row);
            if (state == TypedColumn.NULL) {
                nulls++;
            } else if (state == TypedColumn.BAD) {
                illTyped++;
            }
        }
    }

    /** How many of the row's cells are null. */
    public int nulls() {
        return nulls;
    }

    /** How many of the row's cells are not of their type. */
    public int illTyped() {
        return illTyped;
    }

    /** The state of one of the key's cells, by its place in the key. */
    public byte state(int row, int place) {
        return current[place].state(row);
    }

    /** Whether no cell of the row looked at is null or ill-typed. */
    public boolean isComplete() {
        return nulls == 0 && illTyped == 0;
    }

    /** Whether all cells of the row looked at are null. */
    public boolean isAllNull() {
        return nulls == columns.length;
    }

    /** Makes the key of a row none of whose cells is ill-typed; nulls are equal to one another. */
    public void encode(int row) {
        high = parts[0].highs()[row];
        low = parts[0].lows()[row];
        if (columns.length == 1 || joinExactly(row)) {
            return;
        }
        fingerprint.ofPair(parts[0].highs()[row], parts[0].lows()[row], COMPOSITE_KIND);
        for (int i = 1; i < parts.length; i++) {
            fingerprint.add(parts[i].highs()[row], parts[i].lows()[row]);
        }
        takeFingerprint();
    }

    /** Makes the key of whole numbers, one for each column, as {@link #encode} makes it of cells that hold them. */
    public void encodeNumbers(long[] values) {
        high = 0;
        low = values[0];
        if (columns.length == 1 || joinExactly(values)) {
            return;
        }
        fingerprint.ofPair(0, values[0], COMPOSITE_KIND);
        for (int i = 1; i < values.length; i++) {
            fingerprint.add(0, values[i]);
        }
        takeFingerprint();
    }

    /** Puts values that are longs side by side; false when they are none, or too large. */
    private boolean joinExactly(int row) {
        for (int i = 0; i < parts.length; i++) {
            if (parts[i].highs()[row] != 0) {
                return false;
            }
            numbers[i] = parts[i].lows()[row];
        }
        return joinExactly(numbers);
    }

    private boolean joinExactly(long[] values) {
        if (values[0] < 0 || bitsOfPart < 2) {
            return false;
        }
        long joined = values[1];
        if (bitsOfPart < Long.SIZE) {
            joined = 0;
            for (int i = 1; i < values.length; i++) {
                if (values[i] >>> bitsOfPart != 0) {
                    return false;
                }
                joined = joined << bitsOfPart | values[i];
            }
        }
        high = values[0];
        low = joined;
        return true;
    }

    private void takeFingerprint() {
        high = fingerprint.high();
        low = fingerprint.low();
    }

    /** Makes the key of one of the row's cells, which is neither null nor ill-typed, by its place in the key. */
    public void encodePart(int row, int place) {
        fingerprint.ofPair(place, 0, COMPOSITE_KIND);
        fingerprint.add(parts[place].highs()[row], parts[place].lows()[row]);
        takeFingerprint();
    }

    /** Makes a key of one of the row's cells as it was written, null or ill-typed, by its place in the key. */
    public void encodePartAsWritten(int row, int place) {
        CellColumn cells = current[place].cells();
        if (cells.isNull(row)) {
            fingerprint.ofPair(place, 0, ColumnKeys.NULL_KIND);
        } else {
            fingerprint.ofBytes(cells.bytes(), cells.start(row), cells.length(row), RAW_KIND);
        }
        takeFingerprint();
    }

    /** Makes a key of the cells as they were written, for rows that have an ill-typed value. */
    public void encodeAsWritten(int row) {
        fingerprint.ofPair(columns.length, 0, RAW_KIND);
        for (TypedColumn column : current) {
            CellColumn cells = column.cells();
            if (cells.isNull(row)) {
                cell.ofPair(0, 0, ColumnKeys.NULL_KIND);
            } else {
                cell.ofBytes(cells.bytes(), cells.start(row), cells.length(row), RAW_KIND);
            }
            fingerprint.add(cell.high(), cell.low());
        }
        takeFingerprint();
    }

    /** The first half of the key last encoded. */
    public long high() {
        return high;
    }

    /** The second half of the key last encoded. */
    public long low() {
        return low;
    }
}
