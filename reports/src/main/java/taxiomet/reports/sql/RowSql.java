package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement.PlannedRow;
import taxiomet.reports.OutputException;

/** Writes conditions that name rows, statements that change them, and guards, as a server wants them. */
final class RowSql {
    /** So many alternatives of a condition servers can take apart, whatever their limits. */
    private static final int MOST_ALTERNATIVES = 100;

    private static final int MOST_CONDITIONS = 20;

    private final Dialect dialect;

    RowSql(Dialect dialect) {
        this.dialect = dialect;
    }

    /**
     * Adds guards to a script: nothing happens unless all conditions hold.
     *
     * @param comment what stands before the first
     */
    void addGuards(String comment, List<String> conditions, List<String> script) {
        for (int from = 0; from < conditions.size(); from += MOST_CONDITIONS) {
            List<String> some = conditions.subList(from, Math.min(conditions.size(), from + MOST_CONDITIONS));
            script.add((from == 0 ? comment : "") + dialect.insertOrRollBack() + " " + Dialect.GUARD
                    + " SELECT CASE WHEN " + String.join("\n  AND ", some) + " THEN 1 ELSE 0 END");
        }
    }

    /** Conditions that rows are there with all the values that were seen; floating-point ones are not compared. */
    List<String> areSeen(Table table, List<List<String>> rows) {
        List<String> conditions = new ArrayList<>();
        for (int from = 0; from < rows.size(); from += MOST_ALTERNATIVES) {
            List<List<String>> some = rows.subList(from, Math.min(rows.size(), from + MOST_ALTERNATIVES));
            String any = some.stream()
                    .map(cells -> "(" + asSeen(table, cells) + ")")
                    .collect(Collectors.joining("\n    OR "));
            conditions.add(count(table, any) + " = " + some.size());
        }
        return conditions;
    }

    String count(Table table, String condition) {
        return "(SELECT count(*) FROM " + dialect.name(table) + " WHERE " + condition + ")";
    }

    /** Some rows, by their keys. */
    String namedAny(Table table, List<List<String>> rows) {
        List<String> columns = keyOf(table).columns();
        return anyKey(
                table,
                columns,
                rows.stream()
                        .map(cells -> columns.stream()
                                .map(name -> cells.get(table.indexOf(name)))
                                .toList())
                        .toList());
    }

    /** Rows that have one of some keys in some columns. */
    String anyKey(Table table, List<String> columns, List<List<String>> keys) {
        boolean isShort = keys.size() <= MOST_ALTERNATIVES || keys.stream().anyMatch(key -> key.contains(null));
        if (isShort) {
            return keys.stream()
                    .map(key -> "(" + equal(table, columns, key) + ")")
                    .collect(Collectors.joining("\n    OR "));
        }
        List<String> tuples = new ArrayList<>();
        for (List<String> key : keys) {
            List<String> literals = new ArrayList<>();
            for (int i = 0; i < key.size(); i++) {
                literals.add(dialect.literal(table.column(columns.get(i)), key.get(i)));
            }
            tuples.add(columns.size() == 1 ? literals.get(0) : "(" + String.join(", ", literals) + ")");
        }
        List<String> names = columns.stream().map(dialect::name).toList();
        return columns.size() == 1
                ? names.get(0) + " IN (" + String.join(", ", tuples) + ")"
                : "(" + String.join(", ", names) + ") IN (" + dialect.tuples() + String.join(", ", tuples) + ")";
    }

    private String equal(Table table, List<String> columns, List<String> values) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            parts.add(equal(table.column(columns.get(i)), values.get(i)));
        }
        return String.join(" AND ", parts);
    }

    private String equal(Column column, String text) {
        return dialect.name(column.name()) + (text == null ? " IS NULL" : " = " + dialect.literal(column, text));
    }

    private static Key keyOf(Table table) {
        if (table.keys().isEmpty()) {
            throw new OutputException(
                    table.name(),
                    "rows without a key cannot be named in SQL",
                    "declare a primary or unique key for the table");
        }
        return table.keys().get(0);
    }

    private String named(Table table, List<String> cells) {
        List<String> columns = keyOf(table).columns();
        return equal(
                table,
                columns,
                columns.stream().map(name -> cells.get(table.indexOf(name))).toList());
    }

    private String asSeen(Table table, List<String> cells) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < cells.size(); i++) {
            Column column = table.columns().get(i);
            if (column.type().family() != Family.APPROXIMATE_NUMBER) {
                parts.add(equal(column, cells.get(i)));
            }
        }
        return String.join(" AND ", parts);
    }

    /** Deletes rows by their keys. */
    String delete(Table table, List<List<String>> rows) {
        boolean isOwnParent =
                table.links().stream().anyMatch(link -> link.parent().equals(table.name()));
        return "DELETE FROM " + dialect.name(table) + " WHERE " + dialect.whileGuarded(namedAny(table, rows))
                + (isOwnParent ? inOrder(table, rows) : "");
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
        return "INSERT INTO " + dialect.name(table) + " (" + columns + ")" + dialect.overriding(table) + " VALUES\n  "
                + String.join(",\n  ", values);
    }

    /** @param isForward whether rows go from before to after; otherwise back */
    String update(Table table, List<String> set, List<PlannedRow> rows, boolean isForward) {
        List<List<String>> now =
                rows.stream().map(row -> isForward ? row.before() : row.end()).toList();
        String sets = set.stream()
                .map(name -> {
                    int place = table.indexOf(name);
                    List<String> values = rows.stream()
                            .map(row -> dialect.literal(
                                    table.column(name), (isForward ? row.after() : row.before()).get(place)))
                            .toList();
                    boolean isOne = values.stream().distinct().count() == 1;
                    return dialect.name(name) + " = "
                            + (isOne
                                    ? values.get(0)
                                    : byRow(table, now, values) + " ELSE " + dialect.name(name) + " END");
                })
                .collect(Collectors.joining(", "));
        boolean setsKey =
                table.keys().stream().anyMatch(key -> key.columns().stream().anyMatch(set::contains));
        return "UPDATE " + dialect.name(table) + " SET " + sets + " WHERE " + dialect.whileGuarded(namedAny(table, now))
                + (setsKey ? inOrder(table, now) : "");
    }

    /** Rows one after the other as they stand here, where a server judges each of them by itself: a key may be free only then. */
    private String inOrder(Table table, List<List<String>> rows) {
        if (!dialect.judgesRowByRow() || rows.size() < 2) {
            return "";
        }
        List<String> places =
                IntStream.rangeClosed(1, rows.size()).mapToObj(String::valueOf).toList();
        return "\n  ORDER BY " + byRow(table, rows, places) + " END";
    }

    /** A value for each row, as an expression whose end is left open. */
    private String byRow(Table table, List<List<String>> rows, List<String> values) {
        StringBuilder cases = new StringBuilder("CASE");
        for (int i = 0; i < rows.size(); i++) {
            cases.append(" WHEN ")
                    .append(named(table, rows.get(i)))
                    .append(" THEN ")
                    .append(values.get(i));
        }
        return cases.toString();
    }
}
