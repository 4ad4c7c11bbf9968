package taxiomet.rows;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** A table of which some rows are looked for where they live, and kept: single rows of those are not fetched again. */
public final class SoughtRows extends ForwardingSource {
    private final Inside place;
    private final Map<Long, Kept> kept = new HashMap<>();

    private record Kept(RowBatch batch, int row) {}

    /** @param whole the table, read as a whole where rows cannot be looked for */
    public SoughtRows(TableSource whole, Inside place) {
        super(whole);
        this.place = place;
    }

    /** All rows that have some values, and perhaps others; as {@link Inside#seek}. */
    public Optional<SievedRows> seek(List<Sought> any) {
        Optional<SievedRows> found = place.seek(any);
        found.ifPresent(rows -> rows.batches().forEach(batch -> {
            for (int row = 0; row < batch.size(); row++) {
                kept.putIfAbsent(batch.ref(row), new Kept(batch, row));
            }
        }));
        return found;
    }

    /** How many rows the table has. */
    public long rowsInAll() {
        return place.rowsInAll();
    }

    @Override
    public void fetch(RefCursor refs, int[] columns, RowSink sink) {
        List<Long> wanted = new ArrayList<>();
        for (long ref = refs.next(); ref != RefCursor.END; ref = refs.next()) {
            wanted.add(ref);
        }
        if (!kept.keySet().containsAll(wanted)) {
            Iterator<Long> again = wanted.iterator();
            super.fetch(() -> again.hasNext() ? again.next() : RefCursor.END, columns, sink);
            return;
        }
        RowBatch batch = new RowBatch(columns.length);
        for (long ref : wanted) {
            Kept row = kept.get(ref);
            KeptBatches.copy(row.batch(), row.row(), columns, batch);
            if (batch.isFull()) {
                sink.accept(batch);
                batch.clear();
            }
        }
        if (!batch.isEmpty()) {
            sink.accept(batch);
        }
    }
}
