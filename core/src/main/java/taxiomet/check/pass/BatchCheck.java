package taxiomet.check.pass;

import taxiomet.keys.TypedBatch;

/** The part of a check that looks at batches on one thread, beside those on others. */
public interface BatchCheck {
    /** Looks at all sound rows of a batch; other threads do the same with other batches, in any order. */
    void look(TypedBatch batch);

    /**
     * Takes what was seen in the batch just looked at into the check. One thread at a time does so, with the batches in the order of the
     * table.
     */
    void settle();
}
