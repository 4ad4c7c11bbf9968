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
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.PlannedStatement.Kind;
import taxiomet.finding.PlannedStatement.PlannedRow;

/**
 * The script that takes back what a proposal's script did, statement by statement, the last first: every row is given the values that it
 * had, whatever action changed it.
 */
public final class UndoSql {
    private final Charter charter;
    private final Dialect dialect;
    private final RowSql sql;
    private final boolean isOutsideRules;

    /** @param putsFaultsBack whether some of the rows broke rules before the proposal */
    public UndoSql(Charter charter, Dialect dialect, boolean putsFaultsBack) {
        this.charter = charter;
        this.dialect = dialect;
        this.sql = new RowSql(dialect);
        this.isOutsideRules = putsFaultsBack || dialect.setsRulesAsideFreely();
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
        ScriptFile undo = new ScriptFile(dialect, "takes the changes back");
        (isOutsideRules ? undo.withoutRules() : undo).write(script, file);
    }

    private void addUndo(PlannedStatement statement, List<String> script) {
        Table table = charter.table(statement.table());
        List<PlannedRow> rows = statement.rows();
        boolean isDelete = statement.kind() == Kind.DELETE;
        String seen = isDelete
                ? sql.count(table, RowSql.any(rows, row -> sql.named(table, row.before()))) + " = 0"
                : sql.count(table, RowSql.any(rows, row -> sql.asSeen(table, row.end()))) + " = " + rows.size();
        script.add(ScriptFile.comment(statement.words()) + sql.guard(List.of(seen)));
        if (statement.kind() == Kind.INSERT) {
            script.add(sql.delete(table, RowSql.any(rows, row -> sql.named(table, row.end()))));
        } else if (statement.kind() == Kind.UPDATE) {
            addUpdates(table, statement.set(), rows, script);
        }
        Map<String, List<List<String>>> gone = new LinkedHashMap<>();
        if (isDelete) {
            rows.forEach(row -> addTo(gone, row));
        }
        statement.followers().stream().filter(row -> row.end().isEmpty()).forEach(row -> addTo(gone, row));
        for (List<InsertOrder.Batch> together : InsertOrder.of(charter, gone)) {
            script.add(insert(together));
        }
        Map<String, List<PlannedRow>> written = new LinkedHashMap<>();
        statement.followers().stream()
                .filter(row -> !row.end().isEmpty())
                .forEach(row -> written.computeIfAbsent(row.table(), t -> new ArrayList<>())
                        .add(row));
        written.forEach((name, some) -> {
            Table of = charter.table(name);
            KeysFree.order(of, some).forEach(row -> addUpdate(of, changedColumns(of, row), row, script));
        });
        if (statement.kind() == Kind.UPDATE) {
            // What actions did to the rows that the statement itself changed.
            for (PlannedRow row : rows) {
                List<String> columns = changedColumns(table, row);
                columns.removeAll(statement.set());
                addUpdate(table, columns, new PlannedRow(row.table(), row.before(), row.after(), row.before()), script);
            }
        }
        addProof(statement, script);
    }

    private void addUpdate(Table table, List<String> columns, PlannedRow row, List<String> script) {
        if (!columns.isEmpty()) {
            script.add(sql.update(table, columns, List.of(row), false));
        }
    }

    /** In the end all rows are as they were, or nothing is done. */
    private void addProof(PlannedStatement statement, List<String> script) {
        Map<String, List<PlannedRow>> before = new LinkedHashMap<>();
        for (List<PlannedRow> some : List.of(statement.rows(), statement.followers())) {
            some.stream()
                    .filter(row -> !row.before().isEmpty())
                    .forEach(row -> before.computeIfAbsent(row.table(), t -> new ArrayList<>())
                            .add(row));
        }
        if (!before.isEmpty()) {
            List<String> conditions = new ArrayList<>();
            before.forEach((name, some) -> {
                Table table = charter.table(name);
                conditions.add(sql.count(table, RowSql.any(some, row -> sql.asSeen(table, row.before()))) + " = "
                        + some.size());
            });
            script.add(sql.guard(conditions));
        }
    }

    private static void addTo(Map<String, List<List<String>>> gone, PlannedRow row) {
        gone.computeIfAbsent(row.table(), table -> new ArrayList<>()).add(row.before());
    }

    /** Rows that got other keys get their old ones one by one, each when its key is free. */
    private void addUpdates(Table table, List<String> set, List<PlannedRow> rows, List<String> script) {
        Set<String> keyColumns = new LinkedHashSet<>();
        for (Key key : table.keys()) {
            keyColumns.addAll(key.columns());
        }
        if (Collections.disjoint(keyColumns, set)) {
            script.add(sql.update(table, set, rows, false));
        } else {
            KeysFree.order(table, rows).forEach(row -> script.add(sql.update(table, set, List.of(row), false)));
        }
    }

    /** Rows in circles of several tables go into one statement, where the server takes such. */
    private String insert(List<InsertOrder.Batch> together) {
        List<String> inserts = new ArrayList<>();
        together.forEach(batch -> inserts.add(sql.insert(batch.table(), batch.rows())));
        if (inserts.size() == 1) {
            return inserts.get(0);
        } else if (!dialect.insertsTogether()) {
            return String.join(";\n", inserts);
        }
        StringBuilder one = new StringBuilder("WITH ");
        for (int i = 0; i + 1 < inserts.size(); i++) {
            one.append(i == 0 ? "" : ", ")
                    .append("part")
                    .append(i + 1)
                    .append(" AS (")
                    .append(inserts.get(i))
                    .append(")\n");
        }
        return one.append(inserts.get(inserts.size() - 1)).toString();
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
