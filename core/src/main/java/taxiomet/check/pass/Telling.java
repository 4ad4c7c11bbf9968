package taxiomet.check.pass;

import java.util.Collection;
import java.util.List;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;

/** What a finding says about the rows of a log. */
public interface Telling {
    /** References of rows that {@link #details} shows, beside the first few of the log. */
    default Collection<Long> rowsNamed() {
        return List.of();
    }

    /** The rows that will be shown have been fetched; called once before any other is asked for, and before those below. */
    default void prepare(RowsAtHand rows) {}

    /** What there is to say beyond the count of rows. */
    Finding.Details details();

    /** A row, and what was logged with it. */
    Evidence evidence(FoundRow row, long remark);

    /**
     * A row of a group that is not the first of it; of logs whose rows stand in groups.
     *
     * @param group the number of the group, 1 for the first
     */
    default Evidence evidence(FoundRow row, long group, FoundRow first) {
        return row.evidence(group, "", List.of());
    }
}
