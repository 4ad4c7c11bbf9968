package taxiomet.rows;

import java.util.List;
import java.util.Map;
import java.util.NavigableMap;

/**
 * What is to be different in a copy of a table.
 *
 * @param rows for each row that is not to stay as it is, by its {@link RowRef}, what becomes of it
 * @param newRows rows to put behind all others: a cell for each column of the source, null for null
 */
public record RowEdits(NavigableMap<Long, RowEdit> rows, List<List<String>> newRows) {
    /**
     * What becomes of a row.
     *
     * @param isDeleted whether it is left out
     * @param cells the new cells by the places of their columns in the source, null for null
     */
    public record RowEdit(boolean isDeleted, Map<Integer, String> cells) {}

    /** Whether nothing changes. */
    public boolean isEmpty() {
        return rows.isEmpty() && newRows.isEmpty();
    }
}
