package taxiomet.browse;

import taxiomet.keys.TypedBatch;
import taxiomet.rows.RowBatch;

/** Looks for rows of one table while all of them pass by. */
interface Seeker {
    /** Places of the columns that it reads. */
    int[] columns();

    /** Its part on one thread. */
    OnThread onThread();

    /** What one thread sees. */
    interface OnThread {
        void look(TypedBatch batch);

        /** The same rows as they stand, malformed ones among them. */
        default void pass(RowBatch rows) {
            // Most look at values alone.
        }

        /** All rows have passed; threads end one after the other. */
        void end();
    }
}
