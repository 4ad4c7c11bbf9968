package taxiomet.reports.sql;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.PlannedStatement.Kind;
import taxiomet.finding.PlannedStatement.PlannedRow;

/**
 * The script that takes back what a proposal's script did, statement by statement, the last first: every row is given the values that it
 * had, whatever action changed it, with links at rest. So rows in circles, and rows that broke rules before, are put back, too.
 */
public final class UndoSql {
    private final Charter charter;
    private final Dialect dialect;
    private final RowSql sql;

    public UndoSql(Charter charter, Dialect dialect) {
        this.charter = charter;
        this.dialect = dialect;
        this.sql = new RowSql(dialect);
    }

    /** @throws taxiomet.reports.OutputException when a table has no key to name rows by, or the file cannot be written */
    public void write(List<PlannedStatement> statements, Path file) {
        List<PlannedStatement> backwards = new ArrayList<>(statements);
        Collections.reverse(backwards);
        List<String> script = new ArrayList<>();
        for (PlannedStatement statement : backwards) {
            if (!statement.rows().isEmpty()) {
                addUndo(statement, script);
            }
        }
        new ScriptFile(dialect, "takes the changes back").withoutRules().write(script, file);
    }

    private void addUndo(PlannedStatement statement, List<String> script) {
        Table table = charter.table(statement.table());
        List<PlannedRow> rows = statement.rows();
        List<List<String>> end = rows.stream().map(PlannedRow::end).toList();
        List<List<String>> before = rows.stream().map(PlannedRow::before).toList();
        List<String> conditions = statement.kind() == Kind.DELETE
                ? List.of(sql.count(table, sql.namedAny(table, before)) + " = 0")
                : sql.areSeen(table, end);
        sql.addGuards(ScriptFile.comment(statement.words()), conditions, script);
        if (statement.kind() == Kind.INSERT) {
            script.add(sql.delete(table, end));
            return;
        }
        Map<String, List<PlannedRow>> touched = new LinkedHashMap<>();
        for (List<PlannedRow> some : List.of(rows, statement.followers())) {
            some.forEach(row -> touched.computeIfAbsent(row.table(), name -> new ArrayList<>())
                    .add(row));
        }
        touched.forEach((name, some) -> {
            List<List<String>> gone = some.stream()
                    .filter(row -> row.end().isEmpty())
                    .map(PlannedRow::before)
                    .toList();
            List<PlannedRow> changed =
                    some.stream().filter(row -> !row.end().isEmpty()).toList();
            addUpdates(charter.table(name), changed, script);
            if (!gone.isEmpty()) {
                script.add(sql.insert(charter.table(name), gone));
            }
        });
        addProof(touched, script);
    }

    /** Rows that got other keys get their old ones one by one, each when its key is free; the others together. */
    private void addUpdates(Table table, List<PlannedRow> rows, List<String> script) {
        Set<String> keyColumns = new LinkedHashSet<>();
        table.keys().forEach(key -> keyColumns.addAll(key.columns()));
        Map<List<String>, List<PlannedRow>> together = new LinkedHashMap<>();
        for (PlannedRow row : KeysFree.order(table, rows)) {
            List<String> columns = changedColumns(table, row);
            if (!Collections.disjoint(keyColumns, columns)) {
                script.add(sql.update(table, columns, List.of(row), false));
            } else if (!columns.isEmpty()) {
                together.computeIfAbsent(columns, c -> new ArrayList<>()).add(row);
            }
        }
        together.forEach((columns, some) -> script.add(sql.update(table, columns, some, false)));
    }

    /** In the end all rows are as they were, or nothing is done. */
    private void addProof(Map<String, List<PlannedRow>> touched, List<String> script) {
        List<String> conditions = new ArrayList<>();
        touched.forEach((name, some) -> conditions.addAll(sql.areSeen(
                charter.table(name), some.stream().map(PlannedRow::before).toList())));
        sql.addGuards("", conditions, script);
    }

    private static List<String> changedColumns(Table table, PlannedRow row) {
        List<String> changed = new ArrayList<>();
        for (int i = 0; i < row.before().size(); i++) {
            if (!Objects.equals(row.before().get(i), row.end().get(i))) {
                changed.add(table.columns().get(i).name());
            }
        }
        return changed;
    }
}
