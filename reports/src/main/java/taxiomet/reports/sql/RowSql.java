package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement.PlannedRow;
import taxiomet.reports.OutputException;

/** Writes conditions that name rows, statements that change them, and guards, as a server wants them. */
final class RowSql {
    private final Dialect dialect;

    RowSql(Dialect dialect) {
        this.dialect = dialect;
    }

    /** A condition on one row. */
    interface ConditionOf {
        String of(PlannedRow row);
    }

    /** A guard: nothing happens unless all conditions hold. */
    String guard(List<String> conditions) {
        return dialect.insertOrRollBack() + " " + Dialect.GUARD + " SELECT CASE WHEN "
                + String.join("\n  AND ", conditions) + " THEN 1 ELSE 0 END";
    }

    String count(Table table, String condition) {
        return "(SELECT count(*) FROM " + dialect.name(table.name()) + " WHERE " + condition + ")";
    }

    static String any(List<PlannedRow> rows, ConditionOf condition) {
        return rows.stream().map(row -> "(" + condition.of(row) + ")").collect(Collectors.joining("\n    OR "));
    }

    String equal(Column column, String text) {
        return dialect.name(column.name()) + (text == null ? " IS NULL" : " = " + dialect.literal(column, text));
    }

    /** A row by its key. */
    String named(Table table, List<String> cells) {
        if (table.keys().isEmpty()) {
            throw new OutputException(
                    table.name(),
                    "rows without a key cannot be named in SQL",
                    "declare a primary or unique key for the table");
        }
        Key key = table.keys().get(0);
        return key.columns().stream()
                .map(name -> equal(table.column(name), cells.get(table.indexOf(name))))
                .collect(Collectors.joining(" AND "));
    }

    /** A row with all the values that were seen; floating-point ones are not compared. */
    String asSeen(Table table, List<String> cells) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < cells.size(); i++) {
            Column column = table.columns().get(i);
            if (column.type().family() != Family.APPROXIMATE_NUMBER) {
                parts.add(equal(column, cells.get(i)));
            }
        }
        return String.join(" AND ", parts);
    }

    String delete(Table table, String condition) {
        return "DELETE FROM " + dialect.name(table.name()) + " WHERE " + dialect.whileGuarded(condition);
    }

    /** @param rows a cell for each column of the table */
    String insert(Table table, List<List<String>> rows) {
        String columns = table.columns().stream()
                .map(column -> dialect.name(column.name()))
                .collect(Collectors.joining(", "));
        List<String> values = new ArrayList<>();
        for (List<String> cells : rows) {
            List<String> literals = new ArrayList<>();
            for (int i = 0; i < cells.size(); i++) {
                String literal = dialect.literal(table.columns().get(i), cells.get(i));
                literals.add(values.isEmpty() && i == 0 ? dialect.valueWhileGuarded(literal) : literal);
            }
            values.add("(" + String.join(", ", literals) + ")");
        }
        return "INSERT INTO " + dialect.name(table.name()) + " (" + columns + ")" + dialect.overriding(table)
                + " VALUES\n  " + String.join(",\n  ", values);
    }

    /** @param isForward whether rows go from before to after; otherwise back */
    String update(Table table, List<String> set, List<PlannedRow> rows, boolean isForward) {
        String sets = set.stream()
                .map(name -> {
                    int place = table.indexOf(name);
                    List<String> values = rows.stream()
                            .map(row -> dialect.literal(
                                    table.column(name), (isForward ? row.after() : row.before()).get(place)))
                            .toList();
                    boolean isOne = values.stream().distinct().count() == 1;
                    return dialect.name(name) + " = "
                            + (isOne ? values.get(0) : cases(table, rows, values, isForward, name));
                })
                .collect(Collectors.joining(", "));
        String where = any(rows, row -> named(table, isForward ? row.before() : row.end()));
        return "UPDATE " + dialect.name(table.name()) + " SET " + sets + " WHERE " + dialect.whileGuarded(where);
    }

    private String cases(Table table, List<PlannedRow> rows, List<String> values, boolean isForward, String column) {
        StringBuilder cases = new StringBuilder("CASE");
        for (int i = 0; i < rows.size(); i++) {
            PlannedRow row = rows.get(i);
            cases.append(" WHEN ")
                    .append(named(table, isForward ? row.before() : row.end()))
                    .append(" THEN ")
                    .append(values.get(i));
        }
        return cases.append(" ELSE ")
                .append(dialect.name(column))
                .append(" END")
                .toString();
    }
}
