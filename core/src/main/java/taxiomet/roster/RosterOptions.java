package taxiomet.roster;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Condition;

/**
 * What a roster lists.
 *
 * @param through names of the links over which children are listed, perhaps with their table and a dot before; empty for all
 * @param columns which columns of the children are shown, or of their parents, as {@code link.column}; empty for all
 * @param sort the order of the headings; as they stand where it is empty
 * @param where which headings
 * @param whereChild which children
 * @param childless what becomes of headings without children
 */
public record RosterOptions(
        List<String> through,
        List<String> columns,
        List<Sort> sort,
        Optional<Condition> where,
        Optional<Condition> whereChild,
        Childless childless) {
    public RosterOptions {
        through = List.copyOf(through);
        columns = List.copyOf(columns);
        sort = List.copyOf(sort);
    }

    /** A column to sort by. */
    public record Sort(String column, boolean isDescending) {}

    /** What becomes of headings without children. */
    public enum Childless {
        SHOW,
        HIDE,
        ONLY
    }
}
