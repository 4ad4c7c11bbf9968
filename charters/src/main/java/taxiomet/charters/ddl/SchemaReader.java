package taxiomet.charters.ddl;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charter.Problem.Kind;
import taxiomet.charters.ReadCharter;
import taxiomet.charters.ddl.SqlTokens.Token;
import taxiomet.charters.ddl.SqlTokens.Unfinished;
import taxiomet.charters.ddl.Statement.Unreadable;
import taxiomet.charters.ddl.TableDraft.KeyDraft;
import taxiomet.charters.yaml.CharterReader;
import taxiomet.charters.yaml.DraftNode;

/** Reads a SQL schema as a charter. */
public final class SchemaReader {
    private static final List<String> ENDINGS = List.of(".csv", ".csv.gz", ".csv.zst");
    private static final Set<String> ORACLE_WORDS = Set.of("varchar2", "nvarchar2", "number", "binary_double");
    private static final Set<String> SQLSERVER_WORDS =
            Set.of("datetime2", "uniqueidentifier", "nonclustered", "clustered");

    private final String file;
    private final Path rows;
    private final SchemaNotes notes;
    private final NameBook names = new NameBook();
    private final Map<String, List<String>> enumerations = new HashMap<>();
    private final List<Problem> problems = new ArrayList<>();
    private boolean isOracle;
    private boolean isSqlServer;

    private SchemaReader(String file, Path rows) {
        this.file = file;
        this.rows = rows;
        this.notes = new SchemaNotes(file);
    }

    /**
     * Makes a charter of a script.
     *
     * @param rows the folder that holds the rows of each table, in {@code <table>.csv} or the same compressed
     * @throws CharterException with all problems
     */
    public static ReadCharter read(Path file, String script, Path rows) throws CharterException {
        return new SchemaReader(file.toString(), rows).read(file, script);
    }

    private ReadCharter read(Path path, String script) throws CharterException {
        List<Token> tokens;
        try {
            tokens = SqlTokens.of(script);
        } catch (Unfinished e) {
            throw new CharterException(
                    List.of(new Problem(file, e.line(), e.column(), Kind.FORM, e.getMessage(), "close it")));
        }
        isOracle = tokens.stream().anyMatch(t -> ORACLE_WORDS.contains(t.text().toLowerCase(Locale.ROOT)));
        isSqlServer = tokens.stream()
                .anyMatch(t -> SQLSERVER_WORDS.contains(t.text().toLowerCase(Locale.ROOT))
                        || (t.kind() == SqlTokens.Kind.END && t.is("go")));
        for (List<Token> statement : statements(tokens)) {
            try {
                read(statement);
            } catch (Unreadable e) {
                problems.add(new Problem(
                        file,
                        e.token().line(),
                        e.token().column(),
                        Kind.FORM,
                        "this statement cannot be read: " + e.getMessage(),
                        "correct it, or take it out of the script"));
            }
        }
        if (problems.isEmpty() && names.isEmpty()) {
            problems.add(new Problem(
                    file,
                    0,
                    0,
                    Kind.MEANING,
                    "no statement declares a table",
                    "name the script that holds CREATE TABLE"));
        }
        if (!problems.isEmpty()) {
            throw new CharterException(problems);
        }
        return CharterReader.read(path, document(), rows, notes.all());
    }

    private static List<List<Token>> statements(List<Token> tokens) {
        List<List<Token>> statements = new ArrayList<>();
        List<Token> current = new ArrayList<>();
        for (Token token : tokens) {
            if (token.kind() != SqlTokens.Kind.END) {
                current.add(token);
            } else if (!current.isEmpty()) {
                statements.add(current);
                current = new ArrayList<>();
            }
        }
        if (!current.isEmpty()) {
            statements.add(current);
        }
        return statements;
    }

