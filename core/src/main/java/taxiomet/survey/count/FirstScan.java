package taxiomet.survey.count;

import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;

/** A pass that ends when enough rows have been handed over. */
final class FirstScan implements Scan {
    private final Scan all;
    private final long most;
    private long handed;

    FirstScan(Scan all, long most) {
        this.all = all;
        this.most = most;
    }

    private synchronized boolean isEnough() {
        return handed >= most;
    }

    private synchronized void hand(int rows) {
        handed += rows;
    }

    @Override
    public BatchReader reader() {
        BatchReader reader = all.reader();
        return new BatchReader() {
            @Override
            public RowBatch next() {
                RowBatch batch = isEnough() ? null : reader.next();
                if (batch != null) {
                    hand(batch.size());
                }
                return batch;
            }

            @Override
            public void close() {
                reader.close();
            }
        };
    }

    @Override
    public void close() {
        all.close();
    }
}
