package taxiomet.reports.sql;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.PlannedStatement.ChildCount;
import taxiomet.finding.PlannedStatement.Kind;
import taxiomet.finding.PlannedStatement.PlannedRow;
import taxiomet.reports.OutputException;

/**
 * An accepted proposal as a script of one transaction, and the script that takes it back. Before each statement stand guards: the rows
 * with the values that the rehearsal saw, and how many rows point at them. A guard that does not hold breaks a rule of a temporary
 * table, and so ends the transaction with nothing done.
 */
public final class ProposalSql {
    private static final String GUARD = "taxiomet_guard";

    private final Charter charter;
    private final Dialect dialect;

    public ProposalSql(Charter charter, Dialect dialect) {
        this.charter = charter;
        this.dialect = dialect;
    }

    /** @throws OutputException when a table has no key to name rows by, or the file cannot be written */
    public void write(List<PlannedStatement> statements, Path file) {
        List<String> script = new ArrayList<>();
        String words = "";
        for (PlannedStatement statement : statements) {
            if (!statement.rows().isEmpty()) {
                String comment = statement.words().equals(words) ? "" : comment(statement.words());
                words = statement.words();
                script.add(comment + guards(statement));
                script.add(statement(statement));
            }
        }
        write("makes the changes that were rehearsed", script, file);
    }

    /** The same the other way: what the script did is taken back, statement by statement, the last first. */
    public void writeUndo(List<PlannedStatement> statements, Path file) {
        List<PlannedStatement> backwards = new ArrayList<>(statements);
        Collections.reverse(backwards);
        List<String> script = new ArrayList<>();
        for (PlannedStatement statement : backwards) {
            script.addAll(undo(statement));
        }
        write("takes the changes back", script, file);
    }

