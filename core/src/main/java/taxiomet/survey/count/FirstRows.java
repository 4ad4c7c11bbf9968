package taxiomet.survey.count;

import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.keys.TypedBatch;

/** Looks at the first rows of a table alone, in whole runs. */
final class FirstRows implements RowCheck {
    private final RowCheck check;
    private final long most;
    private long seen;

    /** @param most how many rows; the run in which the last of them stands is looked at to its end */
    FirstRows(RowCheck check, long most) {
        this.check = check;
        this.most = most;
    }

    @Override
    public int[] columns() {
        return check.columns();
    }

    @Override
    public BatchCheck onThread() {
        BatchCheck inner = check.onThread();
        return new BatchCheck() {
            private int size;

            @Override
            public void look(TypedBatch batch) {
                size = batch.size();
                inner.look(batch);
            }

            @Override
            public void settle() {
                if (seen < most) {
                    seen += size;
                    inner.settle();
                }
            }
        };
    }
}
