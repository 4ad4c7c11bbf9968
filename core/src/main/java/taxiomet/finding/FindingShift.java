package taxiomet.finding;

import java.util.List;
import taxiomet.charter.Severity;

/**
 * What came of a finding from one result to the next.
 *
 * @param table the table whose rows are at fault; may be empty
 * @param at the column, key, link or rule
 * @param before how many rows it had; 0 where it was not there
 * @param now how many rows it has; 0 where it is gone
 * @param newRows names of rows that are at fault now and were not
 * @param goneRows names of rows that were at fault and are no more
 * @param renumbered rows that are at fault still, with all they held, under another key
 * @param acceptedAgain names of rows that were accepted and are so no more
 * @param newlyAccepted how many rows are accepted and were not
 * @param lostParents names of orphans whose parent was there in the earlier result
 * @param areRowsKnown whether rows were looked at one by one: not where the results were kept under different keys
 */
public record FindingShift(
        FindingKind kind,
        Severity severity,
        String table,
        String at,
        long before,
        long now,
        List<String> newRows,
        List<String> goneRows,
        List<Renumbered> renumbered,
        List<String> acceptedAgain,
        long newlyAccepted,
        List<String> lostParents,
        boolean areRowsKnown) {
    public FindingShift {
        newRows = List.copyOf(newRows);
        goneRows = List.copyOf(goneRows);
        renumbered = List.copyOf(renumbered);
        acceptedAgain = List.copyOf(acceptedAgain);
        lostParents = List.copyOf(lostParents);
    }

    /** A row that was called otherwise before. */
    public record Renumbered(String before, String now) {}

    /** Whether nothing is different. */
    public boolean isNothing() {
        return before == now
                && newRows.isEmpty()
                && goneRows.isEmpty()
                && renumbered.isEmpty()
                && acceptedAgain.isEmpty()
                && newlyAccepted == 0
                && lostParents.isEmpty();
    }
}
