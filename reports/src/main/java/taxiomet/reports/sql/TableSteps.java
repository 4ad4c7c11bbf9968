package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.DefaultValue;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;

/** Tables as steps of a plan, and columns that may not be null. */
final class TableSteps {
    private final SchemaDraft plan;
    private final KeySteps keys;
    private final CheckSteps checks;
    private final LinkSteps links;

    TableSteps(SchemaDraft plan, KeySteps keys, CheckSteps checks, LinkSteps links) {
        this.plan = plan;
        this.keys = keys;
        this.checks = checks;
        this.links = links;
    }

    void add(Table table) {
        if (plan.makes(table)) {
            createTable(table);
        } else {
            table.columns().forEach(column -> addNotNull(table, column));
        }
    }

    private void createTable(Table table) {
        ColumnSql columns = plan.columns(table);
        List<String> parts = new ArrayList<>();
        table.columns().forEach(column -> parts.add(columns.of(column)));
        boolean isNumbered = table.columns().stream().anyMatch(column -> column.generated() != Generated.NEVER);
        if (plan.dialect == Dialect.SQLITE) {
            addAllRules(table, parts);
        } else if (plan.dialect == Dialect.MARIADB
                && isNumbered
                && table.primaryKey().isPresent()) {
            // A numbered column has to be a key from its first moment on.
            parts.add("PRIMARY KEY (" + plan.names(table.primaryKey().get().columns()) + ")");
        }
        plan.steps.add(new SchemaStep(
                "make the table " + table.name(),
                "no other table",
                List.of("CREATE TABLE " + plan.name(table) + " (\n    " + String.join(",\n    ", parts) + "\n)"),
                List.of("DROP TABLE " + plan.name(table)),
                Optional.empty(),
                SchemaDraft.path(table)));
        table.columns().stream()
                .filter(column -> column.defaultValue()
                        .filter(value -> value instanceof DefaultValue.ByServer)
                        .isPresent())
                .forEach(column -> plan.leaveOut(
                        "the default of " + table.name() + "." + column.name(), "it is another server's expression"));
    }

    private void addAllRules(Table table, List<String> parts) {
        for (Key key : table.keys()) {
            if (key.where().isEmpty() && !key.nullsAreEqual() && key.severity() == Severity.ERROR) {
                parts.add("CONSTRAINT " + keys.nameOf(table, key) + (key.isPrimary() ? " PRIMARY KEY (" : " UNIQUE (")
                        + plan.names(key.columns()) + ")");
            } else {
                keys.add(table, key);
            }
        }
        for (Column column : table.columns()) {
            for (CheckSteps.Check check : checks.checksOf(table, column)) {
                parts.add("CONSTRAINT " + plan.dialect.name(check.name()) + " CHECK (" + check.condition() + ")");
            }
        }
        for (Rule rule : table.rules()) {
            checks.condition(table, rule)
                    .ifPresent(sql -> parts.add("CONSTRAINT " + plan.dialect.name(rule.name()) + " CHECK " + sql));
        }
        for (ForeignKey link : table.links()) {
            if (links.isPut(table, link)) {
                parts.add(links.constraint(link));
            }
        }
    }

    private void addNotNull(Table table, Column column) {
        List<String> path = SchemaDraft.path(table, "columns", column.name(), "not_null");
        boolean isOfKey = table.isOfPrimaryKey(column.name());
        if (!column.isRequired() || isOfKey || plan.isThere(path)) {
            return;
        }
        String what = table.name() + "." + column.name() + " may not be null";
        String name = plan.dialect.name(column.name());
        Optional<String> query = Optional.of("SELECT * FROM " + plan.name(table) + " WHERE " + name + " IS NULL");
        switch (plan.dialect) {
            case POSTGRESQL ->
                plan.steps.add(new SchemaStep(
                        what,
                        "locks " + table.name() + " against all use while its rows are read",
                        List.of("ALTER TABLE " + plan.name(table) + " ALTER COLUMN " + name + " SET NOT NULL"),
                        List.of("ALTER TABLE " + plan.name(table) + " ALTER COLUMN " + name + " DROP NOT NULL"),
                        query,
                        path));
            case MARIADB -> {
                String definition = plan.columns(table).of(column);
                plan.steps.add(new SchemaStep(
                        what,
                        "copies " + table.name() + " or reads it, and locks it against changes meanwhile",
                        List.of("ALTER TABLE " + plan.name(table) + " MODIFY COLUMN " + definition),
                        List.of("ALTER TABLE " + plan.name(table) + " MODIFY COLUMN "
                                + definition.replaceFirst(" NOT NULL$", " NULL")),
                        query,
                        path));
            }
            case SQLITE -> plan.leaveOut(what, "SQLite takes it only where a table is made: --tables");
        }
    }
}
