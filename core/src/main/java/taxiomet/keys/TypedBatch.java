package taxiomet.keys;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.rows.RowBatch;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;
import taxiomet.work.Secret;

/** A batch of rows with the cells of some columns read as values of their types, and as parts of keys where a check asks for them. */
public final class TypedBatch {
    private final Secret secret;
    private final int[] columnsRead;
    private final TypedColumn[] typed;
    /** For each column, the keys made of it so far: few, since each is in another form. */
    private final ColumnKeys[][] keys;

    private RowBatch rows;
    private int size;

    /**
     * @param columnsRead places of the table's columns, in the order in which the batches hold them
     * @param valued those of them whose values are asked for; of the others only states are kept
     * @param secret of the run
     */
    public TypedBatch(Table table, int[] columnsRead, BitSet valued, Secret secret) {
        this(table.columns(), columnsRead, valued, secret);
    }

    private TypedBatch(List<Column> columns, int[] columnsRead, BitSet valued, Secret secret) {
        this.secret = secret;
        this.columnsRead = columnsRead.clone();
        typed = new TypedColumn[columns.size()];
        keys = new ColumnKeys[columns.size()][];
        for (int column : columnsRead) {
            typed[column] = new TypedColumn(columns.get(column), valued.get(column));
            keys[column] = new ColumnKeys[0];
        }
    }

    /** A batch of which the values of all columns read are asked for. */
    public static TypedBatch ofValues(Table table, int[] columnsRead, Secret secret) {
        BitSet all = new BitSet();
        for (int column : columnsRead) {
            all.set(column);
        }
        return new TypedBatch(table, columnsRead, all, secret);
    }

    /** A batch of one column, which stands on its own. */
    public static TypedBatch of(Column column, CellColumn cells, Secret secret) {
        TypedBatch batch = new TypedBatch(List.of(column), new int[] {0}, BitSet.valueOf(new long[] {1}), secret);
        batch.typed[0].read(cells);
        batch.size = cells.size();
        return batch;
    }

    /**
     * A batch whose columns are {@link TypedColumn#clear filled} value by value, and not read from rows: it has no references, and no
     * size of its own.
     */
    public static TypedBatch toFill(List<Column> columns) {
        int[] all = new int[columns.size()];
        Arrays.setAll(all, i -> i);
        BitSet valued = new BitSet();
        valued.set(0, all.length);
        return new TypedBatch(columns, all, valued, null);
    }

    /** Reads the values of a batch; what was read before is forgotten. */
    public void read(RowBatch batch) {
        rows = batch;
        size = batch.size();
        for (int i = 0; i < columnsRead.length; i++) {
            typed[columnsRead[i]].read(batch.column(i));
            for (ColumnKeys made : keys[columnsRead[i]]) {
                made.forget();
            }
        }
    }

    /** How many sound rows the batch has. */
    public int size() {
        return size;
    }

    /** The reference of a row of the batch. */
    public long ref(int row) {
        return rows.ref(row);
    }

    RowBatch rows() {
        return rows;
    }

    /** The column at a place in the table; it is among those read. */
    public TypedColumn column(int column) {
        return typed[column];
    }

    /** The keys of a column's values, as they are compared in a form; made once, however many checks ask. */
    public ColumnKeys keys(int column, KeyForm form) {
        for (ColumnKeys made : keys[column]) {
            if (made.form().equals(form)) {
                made.make(typed[column], size);
                return made;
            }
        }
        ColumnKeys[] more = Arrays.copyOf(keys[column], keys[column].length + 1);
        more[more.length - 1] = new ColumnKeys(form, secret);
        keys[column] = more;
        return keys(column, form);
    }
}
