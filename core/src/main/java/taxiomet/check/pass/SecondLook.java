package taxiomet.check.pass;

import taxiomet.rows.RefRanges;

/** A check that may have to see some rows of its table again when all have been read. */
public interface SecondLook extends RowCheck {
    /** Whether there is anything to look for. */
    boolean hasAny();

    /** Adds the rows that must be read again; false when that is every one. */
    boolean addRowsTo(RefRanges wanted);

    /** The rows have been read again. */
    void conclude();
}
