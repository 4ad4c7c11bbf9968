package taxiomet.rehearse.reach;

/** Names the rows that the lines of a table list. */
public interface LineCondition extends RowCondition {
    /** The line that names a row, 0 for the first; -1 when none does. */
    int lineOf(long ref, Object[] values);

    @Override
    default boolean holds(long ref, Object[] values) {
        return lineOf(ref, values) >= 0;
    }
}
