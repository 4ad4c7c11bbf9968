package taxiomet.charters.proposals;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Expression;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.charters.sql.ExpressionReader;
import taxiomet.charters.sql.ExpressionReader.NamedTable;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.TokenCursor;
import taxiomet.charters.sql.TokenCursor.Unreadable;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.InsertedRow;
import taxiomet.proposal.Input;
import taxiomet.proposal.Origin;
import taxiomet.proposal.ProposalException;

/**
 * Makes changes of SQL statements: {@code DELETE FROM t [WHERE ..]}, {@code UPDATE t SET .. [WHERE ..]} and {@code INSERT INTO t
 * [(..)] VALUES (..), ..} or {@code DEFAULT VALUES}. Whatever else stands in a statement is refused: nothing is read and dropped.
 */
final class StatementReader {
    private static final int LONGEST = 20_000_000;
    private static final String FORMS =
            "a change is `DELETE FROM table WHERE condition`, `UPDATE table SET column = value"
                    + " WHERE condition` or `INSERT INTO table (columns) VALUES (...)`";

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
    Change read(SqlScript.Statement statement, String place) {
        Origin origin = new Origin(statement.sql().replaceAll("\\s+", " ").strip(), place);
        TokenCursor tokens = new TokenCursor(statement.tokens());
        try {
            if (statement.sql().length() > LONGEST) {
                throw problem(place, "this statement is longer than can be read", "give its rows as a CSV file");
            }
            Change change = change(tokens, origin);
            ExpressionReader.requireEnd(tokens);
            return change;
        } catch (Unreadable e) {
            throw problem(place, "this statement cannot be read: " + e.getMessage(), FORMS);
        } catch (ExpressionException e) {
            throw problem(place, e.words(), remedy(e));
        }
    }

    private static ProposalException problem(String place, String problem, String remedy) {
        return new ProposalException(place, problem, remedy);
    }

    private static String remedy(ExpressionException e) {
        if (e.unknownWord() == null) {
            return e.getMessage().startsWith("this part is not read") ? FORMS : "";
        }
        return NearestWord.of(e.unknownWord(), e.knownWords())
                .map(near -> "did you mean `" + near + "`?")
                .orElseGet(() -> "known: " + e.knownWords().stream().limit(24).collect(Collectors.joining(", ")));
    }

    private Change change(TokenCursor tokens, Origin origin) throws ExpressionException, Unreadable {
        if (tokens.take("delete")) {
            return delete(tokens, origin);
        } else if (tokens.take("update")) {
            return update(tokens, origin);
        } else if (tokens.take("insert")) {
            return insert(tokens, origin);
        }
        throw problem(
                origin.place(),
                "`" + tokens.peek().sql() + "` is no change that can be rehearsed",
                "write INSERT, UPDATE or DELETE");
    }

    private ExpressionReader reader(NamedTable named) {
        return new ExpressionReader(named.table().name(), tables, new ExpressionReader.Statement(named.alias(), now));
    }

    private static Optional<Expression> where(TokenCursor tokens, ExpressionReader reader) throws ExpressionException {
        return tokens.take("where") ? Optional.of(reader.readCondition(tokens)) : Optional.empty();
    }

    private Change delete(TokenCursor tokens, Origin origin) throws ExpressionException, Unreadable {
        tokens.require("from");
        NamedTable named = ExpressionReader.readTable(tokens, tables, Set.of());
        return new Change.Delete(origin, named.table().name(), where(tokens, reader(named)));
    }

    private Change update(TokenCursor tokens, Origin origin) throws ExpressionException, Unreadable {
        NamedTable named = ExpressionReader.readTable(tokens, tables, Set.of("set"));
        tokens.require("set");
        ExpressionReader reader = reader(named);
        Map<String, Input> assignments = new LinkedHashMap<>();
        do {
            List<String> columns = new ArrayList<>();
            List<Input> values = new ArrayList<>();
            if (tokens.takeSymbol("(")) {
                columns.addAll(columns(tokens, named.table()));
                tokens.requireSymbol("=");
                tokens.requireSymbol("(");
                values.addAll(inputs(tokens, reader));
                tokens.requireSymbol(")");
            } else {
                columns.add(column(tokens, named));
                tokens.requireSymbol("=");
                values.add(input(tokens, reader));
            }
            assign(assignments, columns, values, origin);
        } while (tokens.takeSymbol(","));
        return new Change.Update(origin, named.table().name(), assignments, where(tokens, reader));
    }

