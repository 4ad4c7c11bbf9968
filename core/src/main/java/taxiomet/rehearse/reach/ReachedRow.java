package taxiomet.rehearse.reach;

/** A row that the proposal reaches: as it was read, and as it is now in the replay. */
public final class ReachedRow {
    public final ReachedTable table;
    /** Its {@link taxiomet.rows.RowRef}; for a new row a reference behind all that were read. */
    public final long ref;
    /** The values of the columns that are kept, by their slots; what was read, until something is written. */
    public Object[] values;
    /** The values as read; null for a new row. */
    public final Object[] original;

    public boolean isGone;
    /** Where it stands among the rows of its table: rows once written stand behind all others (P1). */
    long position;
    /** Grows with each write, so that a check that waits knows whether it looks at the newest version (P4). */
    public int version;
    /** The statement that wrote or made this version last. */
    public int statement;

    /** The statement that touched the row last, and the values that it had before. */
    public int startedIn;

    public Object[] atStart;
    /** What the level at hand is to do to the row; used by one behaviour alone. */
    public Object plan;
    /** How the row stood when another replay was through, for a comparison. */
    public Object[] endedAs;

    boolean isTouched;
    /** Whether what points at it has been asked for, since it will be deleted. */
    boolean isExpectedToGo;

    public Effect lastEffect;

    /** @param values by the slots of its table */
    public ReachedRow(ReachedTable table, long ref, Object[] values, boolean isNew) {
        this.table = table;
        this.ref = ref;
        this.values = values;
        this.original = isNew ? null : values;
        this.position = ref;
    }

    /** Whether the proposal made it. */
    public boolean isNew() {
        return original == null;
    }

    /** Whether a row that was read is gone, or has other values than were read. */
    public boolean isChanged() {
        if (isGone || values == original) {
            return isGone;
        }
        for (int slot = 0; slot < values.length; slot++) {
            if (!CellCodec.isSame(values[slot], original[slot])) {
                return true;
            }
        }
        return false;
    }

    /** The value of a column, by its place in the table. */
    public Object value(int column) {
        return values[table.slotOf(column)];
    }

    @Override
    public String toString() {
        return table.table().name() + "#" + ref;
    }
}
