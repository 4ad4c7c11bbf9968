package taxiomet.settle.sift;

import java.util.Optional;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.ForwardingSource;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowEdits.RowEdit;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.values.CellColumn;

/** The rows of a table with some left out and others with other cells, as they come; rows that are fetched are those that were asked for. */
abstract class PatchedRows extends ForwardingSource {
    /** @param owned is closed by its owner */
    protected PatchedRows(TableSource owned) {
        super(owned);
    }

    /** What becomes of a row; null where it stays as it is. Asked by several threads. */
    protected abstract RowEdit editOf(long ref);

    @Override
    public Optional<ColumnFacts> facts(int column) {
        // What holds for the rows as they were read need not hold for others.
        return Optional.empty();
    }

    @Override
    public Scan scan(int[] columns, RefRanges rows) {
        Scan scan = owned().scan(columns, rows);
        return new Scan() {
            @Override
            public BatchReader reader() {
                BatchReader from = scan.reader();
                return new BatchReader() {
                    @Override
                    public RowBatch next() {
                        RowBatch batch = from.next();
                        return batch == null ? null : patched(batch, columns);
                    }

                    @Override
                    public void close() {
                        from.close();
                    }
                };
            }

            @Override
            public void close() {
                scan.close();
            }
        };
    }

    @Override
    public void fetch(RefCursor refs, int[] columns, RowSink sink) {
        owned().fetch(refs, columns, batch -> sink.accept(patched(batch, columns)));
    }

    /** The batch itself where none of its rows is patched, otherwise a copy. */
    private RowBatch patched(RowBatch batch, int[] columns) {
        int first = 0;
        while (first < batch.size() && editOf(batch.ref(first)) == null) {
            first++;
        }
        boolean areMalformedAsTheyAre = true;
        for (RowBatch.MalformedRow row : batch.malformed()) {
            areMalformedAsTheyAre &= editOf(row.ref()) == null;
        }
        if (first == batch.size() && areMalformedAsTheyAre) {
            return batch;
        }
        RowBatch copy = new RowBatch(batch.columnCount());
        for (int row = 0; row < batch.size(); row++) {
            RowEdit edit = editOf(batch.ref(row));
            if (edit != null && edit.isDeleted()) {
                continue;
            }
            for (int i = 0; i < batch.columnCount(); i++) {
                if (edit != null && edit.cells().containsKey(columns[i])) {
                    add(copy.column(i), edit.cells().get(columns[i]));
                } else {
                    copy.column(i).add(batch.column(i), row);
                }
            }
            copy.endRow(batch.ref(row), batch.line(row), 0);
        }
        batch.malformed().stream().filter(row -> editOf(row.ref()) == null).forEach(copy::addMalformed);
        copy.setNumber(batch.number());
        return copy;
    }

    private static void add(CellColumn to, String cell) {
        if (cell == null) {
            to.addNull();
        } else {
            to.add(cell);
        }
    }

    @Override
    public void close() {
        // Its owner does.
    }
}
