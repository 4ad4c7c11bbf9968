package taxiomet.check.pass;

/** One kind of check over the rows of one table. */
public interface RowCheck {
    /** The places of the table's columns that the check reads. */
    int[] columns();

    /** Whether it reads values, and not only the states of cells. */
    default boolean readsValues() {
        return true;
    }

    /** A part of the check for one more thread. */
    BatchCheck onThread();
}
