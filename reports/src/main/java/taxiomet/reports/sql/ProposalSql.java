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
                script.add(comment + sql.guard(conditions(statement)));
                script.add(statement(statement));
            }
        }
        new ScriptFile(dialect, "makes the changes that were rehearsed").write(script, file);
    }

    private List<String> conditions(PlannedStatement statement) {
        List<String> conditions = new ArrayList<>();
        Table table = charter.table(statement.table());
        if (statement.kind() == Kind.INSERT) {
            conditions.add(sql.count(table, RowSql.any(statement.rows(), row -> sql.named(table, row.after())))
                    + " = 0");
        } else {
            conditions.add(sql.count(table, RowSql.any(statement.rows(), row -> sql.asSeen(table, row.before())))
                    + " = " + statement.rows().size());
        }
        for (Map.Entry<String, List<PlannedRow>> followers :
                byTable(statement.followers()).entrySet()) {
            Table of = charter.table(followers.getKey());
            conditions.add(sql.count(of, RowSql.any(followers.getValue(), row -> sql.asSeen(of, row.before()))) + " = "
                    + followers.getValue().size());
        }
        for (ChildCount counted : statement.counts()) {
            Table child = charter.table(counted.table());
            String keys = counted.keys().stream()
                    .map(key -> {
                        List<String> parts = new ArrayList<>();
                        for (int i = 0; i < key.size(); i++) {
                            parts.add(sql.equal(child.column(counted.columns().get(i)), key.get(i)));
                        }
                        return "(" + String.join(" AND ", parts) + ")";
                    })
                    .collect(Collectors.joining(" OR "));
            conditions.add(sql.count(child, keys) + " = " + counted.rows());
        }
        return conditions;
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
            case DELETE -> sql.delete(table, RowSql.any(statement.rows(), row -> sql.named(table, row.before())));
            case UPDATE -> sql.update(table, statement.set(), statement.rows(), true);
        };
    }
}
