package taxiomet.check;

import java.util.List;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.rows.RowBatch;
import taxiomet.rows.TypedColumn;

/** A batch of rows with the cells of some columns read as values of their types. */
final class TypedBatch {
    private final int[] columnsRead;
    private final TypedColumn[] typed;
    private RowBatch rows;

    /** @param columnsRead places of the table's columns, in the order in which the batches hold them */
    TypedBatch(Table table, int[] columnsRead) {
        this.columnsRead = columnsRead.clone();
        List<Column> columns = table.columns();
        typed = new TypedColumn[columns.size()];
        for (int column : columnsRead) {
            typed[column] = new TypedColumn(columns.get(column));
        }
    }

    void read(RowBatch batch) {
        rows = batch;
        for (int i = 0; i < columnsRead.length; i++) {
            typed[columnsRead[i]].read(batch.column(i));
        }
    }

    int size() {
        return rows.size();
    }

    long ref(int row) {
        return rows.ref(row);
    }

    RowBatch rows() {
        return rows;
    }

    /** The column at a place in the table; it is among those read. */
    TypedColumn column(int column) {
        return typed[column];
    }
}
