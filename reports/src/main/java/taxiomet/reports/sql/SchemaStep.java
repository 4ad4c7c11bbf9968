package taxiomet.reports.sql;

import java.util.List;
import java.util.Optional;

/**
 * One rule put in place in a database.
 *
 * @param what what it does, as a person says it
 * @param touches which tables it locks, and how
 * @param statements in their order, without semicolons
 * @param back the way back, in its order
 * @param query lists the rows that stand in the way; empty where none can
 * @param path the keys that lead to the declaration in the charter
 */
public record SchemaStep(
        String what,
        String touches,
        List<String> statements,
        List<String> back,
        Optional<String> query,
        List<String> path) {
    public SchemaStep {
        statements = List.copyOf(statements);
        back = List.copyOf(back);
        path = List.copyOf(path);
    }

    /**
     * A declaration that is not put in place.
     *
     * @param what it, as a person says it
     * @param why as a clause
     */
    public record LeftOut(String what, String why) {}
}
