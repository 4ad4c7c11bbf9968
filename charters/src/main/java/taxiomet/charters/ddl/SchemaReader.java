package taxiomet.charters.ddl;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.CharterException;
import taxiomet.charter.NotRead.What;
import taxiomet.charter.Problem;
import taxiomet.charter.Problem.Kind;
import taxiomet.charters.ddl.TableDraft.KeyDraft;
import taxiomet.charters.ddl.TableDraft.LinkDraft;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.input.ReadCharter;
import taxiomet.charters.sql.SqlTokens;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.SqlTokens.Unfinished;
import taxiomet.charters.sql.TokenCursor;
import taxiomet.charters.sql.TokenCursor.Unreadable;
import taxiomet.charters.yaml.CharterReader;
import taxiomet.charters.yaml.DraftNode;

/** Reads a SQL schema as a charter. */
public final class SchemaReader {
    private static final List<String> ENDINGS = List.of(".csv", ".csv.gz", ".csv.zst", ".csv.zip");
    private static final Set<String> ORACLE_WORDS = Set.of("varchar2", "nvarchar2", "number", "binary_double");
    private static final Set<String> SQLSERVER_WORDS =
            Set.of("datetime2", "uniqueidentifier", "nonclustered", "clustered");

    private final String file;
    private final Path rows;
    private final SchemaNotes notes;
    private final NameBook names = new NameBook();
    private final Map<String, List<String>> enumerations = new HashMap<>();
    private final Map<String, DomainDraft> domains = new HashMap<>();
    private final List<Problem> problems = new ArrayList<>();
    private boolean isOracle;
    private boolean isSqlServer;
    private int links;

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
        return new SchemaReader(InputFile.name(file), rows).read(file, script);
    }

    private ReadCharter read(Path path, String script) throws CharterException {
        List<Token> tokens;
        try {
            tokens = SqlTokens.ofScript(script);
        } catch (Unfinished e) {
            throw new CharterException(
                    List.of(new Problem(file, e.line(), e.column(), Kind.FORM, e.getMessage(), "close it")));
        }
        isOracle = tokens.stream().anyMatch(t -> ORACLE_WORDS.contains(t.text().toLowerCase(Locale.ROOT)));
        isSqlServer = tokens.stream()
                .anyMatch(t -> SQLSERVER_WORDS.contains(t.text().toLowerCase(Locale.ROOT))
                        || (t.kind() == SqlTokens.Kind.END && t.text().equalsIgnoreCase("go")));
        List<List<Token>> statements = SqlTokens.statements(tokens);
        readAll(statements, this::readDomain);
        readAll(statements, this::read);
        if (problems.isEmpty() && names.isEmpty()) {
            problems.add(new Problem(
                    file,
                    0,
                    0,
                    Kind.MEANING,
                    "no statement declares a table",
                    "name the script that holds CREATE TABLE"));
        }
        names.tables().forEach(table -> {
            if (table.name.text().indexOf('/') >= 0) {
                problem(table.name, "no file can be named after the table `" + table.name.text() + "`");
            }
        });
        if (!problems.isEmpty()) {
            throw new CharterException(problems);
        }
        return CharterReader.read(path, document(), rows, notes.all());
    }

    private interface StatementReader {
        void read(List<Token> statement) throws Unreadable;
    }

    private void readAll(List<List<Token>> statements, StatementReader reader) {
        for (List<Token> statement : statements) {
            try {
                reader.read(statement);
            } catch (Unreadable e) {
                problem(e.token(), "this statement cannot be read: " + e.getMessage());
            }
        }
    }

    private void problem(Token place, String problem) {
        problems.add(new Problem(
                file, place.line(), place.column(), Kind.FORM, problem, "correct it, or take it out of the script"));
    }

    private void read(List<Token> tokens) throws Unreadable {
        TokenCursor statement = new TokenCursor(tokens);
        Token first = statement.peek();
        if (statement.take("create")) {
            statement.take("or", "replace");
            statement.skip("global", "local", "temporary", "temp", "unlogged");
            if (statement.take("table")) {
                createTable(statement, first);
            } else if (isUniqueIndex(statement)) {
                createUniqueIndex(statement, first, tokens);
            } else if (statement.take("type")) {
                createType(statement, first);
            } else if (!statement.isNext("domain")) {
                notes.passOver(first, "CREATE " + statement.peek().text().toUpperCase(Locale.ROOT));
            }
        } else if (statement.take("alter", "table")) {
            alterTable(statement);
        } else if (statement.take("drop", "table")) {
            dropTables(statement, first);
        } else if (!statement.isNext("alter", "domain")) {
            notes.passOver(first, first.text().toUpperCase(Locale.ROOT));
        }
    }

    private static boolean isUniqueIndex(TokenCursor statement) {
        for (int ahead = 0; ahead < 3; ahead++) {
            if (statement.peek(ahead).is("unique")) {
                return true;
            }
        }
        return false;
    }

    private TableStatement elements(TokenCursor statement, TableDraft table) {
        TypeReader types = new TypeReader(new SqlTypes(enumerations, isOracle), domains);
        return new TableStatement(statement, table, types, isSqlServer);
    }

    private void createTable(TokenCursor statement, Token first) throws Unreadable {
        statement.take("if", "not", "exists");
        List<Token> parts = statement.path();
        Token name = parts.get(parts.size() - 1);
        if (!statement.peek().isSymbol("(")) {
            notes.passOver(first, "CREATE TABLE without columns of its own");
            return;
        }
        TableDraft table = new TableDraft(name);
        table.schema = parts.size() > 1 ? parts.get(parts.size() - 2) : null;
        elements(statement, table).readElements();
        while (!statement.isAtEnd()) {
            Token rest = statement.next();
            if (rest.is("inherits")) {
                table.lose(What.TABLE, null, rest, List.of(rest), "the columns of the tables behind it are not read");
            }
        }
        if (!names.add(table)) {
            throw new Unreadable(name, "table `" + name.text() + "` has been created before");
        }
        number(table);
    }

    /** Links act and are judged in the order in which they were declared, whichever tables they belong to. */
    private void number(TableDraft table) {
        for (LinkDraft link : table.links) {
            link.order = link.order == 0 ? ++links : link.order;
        }
    }

    private void alterTable(TokenCursor statement) throws Unreadable {
        boolean isOptional = statement.take("if", "exists");
        statement.take("only");
        Token name = statement.name();
        TableDraft table = names.find(name);
        if (table == null && isOptional) {
            notes.passOver(name, "ALTER TABLE IF EXISTS");
            return;
        } else if (table == null) {
            throw new Unreadable(name, "no table `" + name.text() + "` has been created before");
        }
        new AlterStatement(statement, table, elements(statement, table), notes).read();
        number(table);
    }

    private void dropTables(TokenCursor statement, Token first) throws Unreadable {
        statement.take("if", "exists");
        do {
            if (!names.remove(statement.name())) {
                notes.passOver(first, "DROP");
            }
        } while (statement.takeSymbol(","));
    }

    private void createUniqueIndex(TokenCursor statement, Token first, List<Token> tokens) throws Unreadable {
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
        if (table == null) {
            notes.passOver(first, "CREATE UNIQUE INDEX on no table that was created");
            return;
        }
        KeyColumns columns = KeyColumns.read(statement, true);
        if (columns.problem().isPresent()) {
            table.lose(What.KEY, name, first, tokens, columns.problem().get());
            return;
        }
        boolean equal = isSqlServer;
        while (!statement.isAtEnd() && !statement.isNext("where")) {
            if (statement.take("nulls", "not", "distinct")) {
                equal = true;
            } else if (statement.peek().isSymbol("(")) {
                statement.skipParentheses();
            } else {
                statement.next();
            }
        }
        List<Token> where = new ArrayList<>();
        if (statement.take("where")) {
            while (!statement.isAtEnd() && !isIndexOption(statement)) {
                where.add(statement.next());
            }
        }
        table.uniqueKeys.add(new KeyDraft(name, columns.names(), equal, where));
    }

    private static boolean isIndexOption(TokenCursor statement) {
        return statement.isNext("with") && statement.peek(1).isSymbol("(");
    }

    private void createType(TokenCursor statement, Token first) throws Unreadable {
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

    /** Domains come before the tables: what is changed about one later holds for the columns that were there before. */
    private void readDomain(List<Token> tokens) throws Unreadable {
        TokenCursor statement = new TokenCursor(tokens);
        if (statement.take("create", "domain")) {
            String name = nameOfDomain(statement);
            domains.put(name, DomainDraft.create(statement));
        } else if (statement.take("alter", "domain")) {
            DomainDraft domain = domains.get(nameOfDomain(statement));
            if (domain != null) {
                domain.alter(statement);
            } else {
                notes.passOver(tokens.get(0), "ALTER DOMAIN");
            }
        }
    }

    private static String nameOfDomain(TokenCursor statement) throws Unreadable {
        return statement.name().text().toLowerCase(Locale.ROOT);
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
        document.put(1, 1, "link_order", linkOrder());
        return document;
    }

    private DraftNode linkOrder() {
        DraftNode order = DraftNode.list(1, 1);
        record Named(String table, LinkDraft link) {}
        List<Named> all = new ArrayList<>();
        for (TableDraft table : names.tables()) {
            table.links.forEach(link -> all.add(new Named(table.name.text(), link)));
        }
        all.sort(Comparator.comparingInt(named -> named.link().order));
        for (Named named : all) {
            Token at = named.link().columns.get(0);
            order.add(at.line(), at.column(), named.table() + "." + named.link().calledAs);
        }
        return order;
    }

    /** The file of a table's rows as a path, in which the table's own letters are no pattern. */
    private String fileOf(String table) {
        Optional<String> there =
                ENDINGS.stream().filter(ending -> isThere(table + ending)).findFirst();
        String path = table.replaceAll("[*?\\[{\\\\]", "\\\\$0");
        return path + there.orElse(".csv");
    }

    private boolean isThere(String name) {
        try {
            return Files.exists(rows.resolve(name));
        } catch (java.nio.file.InvalidPathException e) {
            return false;
        }
    }
}
