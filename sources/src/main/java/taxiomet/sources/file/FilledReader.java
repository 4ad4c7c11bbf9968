package taxiomet.sources.file;

import java.util.function.Predicate;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;

/**
 * Has a scan fill its batch anew for each run, where one thread at a time takes rows from what is read; the scan holds what is open.
 *
 * @param fill puts the next rows into an empty batch; false when there are no more
 */
public record FilledReader(RowBatch batch, Predicate<RowBatch> fill) implements Scan.BatchReader {
    @Override
    public RowBatch next() {
        batch.clear();
        return fill.test(batch) ? batch : null;
    }

    @Override
    public void close() {
        // The scan does.
    }
}
