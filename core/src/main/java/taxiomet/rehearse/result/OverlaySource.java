package taxiomet.rehearse.result;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.ForwardingSource;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowEdits;
import taxiomet.rows.RowEdits.RowEdit;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.values.CellColumn;

/** The rows of a table as they would be: those that were read, without the deleted and with new values, then the new ones. */
public final class OverlaySource extends ForwardingSource {
    private final ReachedTable table;
    /** Ascending. */
    private final ReachedRow[] changed;

    private final List<ReachedRow> made;

    /** @param read the rows as they were read, some or all */
    public OverlaySource(TableSource read, ReachedTable table) {
        super(read);
        this.table = table;
        this.changed = table.changedRows();
        this.made = table.madeRows();
    }

    boolean hasNewRows() {
        return !made.isEmpty();
    }

    /** What is different from what was read. */
    public RowEdits edits() {
        NavigableMap<Long, RowEdit> edits = new TreeMap<>();
        for (ReachedRow row : changed) {
            Map<Integer, String> cells = new HashMap<>();
            for (int column = 0; column < table.width() && !row.isGone; column++) {
                if (isNew(row, column)) {
                    cells.put(column, table.codec(column).write(row.value(column)));
                }
            }
            edits.put(row.ref, new RowEdit(row.isGone, cells));
        }
        List<List<String>> rows = new ArrayList<>();
        for (ReachedRow row : made) {
            List<String> cells = new ArrayList<>();
            for (int column = 0; column < table.width(); column++) {
                cells.add(table.codec(column).write(row.value(column)));
            }
            rows.add(cells);
        }
        return new RowEdits(edits, rows);
    }

    @Override
    public Optional<ColumnFacts> facts(int column) {
        // What held for the rows as they were read need not hold for new values.
        return Optional.empty();
    }

    @Override
    public String partName(int part) {
        return part < owned().partCount() ? owned().partName(part) : "";
    }

    @Override
    public int partCount() {
        return owned().partCount() + 1;
    }

    @Override
    public Scan scan(int[] columns, RefRanges ranges) {
        Scan scan = owned().scan(columns, ranges);
        return new Scan() {
            @Override
            public BatchReader reader() {
                return new Reader(scan.reader(), columns);
            }

            @Override
            public void close() {
                scan.close();
            }
        };
    }

    /** With new rows there is one reader only: they are a run of their own behind all others. */
    private final class Reader implements Scan.BatchReader {
        private final Scan.BatchReader from;
        private final int[] columns;
        private long runs;
        private boolean isThrough;

        Reader(Scan.BatchReader from, int[] columns) {
            this.from = from;
            this.columns = columns;
        }

        @Override
        public RowBatch next() {
            RowBatch batch = isThrough ? null : from.next();
            if (batch != null) {
                runs = batch.number() + 1;
                return patched(batch, columns);
            }
            if (isThrough || made.isEmpty()) {
                return null;
            }
            isThrough = true;
            RowBatch last = new RowBatch(columns.length);
            made.forEach(row -> add(last, row, columns));
            last.setNumber(runs);
            return last;
        }

        @Override
        public void close() {
            from.close();
        }
    }

    private static long refOf(ReachedRow row, int part) {
        return RowRef.of(part, RowRef.row(row.ref));
    }

    private void add(RowBatch batch, ReachedRow row, int[] columns) {
        long bytes = 0;
        for (int i = 0; i < columns.length; i++) {
            bytes += add(batch.column(i), row, columns[i]);
        }
        batch.endRow(refOf(row, owned().partCount()), 0, bytes);
    }

    private long add(CellColumn to, ReachedRow row, int column) {
        String cell = table.codec(column).write(row.value(column));
        if (cell == null) {
            to.addNull();
            return 0;
        }
        to.add(cell);
        return cell.length();
    }

    /** The place of the first changed row at or behind a reference. */
    private int firstFrom(long ref) {
        int low = 0;
        int high = changed.length;
        while (low < high) {
            int middle = low + high >>> 1;
            if (changed[middle].ref < ref) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** The batch itself where none of its rows is changed, otherwise a copy with the changes. */
    private RowBatch patched(RowBatch batch, int[] columns) {
        int next = batch.size() == 0 ? changed.length : firstFrom(batch.ref(0));
        if (next == changed.length || changed[next].ref > batch.ref(batch.size() - 1)) {
            return batch;
        }
        RowBatch copy = new RowBatch(columns.length);
        for (int row = 0; row < batch.size(); row++) {
            long ref = batch.ref(row);
            while (next < changed.length && changed[next].ref < ref) {
                next++;
            }
            ReachedRow now = next < changed.length && changed[next].ref == ref ? changed[next] : null;
            if (now != null && now.isGone) {
                continue;
            }
            for (int i = 0; i < columns.length; i++) {
                if (now != null && isNew(now, columns[i])) {
                    add(copy.column(i), now, columns[i]);
                } else {
                    copy.column(i).add(batch.column(i), row);
                }
            }
            copy.endRow(ref, batch.line(row), 0);
        }
        batch.malformed().forEach(copy::addMalformed);
        copy.setNumber(batch.number());
        return copy;
    }

    private boolean isNew(ReachedRow row, int column) {
        int slot = table.slotOf(column);
        return slot >= 0 && !CellCodec.isSame(row.values[slot], row.original[slot]);
    }

    @Override
    public void fetch(RefCursor refs, int[] columns, RowSink sink) {
        Set<Long> ofNew = new HashSet<>();
        owned().fetch(
                        () -> {
                            for (long ref = refs.next(); ref != RefCursor.END; ref = refs.next()) {
                                if (RowRef.part(ref) < owned().partCount()) {
                                    return ref;
                                }
                                ofNew.add(ref);
                            }
                            return RefCursor.END;
                        },
                        columns,
                        batch -> sink.accept(patched(batch, columns)));
        if (!ofNew.isEmpty()) {
            RowBatch batch = new RowBatch(columns.length);
            for (ReachedRow row : made) {
                if (ofNew.contains(refOf(row, owned().partCount()))) {
                    add(batch, row, columns);
                }
            }
            sink.accept(batch);
        }
    }

    @Override
    public void close() {
        // What was read is closed by whoever opened it.
    }
}
