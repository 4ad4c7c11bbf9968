package taxiomet.rehearse.replay;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import taxiomet.finding.RefusalKind;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;

/** What refuses one change: each rule once, in the order in which the behaviour meets them, with the rows at which it does (R13). */
public final class Refusals {
    private final Map<Rule, Set<ReachedRow>> rows = new LinkedHashMap<>();

    /**
     * A rule of the charter.
     *
     * @param table the table that declares it
     * @param name of the column, key, link or rule
     */
    public record Rule(RefusalKind kind, ReachedTable table, String name) {}

    /** A rule refuses at a row. */
    public void add(RefusalKind kind, ReachedTable table, String name, ReachedRow row) {
        rows.computeIfAbsent(new Rule(kind, table, name), rule -> new LinkedHashSet<>())
                .add(row);
    }

    /** A rule that refuses before any row is met. */
    public void add(RefusalKind kind, ReachedTable table, String name) {
        rows.computeIfAbsent(new Rule(kind, table, name), rule -> new LinkedHashSet<>());
    }

    /** Whether nothing refuses. */
    public boolean isEmpty() {
        return rows.isEmpty();
    }

    /** The rows at which each rule refuses, the rule met first before the others. */
    public Map<Rule, Set<ReachedRow>> all() {
        return rows;
    }

    /** The rule that was met first; there is one. */
    public Rule first() {
        return rows.keySet().iterator().next();
    }
}
