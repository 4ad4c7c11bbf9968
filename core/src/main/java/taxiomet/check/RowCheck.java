package taxiomet.check;

/** One kind of check over the rows of one table. It is called from one thread, with all batches in their order. */
interface RowCheck {
    /** Looks at all sound rows of the batch. */
    void check(TypedBatch batch);

    /** The places of the table's columns that the check reads. */
    int[] columns();
}
