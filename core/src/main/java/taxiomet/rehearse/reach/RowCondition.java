package taxiomet.rehearse.reach;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import taxiomet.keys.KeyForm;

/** Says which rows of a table a change names. Conditions that are equal name the same rows. */
public interface RowCondition {
    /** The columns that it looks at; of the others nothing need be given. */
    int[] columns();

    /**
     * Whether a row is named.
     *
     * @param ref where it stands
     * @param values by slots
     */
    boolean holds(long ref, Object[] values);

    /** Whether a row is named as it is now. */
    default boolean holds(ReachedRow row) {
        return holds(row.ref, row.values);
    }

    /** Keys all of whose rows it names, so that with its own rows all of theirs have been read; empty where none are known. */
    Optional<NamedKeys> namedKeys();

    /** Keys outside of whose rows it names none; empty where none are known. */
    default Optional<NamedKeys> onlyKeys() {
        return Optional.empty();
    }

    /**
     * Keys of some columns.
     *
     * @param columns their places in the table
     * @param keys as a {@link KeyLookup} has them
     */
    @SuppressWarnings("ArrayRecordComponent")
    record NamedKeys(int[] columns, List<KeyForm> forms, Collection<Object> keys) {}
}