    private void write(String what, List<String> script, Path file) {
        try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
            out.write(
                    "-- Written by a rehearsal for " + dialect.name().toLowerCase(java.util.Locale.ROOT) + ": " + what
                            + ".\n"
                            + "-- When the rows are not as the rehearsal saw them, it ends with an error and nothing is done.\n");
            List<String> all = new ArrayList<>();
            all.add(dialect.begin());
            all.add("CREATE TEMPORARY TABLE " + GUARD + " (holds integer NOT NULL CHECK (holds = 1))");
            all.addAll(script);
            all.add("DROP TABLE " + GUARD);
            all.add("COMMIT");
            for (String statement : all) {
                out.write(statement + ";\n");
            }
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static String comment(String words) {
        return "\n-- " + words.replaceAll("\\p{Cntrl}", " ") + "\n";
    }

    /** One row of the guard's table: 1 when all hold. */
    private String guards(PlannedStatement statement) {
        List<String> conditions = new ArrayList<>();
        Table table = charter.table(statement.table());
        if (statement.kind() == Kind.INSERT) {
            conditions.add(count(table, any(statement.rows(), row -> named(table, row.after()))) + " = 0");
        } else {
            conditions.add(count(table, any(statement.rows(), row -> asSeen(table, row.before()))) + " = "
                    + statement.rows().size());
        }
        for (Map.Entry<String, List<PlannedRow>> followers :
                byTable(statement.followers()).entrySet()) {
            Table of = charter.table(followers.getKey());
            conditions.add(count(of, any(followers.getValue(), row -> asSeen(of, row.before()))) + " = "
                    + followers.getValue().size());
        }
        for (ChildCount counted : statement.counts()) {
            Table child = charter.table(counted.table());
            String keys = counted.keys().stream()
                    .map(key -> {
                        List<String> parts = new ArrayList<>();
                        for (int i = 0; i < key.size(); i++) {
                            parts.add(equal(child.column(counted.columns().get(i)), key.get(i)));
                        }
                        return "(" + String.join(" AND ", parts) + ")";
                    })
                    .collect(Collectors.joining(" OR "));
            conditions.add(count(child, keys) + " = " + counted.rows());
        }
        return dialect.insertOrRollBack() + " " + GUARD + " SELECT CASE WHEN " + String.join("\n  AND ", conditions)
                + " THEN 1 ELSE 0 END";
    }

    private static Map<String, List<PlannedRow>> byTable(List<PlannedRow> rows) {
        return rows.stream().collect(Collectors.groupingBy(PlannedRow::table, LinkedHashMap::new, Collectors.toList()));
    }

    private String count(Table table, String condition) {
        return "(SELECT count(*) FROM " + dialect.name(table.name()) + " WHERE " + condition + ")";
    }

    private interface ConditionOf {
        String of(PlannedRow row);
    }

    private static String any(List<PlannedRow> rows, ConditionOf condition) {
        return rows.stream().map(row -> "(" + condition.of(row) + ")").collect(Collectors.joining("\n    OR "));
    }

    private String equal(Column column, String text) {
        return dialect.name(column.name()) + (text == null ? " IS NULL" : " = " + dialect.literal(column, text));
    }

    /** A row by its key. */
    private String named(Table table, List<String> cells) {
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

    private String statement(PlannedStatement statement) {
        Table table = charter.table(statement.table());
        return switch (statement.kind()) {
            case INSERT ->
                insert(table, statement.rows().stream().map(PlannedRow::after).toList());
            case DELETE ->
                "DELETE FROM " + dialect.name(table.name()) + " WHERE "
                        + any(statement.rows(), row -> named(table, row.before()));
            case UPDATE -> update(table, statement.set(), statement.rows(), true);
        };
    }

    private String insert(Table table, List<List<String>> rows) {
        String columns = table.columns().stream()
                .map(column -> dialect.name(column.name()))
                .collect(Collectors.joining(", "));
        String values = rows.stream()
                .map(cells -> {
                    List<String> literals = new ArrayList<>();
                    for (int i = 0; i < cells.size(); i++) {
                        literals.add(dialect.literal(table.columns().get(i), cells.get(i)));
                    }
                    return "(" + String.join(", ", literals) + ")";
                })
                .collect(Collectors.joining(",\n  "));
        return "INSERT INTO " + dialect.name(table.name()) + " (" + columns + ")" + dialect.overriding(table)
                + " VALUES\n  " + values;
    }

    /** @param isForward whether rows go from before to after; otherwise back */
    private String update(Table table, List<String> set, List<PlannedRow> rows, boolean isForward) {
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
        return "UPDATE " + dialect.name(table.name()) + " SET " + sets + " WHERE "
                + any(rows, row -> named(table, isForward ? row.before() : row.after()));
    }

    private String cases(Table table, List<PlannedRow> rows, List<String> values, boolean isForward, String column) {
        StringBuilder cases = new StringBuilder("CASE");
        for (int i = 0; i < rows.size(); i++) {
            PlannedRow row = rows.get(i);
            cases.append(" WHEN ")
                    .append(named(table, isForward ? row.before() : row.after()))
                    .append(" THEN ")
                    .append(values.get(i));
        }
        return cases.append(" ELSE ")
                .append(dialect.name(column))
                .append(" END")
                .toString();
    }

    private List<String> undo(PlannedStatement statement) {
        List<String> script = new ArrayList<>();
        if (statement.rows().isEmpty()) {
            return script;
        }
        Table table = charter.table(statement.table());
        switch (statement.kind()) {
            case INSERT -> {
                script.add(comment(statement.words())
                        + guard(
                                table,
                                any(statement.rows(), row -> asSeen(table, row.after())),
                                statement.rows().size()));
                script.add("DELETE FROM " + dialect.name(table.name()) + " WHERE "
                        + any(statement.rows(), row -> named(table, row.after())));
            }
            case DELETE ->
                script.add(comment(statement.words())
                        + guard(table, any(statement.rows(), row -> named(table, row.before())), 0));
            case UPDATE -> {
                script.add(comment(statement.words())
                        + guard(
                                table,
                                any(statement.rows(), row -> asSeen(table, row.after())),
                                statement.rows().size()));
                script.add(update(table, statement.set(), statement.rows(), false));
            }
        }
        Map<String, List<List<String>>> gone = new LinkedHashMap<>();
        if (statement.kind() == Kind.DELETE) {
            statement.rows().forEach(row -> addTo(gone, row));
        }
        statement.followers().stream().filter(row -> row.after().isEmpty()).forEach(row -> addTo(gone, row));
        for (InsertOrder.Batch batch : InsertOrder.of(charter, gone)) {
            script.add(insert(batch.table(), batch.rows()));
        }
        for (PlannedRow row : statement.followers()) {
            if (!row.after().isEmpty()) {
                script.addAll(putBack(row));
            }
        }
        return script;
    }

    private static void addTo(Map<String, List<List<String>>> gone, PlannedRow row) {
        gone.computeIfAbsent(row.table(), table -> new ArrayList<>()).add(row.before());
    }

    /** The old values of a row that an action wrote. */
    private List<String> putBack(PlannedRow row) {
        Table of = charter.table(row.table());
        List<String> changed = new ArrayList<>();
        for (int i = 0; i < row.before().size(); i++) {
            if (!Objects.equals(row.before().get(i), row.after().get(i))) {
                changed.add(of.columns().get(i).name());
            }
        }
        return changed.isEmpty() ? List.of() : List.of(update(of, changed, List.of(row), false));
    }

    private String guard(Table table, String condition, long rows) {
        return dialect.insertOrRollBack() + " " + GUARD + " SELECT CASE WHEN " + count(table, condition) + " = " + rows
                + " THEN 1 ELSE 0 END";
    }
}
