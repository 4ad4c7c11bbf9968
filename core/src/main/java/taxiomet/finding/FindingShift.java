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
 * @param areRowsKnown whether rows were looked at one by one: not where there are very many
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
        boolean areRowsKnown) {
    public FindingShift {
        newRows = List.copyOf(newRows);
        goneRows = List.copyOf(goneRows);
    }
}
