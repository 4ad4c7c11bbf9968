package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Column;
import taxiomet.charter.Comparison;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.reports.sql.ExpressionSql.Unsaid;

/** What holds in one row, as steps of a plan: values that may be there, lengths, and rules. */
final class CheckSteps {
    private final SchemaDraft plan;

    CheckSteps(SchemaDraft plan) {
        this.plan = plan;
    }

    record Check(String name, String condition, String what) {}

    /** What a column says of its values. */
    List<Check> checksOf(Table table, Column column) {
        boolean isChecked = !column.values().isEmpty() || column.length().isPresent();
        if (isChecked && !plan.binds(column.severity(), "what " + table.name() + "." + column.name() + " may hold")) {
            return List.of();
        }
        List<Check> checks = new ArrayList<>();
        String name = plan.dialect.name(column.name());
        if (!column.values().isEmpty()) {
            checks.add(new Check(
                    table.name() + "_" + column.name() + "_values",
                    name + " IN ("
                            + column.values().stream()
                                    .map(value -> plan.dialect.literal(column, value))
                                    .collect(Collectors.joining(", "))
                            + ")",
                    table.name() + "." + column.name() + " is one of some values"));
        }
        column.length()
                .ifPresent(range -> checks.add(new Check(
                        table.name() + "_" + column.name() + "_length",
                        (plan.dialect == Dialect.SQLITE ? "length(" : "char_length(") + name + ") >= " + range.least()
                                + (range.most() == taxiomet.charter.IntRange.NO_LIMIT
                                        ? ""
                                        : " AND " + (plan.dialect == Dialect.SQLITE ? "length(" : "char_length(") + name
                                                + ") <= " + range.most()),
                        "the length of " + table.name() + "." + column.name())));
        return checks;
    }

    void add(Table table) {
        if (!plan.isWhole(table)) {
            table.columns().forEach(column -> addColumnRules(table, column));
            table.rules().forEach(rule -> addRule(table, rule));
        }
        table.columns().forEach(column -> leaveOut(table, column));
        table.alike()
                .forEach(rule -> plan.leaveOut(
                        "likely doubles of " + table.name() + " (" + rule.name() + ")", "no server declares that"));
    }

    private void addColumnRules(Table table, Column column) {
        for (Check check : checksOf(table, column)) {
            addCheck(
                    table,
                    SchemaDraft.cut(check.name),
                    "(" + check.condition + ")",
                    "NOT (" + check.condition + ")",
                    check.what,
                    SchemaDraft.path(
                            table, "columns", column.name(), check.name.endsWith("_values") ? "values" : "length"));
        }
    }

    private void leaveOut(Table table, Column column) {
        String of = " of " + table.name() + "." + column.name();
        column.pattern()
                .ifPresent(pattern -> plan.leaveOut("the pattern" + of, "servers read patterns in ways of their own"));
        if (column.comparison() != Comparison.EXACT) {
            plan.leaveOut("the comparison" + of, "it would be a collation of the column");
        }
    }

    /** A rule as a condition in parentheses; empty, and left out, where the server cannot have it. */
    Optional<String> condition(Table table, Rule rule) {
        if (!plan.binds(rule.severity(), "the rule " + rule.name() + " of " + table.name())) {
            return Optional.empty();
        }
        Set<String> read = new LinkedHashSet<>();
        for (int column : rule.condition().columnsRead()) {
            read.add(table.columns().get(column).name());
        }
        Optional<ForeignKey> writing = table.links().stream()
                .filter(link -> plan.dialect == Dialect.MARIADB && link.isEnforced() && writes(link))
                .filter(link -> link.columns().stream().anyMatch(read::contains))
                .findFirst();
        if (writing.isPresent()) {
            plan.leaveOut(
                    "the rule " + rule.name() + " of " + table.name(),
                    plan.server.title() + " takes no CHECK over columns that an action writes, as that of "
                            + writing.get().name() + " does");
            return Optional.empty();
        }
        try {
            return Optional.of(bracketed(new ExpressionSql(plan.dialect, table).of(rule.condition())));
        } catch (Unsaid e) {
            plan.leaveOut("the rule " + rule.name() + " of " + table.name(), e.getMessage());
            return Optional.empty();
        }
    }

    private static boolean writes(ForeignKey link) {
        return link.onDelete().name() == ActionName.SET_NULL
                || link.onUpdate().name() == ActionName.SET_NULL
                || link.onUpdate().name() == ActionName.CASCADE;
    }

    private static String bracketed(String sql) {
        return sql.startsWith("(") ? sql : "(" + sql + ")";
    }

    private void addRule(Table table, Rule rule) {
        List<String> path = SchemaDraft.path(table, "rules", rule.name());
        if (!plan.isThere(path)) {
            condition(table, rule)
                    .ifPresent(sql -> addCheck(
                            table,
                            rule.name(),
                            sql,
                            broken(table, rule, sql),
                            "the rule " + rule.name() + " of " + table.name(),
                            path));
        }
    }

    /** True for rows that break a rule; a division by zero breaks it, and would end a query. */
    private String broken(Table table, Rule rule, String sql) {
        try {
            String zero = new ExpressionSql(plan.dialect, table)
                    .divisors(rule.condition()).stream()
                            .distinct()
                            .map(divisor -> " WHEN " + divisor + " = 0 THEN TRUE")
                            .collect(Collectors.joining());
            return zero.isEmpty() ? "NOT " + sql : "CASE" + zero + " ELSE NOT " + sql + " END";
        } catch (Unsaid e) {
            throw new IllegalStateException("the rule was said as a whole", e);
        }
    }

    private void addCheck(Table table, String name, String condition, String broken, String what, List<String> path) {
        if (plan.isThere(path)) {
            return;
        }
        if (plan.dialect == Dialect.SQLITE) {
            plan.leaveOut(what, "SQLite takes it only where a table is made: --tables");
            return;
        }
        String add = "ALTER TABLE " + plan.name(table) + " ADD CONSTRAINT " + plan.dialect.name(name) + " CHECK "
                + condition;
        boolean isLater = plan.dialect == Dialect.POSTGRESQL && !plan.makes(table);
        plan.steps.add(new SchemaStep(
                what,
                isLater
                        ? "locks " + table.name() + " for a moment; its rows are read later, while others change them"
                        : "locks " + table.name() + " against changes while its rows are read",
                isLater
                        ? List.of(
                                add + " NOT VALID",
                                "ALTER TABLE " + plan.name(table) + " VALIDATE CONSTRAINT " + plan.dialect.name(name))
                        : List.of(add),
                List.of("ALTER TABLE " + plan.name(table) + " DROP CONSTRAINT " + plan.dialect.name(name)),
                Optional.of("SELECT * FROM " + plan.name(table) + " WHERE " + broken),
                path));
    }
}
