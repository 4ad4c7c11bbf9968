package taxiomet.browse;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Condition;

/** Which row of a table is meant. */
public sealed interface RowAsked {
    /**
     * By what some of its columns hold.
     *
     * @param columns of the table
     * @param readings what the cells may be, one text for each column; the nearest to what was written first
     */
    record ByCells(List<String> columns, List<List<String>> readings) implements RowAsked {
        public ByCells {
            columns = List.copyOf(columns);
            readings = List.copyOf(readings);
        }
    }

    /** By a condition over its columns. */
    record ByCondition(Condition condition) implements RowAsked {}

    /**
     * By where it stands.
     *
     * @param part the file, by its name or the end of it; may be empty where there is one alone
     * @param row its number there, 1 for the first data row
     */
    record ByNumber(Optional<String> part, long row) implements RowAsked {}
}