    private static void assign(
            Map<String, Input> assignments, List<String> columns, List<Input> values, Origin origin) {
        if (values.size() != columns.size()) {
            throw problem(
                    origin.place(),
                    "SET gives " + values.size() + " values for " + columns.size() + " columns",
                    "give each column one");
        }
        for (int i = 0; i < columns.size(); i++) {
            if (assignments.put(columns.get(i), values.get(i)) != null) {
                throw problem(origin.place(), "SET names column `" + columns.get(i) + "` twice", "set it once");
            }
        }
    }

    /** The names up to the closing parenthesis, and that. */
    private static List<String> columns(TokenCursor tokens, Table table) throws ExpressionException, Unreadable {
        List<String> columns = new ArrayList<>();
        do {
            columns.add(column(tokens.peek(), table));
            tokens.next();
        } while (tokens.takeSymbol(","));
        tokens.requireSymbol(")");
        return columns;
    }

    /** The column that is set; the table's name, or its other one, may stand before it. */
    private static String column(TokenCursor tokens, NamedTable named) throws ExpressionException, Unreadable {
        Token first = tokens.peek();
        boolean isTable = tokens.peek(1).isSymbol(".")
                && (first.text().equalsIgnoreCase(named.table().name())
                        || first.text().equalsIgnoreCase(named.alias()));
        if (isTable) {
            tokens.next();
            tokens.next();
        }
        String column = column(tokens.peek(), named.table());
        tokens.next();
        return column;
    }

    private static String column(Token written, Table table) throws ExpressionException, Unreadable {
        if (!written.isName()) {
            throw new Unreadable(written, "`" + written.sql() + "` stands where a column should");
        }
        return ExpressionReader.named(
                "column", written, table.columns().stream().map(Column::name).toList());
    }

    private static List<Input> inputs(TokenCursor tokens, ExpressionReader reader) throws ExpressionException {
        List<Input> inputs = new ArrayList<>();
        do {
            inputs.add(input(tokens, reader));
        } while (tokens.takeSymbol(","));
        return inputs;
    }

    private static Input input(TokenCursor tokens, ExpressionReader reader) throws ExpressionException {
        if (tokens.take("default")) {
            return new Input.Default();
        }
        Expression value = reader.readValue(tokens);
        ExpressionReader.requireNoPlace(value);
        return new Input.Computed(value);
    }

    private Change insert(TokenCursor tokens, Origin origin) throws ExpressionException, Unreadable {
        tokens.require("into");
        NamedTable named = ExpressionReader.readTable(tokens, tables, Set.of("values"));
        Table table = named.table();
        boolean isListed = tokens.takeSymbol("(");
        List<String> columns = isListed
                ? columns(tokens, table)
                : table.columns().stream().map(Column::name).toList();
        for (int i = 0; i < columns.size(); i++) {
            if (columns.indexOf(columns.get(i)) < i) {
                throw problem(origin.place(), "column `" + columns.get(i) + "` is named twice", "name it once");
            }
        }
        if (!isListed && tokens.take("default", "values")) {
            return new Change.Insert(
                    origin, table.name(), List.of(), List.of(new InsertedRow(origin.place(), List.of())));
        }
        if (tokens.isNext("select")) {
            throw problem(
                    origin.place(),
                    "INSERT ... SELECT is not known in a proposal",
                    "give the rows with VALUES or as a file");
        }
        tokens.require("values");
        ExpressionReader reader = reader(named);
        List<InsertedRow> rows = new ArrayList<>();
        do {
            tokens.requireSymbol("(");
            List<Input> row = inputs(tokens, reader);
            tokens.requireSymbol(")");
            requireConstants(row, columns.size(), rows.size() + 1, origin);
            rows.add(new InsertedRow(origin.place(), row));
        } while (tokens.takeSymbol(","));
        return new Change.Insert(origin, table.name(), columns, rows);
    }

    private static void requireConstants(List<Input> row, int columns, int number, Origin origin) {
        if (row.size() != columns) {
            throw problem(
                    origin.place(),
                    "row " + number + " of VALUES has " + row.size() + " values for " + columns + " columns",
                    "give each column one");
        }
        for (Input input : row) {
            if (input instanceof Input.Computed computed
                    && !computed.value().leaves().isEmpty()) {
                throw problem(
                        origin.place(),
                        "row " + number + " of VALUES names a column, and a new row has none yet",
                        "write a value");
            }
        }
    }
}
