package taxiomet.check.pass;

import java.util.Optional;
import java.util.function.IntFunction;
import taxiomet.rows.ColumnFacts;

/** One kind of check over the rows of one table. */
public interface RowCheck {
    /** The places of the table's columns that the check reads. */
    int[] columns();

    /** Whether it reads values, and not only the states of cells. */
    default boolean readsValues() {
        return true;
    }

    /**
     * Whether it would find nothing, as far as that is known before any row is read.
     *
     * @param facts what is known of a column, by its place
     */
    default boolean isNeedless(IntFunction<Optional<ColumnFacts>> facts) {
        return false;
    }

    /**
     * Hands over what it has seen of its table, beside the rows in its logs: all that it will need to conclude. A check that
     * needs nothing else has nothing to hand over.
     */
    default void exchange(StateExchange state) {}

    /** A part of the check for one more thread. */
    BatchCheck onThread();
}
