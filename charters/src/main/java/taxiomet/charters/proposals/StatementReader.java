package taxiomet.charters.proposals;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import net.sf.jsqlparser.JSQLParserException;
import net.sf.jsqlparser.expression.Expression;
import net.sf.jsqlparser.expression.operators.relational.ExpressionList;
import net.sf.jsqlparser.expression.operators.relational.ParenthesedExpressionList;
import net.sf.jsqlparser.parser.CCJSqlParserUtil;
import net.sf.jsqlparser.parser.ParseException;
import net.sf.jsqlparser.schema.Column;
import net.sf.jsqlparser.statement.delete.Delete;
import net.sf.jsqlparser.statement.insert.Insert;
import net.sf.jsqlparser.statement.select.Values;
import net.sf.jsqlparser.statement.update.Update;
import net.sf.jsqlparser.statement.update.UpdateSet;
import taxiomet.charter.Charter;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.charters.sql.ExpressionReader;
import taxiomet.rehearse.Change;
import taxiomet.rehearse.Change.InsertedRow;
import taxiomet.rehearse.Input;
import taxiomet.rehearse.Origin;
import taxiomet.rehearse.ProposalException;

/** Makes changes of SQL statements: INSERT, UPDATE and DELETE of one table. */
final class StatementReader {
    private static final int WORDS_SHOWN = 120;
    private static final int LONGEST = 20_000_000;

    private final Map<String, Table> tables;
    private final Instant now;

    StatementReader(Charter charter, Instant now) {
        this.tables = charter.tables().stream()
                .collect(Collectors.toMap(Table::name, table -> table, (one, other) -> one, LinkedHashMap::new));
        this.now = now;
    }

    /**
     * Makes a change of a statement.
     *
     * @param place where it stands, for messages
     */
    Change read(String sql, String place) {
        Origin origin = new Origin(shortened(sql), place);
        try {
            if (sql.length() > LONGEST) {
                throw problem(place, "this statement is longer than can be read", "give its rows as a CSV file");
            }
            net.sf.jsqlparser.statement.Statement statement =
                    CCJSqlParserUtil.parse(sql, parser -> parser.withTimeOut(120_000));
            if (statement instanceof Delete delete) {
                return delete(delete, origin);
            } else if (statement instanceof Update update) {
                return update(update, origin);
            } else if (statement instanceof Insert insert) {
                return insert(insert, origin);
            }
            throw problem(
                    place,
                    "`" + sql.split("\\s+", 2)[0] + "` is no change that can be rehearsed",
                    "write INSERT, UPDATE or DELETE");
        } catch (JSQLParserException e) {
            throw problem(place, "this statement cannot be read" + near(e), "");
        } catch (StackOverflowError e) {
            throw problem(place, "this statement is nested too deep", "");
        } catch (ExpressionException e) {
            throw problem(place, words(e), remedy(e));
        }
    }

    private static ProposalException problem(String place, String problem, String remedy) {
        return new ProposalException(place, problem, remedy);
    }

    private static String words(ExpressionException e) {
        return e.unknownWord() == null ? e.getMessage() : e.getMessage() + " `" + e.unknownWord() + "`";
    }

    private static String remedy(ExpressionException e) {
        if (e.unknownWord() == null) {
            return "";
        }
        return NearestWord.of(e.unknownWord(), e.knownWords())
                .map(near -> "did you mean `" + near + "`?")
                .orElseGet(() -> "known: " + e.knownWords().stream().limit(24).collect(Collectors.joining(", ")));
    }

    private static String near(JSQLParserException e) {
        if (e.getCause() instanceof ParseException parse && parse.currentToken != null) {
            net.sf.jsqlparser.parser.Token next = parse.currentToken.next;
            return next == null || next.image.isEmpty()
                    ? ": it ends too early"
                    : " at `" + next.image + "` (line " + next.beginLine + " of it, character " + next.beginColumn
                            + ")";
        }
        return "";
    }

    private static String shortened(String sql) {
        String line = sql.replaceAll("\\s+", " ").strip();
        return line.length() > WORDS_SHOWN ? line.substring(0, WORDS_SHOWN - 1) + "…" : line;
    }

    private Table table(net.sf.jsqlparser.schema.Table named) throws ExpressionException {
        return tables.get(ExpressionReader.tableNamed(named.getName(), tables.keySet()));
    }

    private ExpressionReader reader(Table table, net.sf.jsqlparser.schema.Table named) {
        String alias = named.getAlias() == null ? "" : named.getAlias().getName();
        return new ExpressionReader(table.name(), tables, new ExpressionReader.Statement(alias, now));
    }

    private static Optional<taxiomet.charter.Expression> where(ExpressionReader reader, Expression where)
            throws ExpressionException {
        return where == null ? Optional.empty() : Optional.of(reader.readCondition(where.toString()));
    }

    private static void requireAbsent(boolean isThere, String what, Origin origin) {
        if (isThere) {
            throw problem(
                    origin.place(), what + " is not known in a change", "name the rows by a condition over one table");
        }
    }

    private static boolean isThere(List<?> list) {
        return list != null && !list.isEmpty();
    }

    private Change delete(Delete delete, Origin origin) throws ExpressionException {
        requireAbsent(isThere(delete.getUsingFromItemList()), "USING", origin);
        requireAbsent(isThere(delete.getJoins()), "a join", origin);
        requireAbsent(isThere(delete.getTables()), "a list of tables", origin);
        requireAbsent(delete.getLimit() != null, "LIMIT", origin);
        requireAbsent(isThere(delete.getWithItemsList()), "WITH", origin);
        requireAbsent(delete.getReturningClause() != null, "RETURNING", origin);
        Table table = table(delete.getTable());
        return new Change.Delete(origin, table.name(), where(reader(table, delete.getTable()), delete.getWhere()));
    }

