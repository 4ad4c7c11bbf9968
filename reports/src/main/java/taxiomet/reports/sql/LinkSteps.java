package taxiomet.reports.sql;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement;
import taxiomet.vet.Review;

/** Links as steps of a plan, with an index for each, and the rows that are in their way. */
final class LinkSteps {
    private final SchemaDraft plan;
    private final List<Judgement> notTaken;

    LinkSteps(SchemaDraft plan) {
        this.plan = plan;
        this.notTaken = Review.of(plan.charter, Optional.of(plan.server)).stream()
                .filter(judgement -> judgement.kind() == Judgement.Kind.NOT_TAKEN)
                .toList();
    }

    /** Children are sought by the link's columns whenever a parent goes: an index spares reading all of them. */
    void addIndex(Table table, ForeignKey link) {
        boolean isServed = table.keys().stream()
                .anyMatch(key -> key.where().isEmpty()
                        && key.columns().size() >= link.columns().size()
                        && key.columns().subList(0, link.columns().size()).equals(link.columns()));
        // MariaDB makes one of its own.
        if (isServed
                || plan.dialect == Dialect.MARIADB
                || plan.isThere(SchemaDraft.path(table, "foreign_keys", link.name()))
                || !isPutQuietly(table, link)) {
            return;
        }
        String name = plan.keyName(table.name() + "_" + link.name() + "_idx", table);
        boolean isBeside = plan.dialect == Dialect.POSTGRESQL && !plan.makes(table);
        plan.steps.add(new SchemaStep(
                "an index by which rows of " + table.name() + " are found over " + link.name(),
                isBeside
                        ? "beside other work on " + table.name() + "; not inside a transaction"
                        : "locks " + table.name() + " against changes while it is built",
                List.of("CREATE INDEX " + (isBeside ? "CONCURRENTLY " : "") + name + " ON " + plan.name(table) + " ("
                        + plan.names(link.columns()) + ")"),
                List.of("DROP INDEX " + plan.schemaOf(table) + name),
                Optional.empty(),
                SchemaDraft.path(table, "foreign_keys", link.name(), "columns")));
    }

    private boolean isPutQuietly(Table table, ForeignKey link) {
        int before = plan.left.size();
        boolean isPut = isPut(table, link);
        while (plan.left.size() > before) {
            plan.left.remove(plan.left.size() - 1);
        }
        return isPut;
    }

    /** Whether a link is put in place; where not, it is left out with the reason. */
    boolean isPut(Table table, ForeignKey link) {
        String what = "the link " + link.name() + " of " + table.name();
        List<String> path = SchemaDraft.path(table, "foreign_keys", link.name());
        Optional<Judgement> refused = notTaken.stream()
                .filter(judgement -> judgement.path().size() >= path.size()
                        && judgement.path().subList(0, path.size()).equals(path))
                .findFirst();
        boolean pointsAtKey = plan.charter.table(link.parent()).keys().stream()
                .anyMatch(key -> key.where().isEmpty()
                        && (plan.dialect == Dialect.MARIADB
                                ? key.columns().equals(link.parentColumns())
                                : Set.copyOf(key.columns()).equals(Set.copyOf(link.parentColumns()))));
        if (!plan.binds(link.severity(), what)) {
            return false;
        }
        String why = !link.isEnforced()
                ? "the charter says that it is not enforced"
                : refused.isPresent()
                        ? refused.get().problem()
                        : link.where().isPresent()
                                ? "no server has links of some rows alone"
                                : !pointsAtKey ? "it points at no key" : "";
        if (why.isEmpty() && link.match() == Match.PARTIAL && link.columns().size() > 1) {
            why = plan.server.title() + " does not know match partial";
        }
        if (!why.isEmpty()) {
            plan.leaveOut(what, why);
        }
        return why.isEmpty();
    }

