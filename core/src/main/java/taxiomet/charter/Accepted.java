package taxiomet.charter;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/**
 * Rows of a finding that are known, and borne for a while. At least one of {@code rows} and {@code values} is not empty.
 *
 * @param finding the kind of finding, in its words
 * @param table whose rows are at fault
 * @param at the column, key, link or rule
 * @param rows which rows, by their keys
 * @param values rows with these values in the columns at fault: one for each column, null for null
 * @param until the last day on which they are borne; empty for as long as the charter says so
 */
public record Accepted(
        String finding,
        String table,
        String at,
        List<AcceptedRow> rows,
        List<List<String>> values,
        String reason,
        Optional<LocalDate> until) {
    /**
     * One row.
     *
     * @param key a value for each column by which rows of the table are called
     * @param holds what stood in the columns at fault when it was accepted, null for null; empty where anything may
     */
    public record AcceptedRow(List<String> key, Optional<List<String>> holds) {
        public AcceptedRow {
            key = withNulls(key);
            holds = holds.map(AcceptedRow::withNulls);
        }

        private static List<String> withNulls(List<String> texts) {
            return Collections.unmodifiableList(new ArrayList<>(texts));
        }
    }

    public Accepted {
        rows = List.copyOf(rows);
        values = values.stream().map(AcceptedRow::withNulls).toList();
    }

    /** Whether it still holds on a day. */
    public boolean holdsOn(LocalDate day) {
        return until.isEmpty() || !day.isAfter(until.get());
    }
}
