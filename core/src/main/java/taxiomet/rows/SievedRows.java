package taxiomet.rows;

import java.util.Arrays;
import java.util.List;

/** Rows that were found among those of a whole table, kept in memory; each has the number under which it would be read with the others. */
public final class SievedRows extends KeptBatches {
    private final long[] numbers;
    private int kept;

    /**
     * None yet.
     *
     * @param whole the table, which goes when these go
     * @param numbers of the rows that will be added, ascending, 1 for the first row of the table
     */
    public SievedRows(TableSource whole, long[] numbers) {
        super(whole);
        this.numbers = numbers.clone();
    }

    /**
     * Keeps the next rows.
     *
     * @param found with all columns of the table; the references are not looked at
     */
    public void add(RowBatch found) {
        found.setRows(found.size(), (refs, lines) -> {
            for (int i = 0; i < found.size(); i++) {
                refs[i] = RowRef.of(0, numbers[kept++]);
                lines[i] = 0;
            }
        });
        keep(found);
    }

    /** How many have been added. */
    public int size() {
        return kept;
    }

    /** Which of them a row is, 0 for the first. */
    int placeOf(long ref) {
        return Arrays.binarySearch(numbers, RowRef.row(ref));
    }

    @Override
    public TableSource whole() {
        return owned();
    }

    @Override
    public void fetch(RefCursor refs, int[] columns, RowSink sink) {
        long wanted = refs.next();
        List<RowBatch> batches = batches();
        for (int i = 0; i < batches.size() && wanted != RefCursor.END; i++) {
            RowBatch kept = batches.get(i);
            RowBatch batch = new RowBatch(columns.length);
            for (int row = 0; row < kept.size(); row++) {
                if (kept.ref(row) == wanted) {
                    copy(kept, row, columns, batch);
                    wanted = refs.next();
                }
            }
            if (!batch.isEmpty()) {
                sink.accept(batch);
            }
        }
    }
}