    /** A link as a constraint. */
    String constraint(ForeignKey link) {
        Table parent = plan.charter.table(link.parent());
        StringBuilder sql = new StringBuilder("CONSTRAINT ")
                .append(plan.linkName(link.name(), plan.charter.table(link.child())))
                .append(" FOREIGN KEY (")
                .append(plan.names(link.columns()))
                .append(") REFERENCES ")
                .append(plan.name(parent))
                .append(" (")
                .append(plan.names(link.parentColumns()))
                .append(')');
        if (link.match() == Match.FULL && link.columns().size() > 1) {
            sql.append(" MATCH FULL");
        }
        sql.append(action(" ON DELETE ", link.onDelete())).append(action(" ON UPDATE ", link.onUpdate()));
        if (link.deferrable() != Deferrable.NO) {
            sql.append(
                    link.deferrable() == Deferrable.DEFERRED
                            ? " DEFERRABLE INITIALLY DEFERRED"
                            : " DEFERRABLE INITIALLY IMMEDIATE");
        }
        return sql.toString();
    }

    private String action(String event, Action action) {
        if (action.name() == ActionName.NO_ACTION) {
            return "";
        }
        return event
                + action.name().sql().toUpperCase(Locale.ROOT)
                + (action.columns().isEmpty() ? "" : " (" + plan.names(action.columns()) + ")");
    }

    void add(ForeignKey link) {
        Table table = plan.charter.table(link.child());
        List<String> path = SchemaDraft.path(table, "foreign_keys", link.name());
        if (plan.isThere(path)) {
            return;
        }
        leaveOutWhatNoServerDeclares(table, link);
        if (plan.isWhole(table)) {
            return;
        }
        String what = "the link " + link.name() + " of " + table.name();
        if (plan.dialect == Dialect.SQLITE) {
            plan.leaveOut(what, "SQLite takes it only where a table is made: --tables");
            return;
        } else if (!isPut(table, link)) {
            return;
        }
        String constraint = constraint(link);
        String name = constraint.substring("CONSTRAINT ".length(), constraint.indexOf(" FOREIGN KEY"));
        boolean isLater = plan.dialect == Dialect.POSTGRESQL && !plan.makes(table);
        String add = "ALTER TABLE " + plan.name(table) + " ADD " + constraint;
        plan.steps.add(new SchemaStep(
                what,
                isLater
                        ? "locks " + table.name() + " and " + link.parent()
                                + " against changes for a moment; rows are read later, while others change them"
                        : "locks " + table.name() + " and " + link.parent() + " against changes while rows are read",
                isLater
                        ? List.of(
                                add + " NOT VALID", "ALTER TABLE " + plan.name(table) + " VALIDATE CONSTRAINT " + name)
                        : List.of(add),
                List.of("ALTER TABLE " + plan.name(table)
                        + (plan.dialect == Dialect.MARIADB ? " DROP FOREIGN KEY " : " DROP CONSTRAINT ") + name),
                Optional.of(orphans(table, link)),
                path));
    }

    private void leaveOutWhatNoServerDeclares(Table table, ForeignKey link) {
        link.children()
                .ifPresent(range -> plan.leaveOut(
                        "how many rows of " + table.name() + " each of " + link.parent() + " may have",
                        "no server declares that"));
        if (link.isAcyclic()) {
            plan.leaveOut("that no row of " + table.name() + " is its own ancestor", "no server declares that");
        }
    }

    private String orphans(Table table, ForeignKey link) {
        Table parent = plan.charter.table(link.parent());
        String whole = link.columns().stream()
                .map(column -> "c." + plan.dialect.name(column) + " IS NOT NULL")
                .collect(Collectors.joining(" AND "));
        String equal = IntStream.range(0, link.columns().size())
                .mapToObj(i -> "p." + plan.dialect.name(link.parentColumns().get(i)) + " = c."
                        + plan.dialect.name(link.columns().get(i)))
                .collect(Collectors.joining(" AND "));
        String missing = whole + " AND NOT EXISTS (SELECT 1 FROM " + plan.name(parent) + " p WHERE " + equal + ")";
        String half = link.columns().stream()
                .map(column -> "c." + plan.dialect.name(column) + " IS NULL")
                .collect(Collectors.joining(" AND "));
        return "SELECT c.* FROM " + plan.name(table) + " c WHERE "
                + (link.match() == Match.FULL && link.columns().size() > 1
                        ? "(" + missing + ") OR (NOT (" + whole + ") AND NOT (" + half + "))"
                        : missing);
    }
}
