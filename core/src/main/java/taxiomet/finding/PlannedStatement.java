package taxiomet.finding;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/**
 * One statement of an accepted proposal, with all that the rehearsal saw, so that it can be written as SQL for a server.
 *
 * @param words the change that it belongs to, as it was written
 * @param table the table that it names
 * @param set the columns that an update sets
 * @param rows the rows that it names
 * @param followers rows that actions delete, empty, default or re-point, in the order in which they do
 * @param counts how many children the rows have that actions come to, so that no others have come since
 */
public record PlannedStatement(
        String words,
        Kind kind,
        String table,
        List<String> set,
        List<PlannedRow> rows,
        List<PlannedRow> followers,
        List<ChildCount> counts) {
    /** What a statement does. */
    public enum Kind {
        INSERT,
        UPDATE,
        DELETE
    }

    public PlannedStatement {
        set = List.copyOf(set);
        rows = List.copyOf(rows);
        followers = List.copyOf(followers);
        counts = List.copyOf(counts);
    }

    /**
     * A row: its cells as SQL writes such values, one for each column of its table, null for null.
     *
     * @param before empty for a new row
     * @param after what the statement or the action gives it; empty for a row that goes
     * @param end how it stands when the statement is through, with what actions have done to it, too; empty for a row that goes
     */
    public record PlannedRow(String table, List<String> before, List<String> after, List<String> end) {
        public PlannedRow {
            before = Collections.unmodifiableList(new ArrayList<>(before));
            after = Collections.unmodifiableList(new ArrayList<>(after));
            end = Collections.unmodifiableList(new ArrayList<>(end));
        }
    }

    /** How many rows of a table have one of some keys in some columns. */
    public record ChildCount(String table, List<String> columns, List<List<String>> keys, long rows) {
        public ChildCount {
            columns = List.copyOf(columns);
            keys = List.copyOf(keys);
        }
    }
}
