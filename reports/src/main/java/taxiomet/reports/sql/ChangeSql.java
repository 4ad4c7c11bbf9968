package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Expression;
import taxiomet.charter.Table;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.InsertedRow;
import taxiomet.proposal.Change.ListedRow;
import taxiomet.proposal.Input;
import taxiomet.proposal.ProposalException;

/** Changes as they were proposed, each as one statement of a server: it decides by itself what follows. */
public final class ChangeSql {
    private static final String NUMBER = "-?[0-9]{1,30}(?:\\.[0-9]{1,30})?";

    private final Charter charter;
    private final Dialect dialect;
    private final RowSql rows;

    public ChangeSql(Charter charter, Dialect dialect) {
        this.charter = charter;
        this.dialect = dialect;
        this.rows = new RowSql(dialect);
    }

    /** Statements by which the server reads the others as they are meant, and has links act. */
    public List<String> settings() {
        return dialect.settings();
    }

    /**
     * One statement for each change.
     *
     * @throws ProposalException when one cannot be said in a single statement that means the same to the server
     */
    public List<String> of(List<Change> changes) {
        List<String> statements = new ArrayList<>();
        for (Change change : changes) {
            try {
                statements.add(of(change));
            } catch (ExpressionSql.Unsaid e) {
                throw new ProposalException(
                        change.origin().place(),
                        "`" + change.origin().words() + "` cannot be said to the server as one statement: "
                                + e.getMessage(),
                        "rehearse it without --prove");
            }
        }
        return statements;
    }

    private String of(Change change) throws ExpressionSql.Unsaid {
        Table table = charter.table(change.table());
        if (change instanceof Change.Insert insert) {
            return insert(table, insert);
        } else if (change instanceof Change.Update update) {
            Map<String, String> sets = new LinkedHashMap<>();
            for (Map.Entry<String, Input> each : update.assignments().entrySet()) {
                sets.put(each.getKey(), given(table, each.getKey(), each.getValue()));
            }
            return "UPDATE " + dialect.name(table) + " SET " + assignments(sets) + where(table, update.where());
        } else if (change instanceof Change.Delete delete) {
            return "DELETE FROM " + dialect.name(table) + where(table, delete.where());
        } else if (change instanceof Change.DeleteListed delete) {
            return "DELETE FROM " + dialect.name(table) + " WHERE " + anyListed(table, delete);
        } else if (change instanceof Change.UpdateListed update) {
            return updateListed(table, update);
        }
        throw new ExpressionSql.Unsaid("what points at the row is moved by statements of its own");
    }

    private String where(Table table, Optional<Expression> condition) throws ExpressionSql.Unsaid {
        return condition.isEmpty() ? "" : " WHERE " + new ExpressionSql(dialect, table).of(condition.get());
    }

    private String assignments(Map<String, String> sets) {
        return sets.entrySet().stream()
                .map(set -> dialect.name(set.getKey()) + " = " + set.getValue())
                .collect(Collectors.joining(", "));
    }

    private String given(Table table, String column, Input input) throws ExpressionSql.Unsaid {
        if (input instanceof Input.Cell cell) {
            return literal(table.column(column), cell.text());
        } else if (input instanceof Input.Computed computed) {
            return new ExpressionSql(dialect, table).of(computed.value());
        } else if (dialect == Dialect.SQLITE) {
            throw new ExpressionSql.Unsaid("the server knows no word for a default among other values");
        }
        return "DEFAULT";
    }

    /** As a file gives it: a number that is oddly written is left to the server to read. */
    private String literal(Column column, String text) {
        boolean isNumber = column.type().family() == Family.EXACT_NUMBER;
        boolean isOdd = isNumber && text != null && !text.matches(NUMBER);
        return isOdd
                ? dialect.literal(Column.of(column.name(), ColumnType.of(ColumnType.Name.TEXT)), text)
                : dialect.literal(column, text);
    }

    private String insert(Table table, Change.Insert insert) throws ExpressionSql.Unsaid {
        List<Integer> places = new ArrayList<>();
        for (int i = 0; i < insert.columns().size(); i++) {
            int place = i;
            // Left out, a column gets its default too, and every server knows that.
            if (!insert.rows().stream().allMatch(row -> row.values().get(place) instanceof Input.Default)) {
                places.add(place);
            }
        }
        String into = "INSERT INTO " + dialect.name(table);
        if (places.isEmpty() && insert.rows().size() == 1) {
            return into + (dialect == Dialect.MARIADB ? " () VALUES ()" : " DEFAULT VALUES");
        } else if (places.isEmpty()) {
            throw new ExpressionSql.Unsaid("several rows are made of defaults alone");
        }
        List<String> values = new ArrayList<>();
        for (InsertedRow row : insert.rows()) {
            List<String> cells = new ArrayList<>();
            for (int place : places) {
                cells.add(given(table, insert.columns().get(place), row.values().get(place)));
            }
            values.add("(" + String.join(", ", cells) + ")");
        }
        String names = places.stream()
                .map(place -> dialect.name(insert.columns().get(place)))
                .collect(Collectors.joining(", "));
        return into + " (" + names + ") VALUES " + String.join(", ", values);
    }

    private String anyListed(Table table, Change.Listed listed) throws ExpressionSql.Unsaid {
        if (Change.namesByNumber(listed)) {
            throw new ExpressionSql.Unsaid("it names rows by their numbers");
        }
        return "("
                + rows.anyKey(
                        table,
                        listed.columns(),
                        listed.rows().stream().map(ListedRow::key).toList()) + ")";
    }

    private String updateListed(Table table, Change.UpdateListed update) throws ExpressionSql.Unsaid {
        Map<String, String> sets = new LinkedHashMap<>();
        for (int i = 0; i < update.newColumns().size(); i++) {
            String column = update.newColumns().get(i);
            StringBuilder cases = new StringBuilder("CASE");
            for (ListedRow row : update.rows()) {
                cases.append(" WHEN ")
                        .append(rows.anyKey(table, update.columns(), List.of(row.key())))
                        .append(" THEN ")
                        .append(given(table, column, row.values().get(i)));
            }
            sets.put(column, cases + " ELSE " + dialect.name(column) + " END");
        }
        return "UPDATE " + dialect.name(table) + " SET " + assignments(sets) + " WHERE " + anyListed(table, update);
    }
}
