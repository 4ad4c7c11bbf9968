package taxiomet.check.pass;

import java.util.List;
import taxiomet.charter.Table;
import taxiomet.finding.Finding;

/**
 * Checks of one kind of declaration, for one run. It plans what looks at the rows of a table, and says at the end what there is to
 * say beside the rows in its logs.
 */
public interface Kind {
    /** Adds to the plan what the declarations of a table to be judged ask for; called once for each. */
    void plan(Table table);

    /** Findings that have no rows, once all tables have been read and concluded. */
    default List<Finding> findingsWithoutRows() {
        return List.of();
    }
}
