package taxiomet.rehearse;

/** Says which rows of a table a change names. Conditions that are equal name the same rows. */
interface RowCondition {
    /** The columns that it looks at; of the others nothing need be given. */
    int[] columns();

    /** Whether a row with these values, by slots, is named. */
    boolean holds(Object[] values);
}
