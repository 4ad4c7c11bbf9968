package taxiomet.reports.sql;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.reports.sql.ExpressionSql.Unsaid;

/** Keys as steps of a plan, with the rows that are in their way. */
final class KeySteps {
    private final SchemaDraft plan;

    KeySteps(SchemaDraft plan) {
        this.plan = plan;
    }

    /** What a key is called. */
    String nameOf(Table table, Key key) {
        String wanted = key.isPrimary() ? key.declaredName().orElse(table.name() + "_pkey") : key.name();
        return plan.keyName(wanted, table);
    }

    void add(Table table, Key key) {
        List<String> path = key.isPrimary()
                ? SchemaDraft.path(table, "primary_key")
                : SchemaDraft.path(table, "unique", key.name());
        if (plan.isThere(path)) {
            return;
        }
        String what =
                (key.isPrimary() ? "the primary key of " : "the unique key " + key.name() + " of ") + table.name();
        if (!plan.binds(key.severity(), what)) {
            return;
        }
        boolean isIndex = key.where().isPresent() || (plan.dialect == Dialect.SQLITE && !key.isPrimary());
        if (key.nullsAreEqual() && plan.dialect != Dialect.POSTGRESQL) {
            plan.leaveOut(what, plan.server.title() + " takes nulls in a key for different");
            return;
        } else if (key.where().isPresent() && plan.dialect == Dialect.MARIADB) {
            plan.leaveOut(what, plan.server.title() + " has no keys of some rows alone");
            return;
        } else if (key.isPrimary() && plan.dialect == Dialect.SQLITE) {
            plan.leaveOut(what, "SQLite takes it only where a table is made: --tables");
            return;
        } else if (key.isPrimary()
                && plan.makes(table)
                && plan.dialect == Dialect.MARIADB
                && table.columns().stream().anyMatch(column -> column.generated() != Generated.NEVER)) {
            return;
        }
        String where = "";
        try {
            if (key.where().isPresent()) {
                where = " WHERE "
                        + new ExpressionSql(plan.dialect, table)
                                .of(key.where().get().value());
            }
        } catch (Unsaid e) {
            plan.leaveOut(what, e.getMessage());
            return;
        }
        String name = nameOf(table, key);
        String nulls = key.nullsAreEqual() ? " NULLS NOT DISTINCT" : "";
        String made = isIndex
                ? "CREATE UNIQUE INDEX " + name + " ON " + plan.name(table) + " (" + plan.names(key.columns()) + ")"
                        + nulls + where
                : "ALTER TABLE " + plan.name(table) + " ADD "
                        + (key.isPrimary() && plan.dialect == Dialect.MARIADB ? "" : "CONSTRAINT " + name)
                        + (key.isPrimary() ? " PRIMARY KEY (" : " UNIQUE" + nulls + " (") + plan.names(key.columns())
                        + ")";
        String back = isIndex
                ? "DROP INDEX " + plan.schemaOf(table) + name
                        + (plan.dialect == Dialect.MARIADB ? " ON " + plan.name(table) : "")
                : plan.dialect == Dialect.MARIADB
                        ? "ALTER TABLE " + plan.name(table)
                                + (key.isPrimary() ? " DROP PRIMARY KEY" : " DROP INDEX " + name)
                        : "ALTER TABLE " + plan.name(table) + " DROP CONSTRAINT " + name;
        plan.steps.add(new SchemaStep(
                what,
                plan.dialect == Dialect.POSTGRESQL
                        ? "locks " + table.name() + " against all use while its index is built"
                        : "locks " + table.name() + " against changes while its index is built",
                List.of(made),
                List.of(back),
                Optional.of(duplicates(table, key, where)),
                path));
    }

    /** Rows that share a key, and those of a primary key that have none. */
    private String duplicates(Table table, Key key, String where) {
        String columns = plan.names(key.columns());
        String some = key.columns().stream()
                .map(column -> "t." + plan.dialect.name(column) + " IS NULL")
                .collect(Collectors.joining(" OR "));
        String none = key.columns().stream()
                .map(column -> plan.dialect.name(column) + " IS NOT NULL")
                .collect(Collectors.joining(" AND "));
        String condition = (where.isEmpty() ? " WHERE " : where + " AND ") + "(" + none + ")";
        String equal = key.columns().stream()
                .map(column -> "taken." + plan.dialect.name(column) + " = t." + plan.dialect.name(column))
                .collect(Collectors.joining(" AND "));
        return "SELECT t.* FROM " + plan.name(table) + " t WHERE EXISTS (SELECT 1 FROM (SELECT " + columns + " FROM "
                + plan.name(table) + (key.nullsAreEqual() ? where : condition) + " GROUP BY " + columns
                + " HAVING count(*) > 1) taken WHERE "
                + (key.nullsAreEqual()
                        ? key.columns().stream()
                                .map(column -> "taken." + plan.dialect.name(column) + " IS NOT DISTINCT FROM t."
                                        + plan.dialect.name(column))
                                .collect(Collectors.joining(" AND "))
                        : equal)
                + ")" + (where.isEmpty() ? "" : " AND " + where.substring(" WHERE ".length()))
                + (key.isPrimary() ? " OR " + some : "");
    }
}
