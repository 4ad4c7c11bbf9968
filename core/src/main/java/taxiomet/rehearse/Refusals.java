package taxiomet.rehearse;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import taxiomet.finding.RefusalKind;

/** What refuses one change: each rule once, in the order in which the behaviour meets them, with the rows at which it does (R13). */
final class Refusals {
    private final Map<Rule, Set<ReachedRow>> rows = new LinkedHashMap<>();

    /**
     * A rule of the charter.
     *
     * @param table the table that declares it
     * @param name of the column, key, link or rule
     */
    record Rule(RefusalKind kind, ReachedTable table, String name) {}

    void add(RefusalKind kind, ReachedTable table, String name, ReachedRow row) {
        rows.computeIfAbsent(new Rule(kind, table, name), rule -> new LinkedHashSet<>())
                .add(row);
    }

    /** A rule that refuses before any row is met. */
    void add(RefusalKind kind, ReachedTable table, String name) {
        rows.computeIfAbsent(new Rule(kind, table, name), rule -> new LinkedHashSet<>());
    }

    boolean isEmpty() {
        return rows.isEmpty();
    }

    /** The rows at which each rule refuses, the rule met first before the others. */
    Map<Rule, Set<ReachedRow>> all() {
        return rows;
    }

    Rule first() {
        return rows.keySet().iterator().next();
    }
}
