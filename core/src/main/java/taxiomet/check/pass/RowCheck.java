package taxiomet.check.pass;

import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.Sieved;
import taxiomet.rows.Suspicion;

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
     * All that is to be looked for so that no row at fault is missed; empty where that cannot be said, and all rows have to be read.
     * A check that finds no faults of its own has nothing to be looked for.
     */
    default Optional<List<Suspicion>> suspicions() {
        return Optional.empty();
    }

    /** Lists of columns of which the nulls in all rows are to be counted where they live. */
    default List<List<Integer>> nullsCounted() {
        return List.of();
    }

    /** From now on, the rows looked at are those alone that were found by their suspicions. */
    default void rowsAre(Sieved found) {}

    /**
     * Hands over what it has seen of its table, beside the rows in its logs: all that it will need to conclude. A check that
     * needs nothing else has nothing to hand over.
     */
    default void exchange(StateExchange state) {}

    /** A part of the check for one more thread. */
    BatchCheck onThread();
}