    private void read(List<Token> tokens) throws Unreadable {
        Statement statement = new Statement(tokens);
        Token first = statement.peek();
        if (statement.take("create")) {
            statement.take("or", "replace");
            statement.skip("global", "local", "temporary", "temp", "unlogged");
            if (statement.take("table")) {
                createTable(statement, first);
            } else if (statement.isNext("unique")) {
                createUniqueIndex(statement, first);
            } else if (statement.take("type")) {
                createType(statement, first);
            } else {
                notes.passOver(first, "CREATE " + statement.peek().text().toUpperCase(Locale.ROOT));
            }
        } else if (statement.take("alter", "table")) {
            alterTable(statement);
        } else {
            notes.passOver(first, first.text().toUpperCase(Locale.ROOT));
        }
    }

    private TableStatement reader(Statement statement, TableDraft table) {
        return new TableStatement(statement, table, new SqlTypes(enumerations, isOracle), notes, isSqlServer);
    }

    private void createTable(Statement statement, Token first) throws Unreadable {
        statement.take("if", "not", "exists");
        Token name = statement.name();
        if (!statement.peek().isSymbol("(")) {
            notes.passOver(first, "CREATE TABLE without columns of its own");
            return;
        }
        TableDraft table = new TableDraft(name);
        reader(statement, table).readElements();
        if (!names.add(table)) {
            throw new Unreadable(name, "table `" + name.text() + "` has been created before");
        }
    }

    private void alterTable(Statement statement) throws Unreadable {
        statement.take("if", "exists");
        statement.take("only");
        Token name = statement.name();
        TableDraft table = names.find(name);
        if (table == null) {
            throw new Unreadable(name, "no table `" + name.text() + "` has been created before");
        }
        reader(statement, table).readChanges();
    }

    private void createUniqueIndex(Statement statement, Token first) throws Unreadable {
        statement.next();
        while (!statement.isAtEnd() && !statement.isNext("index")) {
            statement.next();
        }
        statement.require("index");
        statement.take("concurrently");
        statement.take("if", "not", "exists");
        Token name = statement.isNext("on") ? null : statement.name();
        statement.require("on");
        statement.take("only");
        TableDraft table = names.find(statement.name());
        if (statement.take("using")) {
            statement.next();
        }
        boolean hasColumnsAlone = table != null && statement.peek().isSymbol("(") && isListOfNames(statement);
        if (!hasColumnsAlone) {
            notes.passOver(first, "CREATE UNIQUE INDEX over expressions");
            return;
        }
        List<Token> columns = statement.names();
        boolean equal = statement.take("nulls", "not", "distinct") || isSqlServer;
        for (int ahead = 0; statement.peek(ahead).line() > 0; ahead++) {
            if (statement.peek(ahead).is("where")) {
                notes.passOver(first, "CREATE UNIQUE INDEX with a condition");
                return;
            }
        }
        table.uniqueKeys.add(new KeyDraft(name, columns, equal));
    }

    /** Whether the parenthesis holds nothing but names, with the order of each. */
    private static boolean isListOfNames(Statement statement) {
        for (int ahead = 1; !statement.peek(ahead).isSymbol(")"); ahead++) {
            if (!statement.peek(ahead).isName() && !statement.peek(ahead).isSymbol(",")) {
                return false;
            }
        }
        return true;
    }

    private void createType(Statement statement, Token first) throws Unreadable {
        Token name = statement.name();
        if (!statement.take("as", "enum")) {
            notes.passOver(first, "CREATE TYPE");
            return;
        }
        List<String> values = statement.skipParentheses().stream()
                .filter(token -> token.kind() == SqlTokens.Kind.TEXT)
                .map(Token::text)
                .toList();
        enumerations.put(name.text().toLowerCase(Locale.ROOT), values);
    }

    private DraftNode document() {
        DraftNode document = DraftNode.map(1, 1);
        document.put(1, 1, "charter", "1");
        DraftNode tables = DraftNode.map(1, 1);
        for (TableDraft table : names.tables()) {
            tables.put(
                    table.name.line(),
                    table.name.column(),
                    table.name.text(),
                    table.document(names, fileOf(table.name.text())));
        }
        document.put(1, 1, "tables", tables);
        return document;
    }

    private String fileOf(String table) {
        return ENDINGS.stream()
                .map(ending -> table + ending)
                .filter(name -> Files.exists(rows.resolve(name)))
                .findFirst()
                .orElse(table + ".csv");
    }
}
