package taxiomet.settle.sift;

import java.util.Optional;
import taxiomet.keys.RowSet;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.ForwardingSource;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.values.CellColumn;

/** The rows of a table without those that are set aside; rows that are fetched are those that were asked for. */
final class SoundRows extends ForwardingSource {
    private final RowSet aside;

    /** @param owned is closed by its owner */
    SoundRows(TableSource owned, RowSet aside) {
        super(owned);
        this.aside = aside;
    }

    @Override
    public Optional<ColumnFacts> facts(int column) {
        // What holds for all rows need not hold for some.
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
                        return batch == null ? null : sound(batch);
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

    /** The batch itself where none of its rows is set aside, otherwise a copy without them. */
    private RowBatch sound(RowBatch batch) {
        boolean areAll = batch.malformed().isEmpty();
        for (int row = 0; row < batch.size() && areAll; row++) {
            areAll = !aside.contains(batch.ref(row));
        }
        if (areAll) {
            return batch;
        }
        RowBatch copy = new RowBatch(batch.columnCount());
        for (int row = 0; row < batch.size(); row++) {
            if (aside.contains(batch.ref(row))) {
                continue;
            }
            for (int i = 0; i < batch.columnCount(); i++) {
                CellColumn cells = batch.column(i);
                if (cells.isNull(row)) {
                    copy.column(i).addNull();
                } else {
                    copy.column(i).add(cells.bytes(), cells.start(row), cells.length(row));
                }
            }
            copy.endRow(batch.ref(row), batch.line(row), 0);
        }
        batch.malformed().stream().filter(row -> !aside.contains(row.ref())).forEach(copy::addMalformed);
        copy.setNumber(batch.number());
        return copy;
    }

    @Override
    public void close() {
        // Its owner does.
    }
}