    private Change update(Update update, Origin origin) throws ExpressionException {
        requireAbsent(update.getFromItem() != null, "FROM", origin);
        requireAbsent(isThere(update.getJoins()) || isThere(update.getStartJoins()), "a join", origin);
        requireAbsent(update.getLimit() != null, "LIMIT", origin);
        requireAbsent(isThere(update.getWithItemsList()), "WITH", origin);
        requireAbsent(update.getReturningClause() != null, "RETURNING", origin);
        Table table = table(update.getTable());
        ExpressionReader reader = reader(table, update.getTable());
        Map<String, Input> assignments = new LinkedHashMap<>();
        for (UpdateSet set : update.getUpdateSets()) {
            List<Expression> values = flattened(set.getValues());
            if (values.size() != set.getColumns().size()) {
                throw problem(
                        origin.place(),
                        "SET gives " + values.size() + " values for "
                                + set.getColumns().size() + " columns",
                        "give each column one");
            }
            for (int i = 0; i < values.size(); i++) {
                String column = column(table, set.getColumns().get(i), origin);
                if (assignments.put(column, input(reader, values.get(i))) != null) {
                    throw problem(origin.place(), "SET names column `" + column + "` twice", "set it once");
                }
            }
        }
        return new Change.Update(origin, table.name(), assignments, where(reader, update.getWhere()));
    }

    private static List<Expression> flattened(ExpressionList<?> values) {
        if (values.size() == 1 && values.get(0) instanceof ParenthesedExpressionList<?> inner && inner.size() > 1) {
            return List.copyOf(inner);
        }
        return List.copyOf(values);
    }

    private static String column(Table table, Column column, Origin origin) {
        String written = column.getColumnName();
        boolean isQuoted = written.startsWith("\"") || written.startsWith("`");
        String name = isQuoted ? written.substring(1, written.length() - 1) : written;
        List<String> known =
                table.columns().stream().map(taxiomet.charter.Column::name).toList();
        return ColumnNames.find(name, known, !isQuoted).orElseThrow(() -> problemWith(origin, name, known));
    }

    private static ProposalException problemWith(Origin origin, String name, List<String> known) {
        return new ProposalException(
                origin.place(),
                "there is no column `" + name + "`",
                NearestWord.of(name, known)
                        .map(near -> "did you mean `" + near + "`?")
                        .orElseGet(() -> "its columns: " + String.join(", ", known)));
    }

    private static Input input(ExpressionReader reader, Expression value) throws ExpressionException {
        if (value instanceof Column column
                && column.getTable() == null
                && column.getColumnName().equalsIgnoreCase("default")) {
            return new Input.Default();
        }
        return new Input.Computed(reader.readValue(value.toString()));
    }

    private Change insert(Insert insert, Origin origin) throws ExpressionException {
        requireAbsent(insert.getConflictAction() != null || insert.getConflictTarget() != null, "ON CONFLICT", origin);
        requireAbsent(isThere(insert.getWithItemsList()), "WITH", origin);
        requireAbsent(insert.getReturningClause() != null, "RETURNING", origin);
        Table table = table(insert.getTable());
        ExpressionReader reader = reader(table, insert.getTable());
        List<String> columns = new ArrayList<>();
        if (isThere(insert.getColumns())) {
            for (Column column : insert.getColumns()) {
                String name = column(table, column, origin);
                if (columns.contains(name)) {
                    throw problem(origin.place(), "column `" + name + "` is named twice", "name it once");
                }
                columns.add(name);
            }
        } else {
            table.columns().forEach(column -> columns.add(column.name()));
        }
        if (insert.getSelect() == null) {
            return new Change.Insert(
                    origin, table.name(), List.of(), List.of(new InsertedRow(origin.place(), List.of())));
        }
        if (!(insert.getSelect() instanceof Values values)) {
            throw problem(
                    origin.place(),
                    "INSERT ... SELECT is not known in a proposal",
                    "give the rows with VALUES or as a file");
        }
        List<InsertedRow> rows = new ArrayList<>();
        for (List<Expression> row : rowsOf(values)) {
            if (row.size() != columns.size()) {
                throw problem(
                        origin.place(),
                        "row " + (rows.size() + 1) + " of VALUES has " + row.size() + " values for " + columns.size()
                                + " columns",
                        "give each column one");
            }
            List<Input> inputs = new ArrayList<>();
            for (Expression value : row) {
                Input input = input(reader, value);
                if (input instanceof Input.Computed computed
                        && !computed.value().leaves().isEmpty()) {
                    throw problem(
                            origin.place(),
                            "`" + value + "` names a column, and a new row has none yet",
                            "write a value");
                }
                inputs.add(input);
            }
            rows.add(new InsertedRow(origin.place(), inputs));
        }
        return new Change.Insert(origin, table.name(), columns, rows);
    }

    private static List<List<Expression>> rowsOf(Values values) {
        List<List<Expression>> rows = new ArrayList<>();
        ExpressionList<?> list = values.getExpressions();
        boolean isOneRow = list instanceof ParenthesedExpressionList<?>;
        if (isOneRow) {
            rows.add(List.copyOf(list));
            return rows;
        }
        for (Expression row : list) {
            rows.add(row instanceof ExpressionList<?> several ? List.copyOf(several) : List.of(row));
        }
        return rows;
    }
}
