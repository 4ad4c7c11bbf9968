package taxiomet.check;

import java.util.HashSet;
import java.util.Set;

/**
 * How much was read of a table.
 *
 * @param rows malformed ones among them
 * @param undeclared names that are there beside its columns
 */
record TableFigures(long rows, long malformed, long emptyLines, Set<String> undeclared) {
    static final TableFigures NONE = new TableFigures(0, 0, 0, Set.of());

    TableFigures {
        undeclared = Set.copyOf(undeclared);
    }

    TableFigures plus(TableFigures others) {
        Set<String> all = new HashSet<>(undeclared);
        all.addAll(others.undeclared);
        return new TableFigures(rows + others.rows, malformed + others.malformed, emptyLines + others.emptyLines, all);
    }
}
