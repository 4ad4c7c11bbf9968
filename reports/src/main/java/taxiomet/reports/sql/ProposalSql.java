package taxiomet.reports.sql;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.PlannedStatement.ChildCount;
import taxiomet.finding.PlannedStatement.Kind;
import taxiomet.finding.PlannedStatement.PlannedRow;
import taxiomet.reports.OutputException;

/**
 * An accepted proposal as a script of one transaction. Before each statement stand guards: the rows with the values that the rehearsal
 * saw, and how many rows point at them.
 */
public final class ProposalSql {
    private final Charter charter;
    private final Dialect dialect;
    private final RowSql sql;

    public ProposalSql(Charter charter, Dialect dialect) {
        this.charter = charter;
        this.dialect = dialect;
        this.sql = new RowSql(dialect);
    }

    /** @throws OutputException when a table has no key to name rows by, or the file cannot be written */
    public void write(List<PlannedStatement> statements, Path file) {
        List<String> script = new ArrayList<>();
        String words = "";
        for (PlannedStatement statement : statements) {
            if (!statement.rows().isEmpty()) {
                String comment = statement.words().equals(words) ? "" : ScriptFile.comment(statement.words());
                words = statement.words();
                sql.addGuards(comment, conditions(statement), script);
                script.add(statement(statement));
            }
        }
        new ScriptFile(dialect, "makes the changes that were rehearsed").write(script, file);
    }

    private List<String> conditions(PlannedStatement statement) {
        List<String> conditions = new ArrayList<>();
        Table table = charter.table(statement.table());
        if (statement.kind() == Kind.INSERT) {
            List<List<String>> made =
                    statement.rows().stream().map(PlannedRow::after).toList();
            conditions.add(sql.count(table, sql.namedAny(table, made)) + " = 0");
        } else {
            conditions.addAll(sql.areSeen(table, before(statement.rows())));
        }
        byTable(statement.followers())
                .forEach((name, rows) -> conditions.addAll(sql.areSeen(charter.table(name), before(rows))));
        for (ChildCount counted : statement.counts()) {
            Table child = charter.table(counted.table());
            conditions.add(
                    sql.count(child, sql.anyKey(child, counted.columns(), counted.keys())) + " = " + counted.rows());
        }
        return conditions;
    }

    private static List<List<String>> before(List<PlannedRow> rows) {
        return rows.stream().map(PlannedRow::before).toList();
    }

    private static Map<String, List<PlannedRow>> byTable(List<PlannedRow> rows) {
        return rows.stream().collect(Collectors.groupingBy(PlannedRow::table, LinkedHashMap::new, Collectors.toList()));
    }

    private String statement(PlannedStatement statement) {
        Table table = charter.table(statement.table());
        return switch (statement.kind()) {
            case INSERT ->
                sql.insert(
                        table, statement.rows().stream().map(PlannedRow::after).toList());
            case DELETE -> sql.delete(table, before(statement.rows()));
            case UPDATE -> sql.update(table, statement.set(), statement.rows(), true);
        };
    }
}
