package taxiomet.browse;

import java.util.concurrent.atomic.LongAdder;
import taxiomet.charter.Table;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.work.RunContext;
import taxiomet.work.Workers;

/** How many rows a table has. */
public final class RowCount {
    private RowCount() {}

    /**
     * Counts all rows, malformed ones too.
     *
     * @throws taxiomet.rows.SourceException when they cannot be read
     */
    public static long of(Table table, TableSource source, RunContext context) {
        LongAdder rows = new LongAdder();
        try (Scan scan = source.scan(table.indexesOf(table.namingKey()), RefRanges.ALL)) {
            Workers.run(context.threadsFor(source.bytes()), "counting", workers -> {
                try (Scan.BatchReader reader = scan.reader()) {
                    for (RowBatch batch = reader.next();
                            batch != null && !workers.haveFailed();
                            batch = reader.next()) {
                        rows.add(batch.size() + batch.malformed().size());
                    }
                }
            });
        }
        return rows.sum();
    }
}
