package taxiomet.check.pass;

import taxiomet.keys.TypedBatch;

/** A check whose work is done by one thread at a time, with the batches in the order of the table. */
public abstract class OrderedCheck implements RowCheck {
    /** Looks at all sound rows of the batch. */
    public abstract void check(TypedBatch batch);

    @Override
    public final BatchCheck onThread() {
        return new BatchCheck() {
            private TypedBatch seen;

            @Override
            public void look(TypedBatch batch) {
                seen = batch;
            }

            @Override
            public void settle() {
                check(seen);
            }
        };
    }
}
