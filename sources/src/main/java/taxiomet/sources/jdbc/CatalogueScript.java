package taxiomet.sources.jdbc;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Server;
import taxiomet.charter.place.Database;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.SourceException;
import taxiomet.vet.Catalogue.Unheld;

/**
 * What a database's catalogue declares, as a script of CREATE and ALTER statements in the server's own words: whoever reads schemas reads
 * catalogues.
 *
 * @param sql the script
 * @param server whose catalogue it is
 * @param unheld what is declared and not held by all rows
 */
public record CatalogueScript(String sql, Server server, List<Unheld> unheld) {
    public CatalogueScript {
        unheld = List.copyOf(unheld);
    }

    /**
     * Reads a catalogue.
     *
     * @param folder where a password file is sought
     * @param access what may be connected to
     * @param schemas those whose tables are wanted; empty for those of the connection
     * @throws SourceException when it cannot be read, or holds no table
     */
    public static CatalogueScript of(Database database, Path folder, DatabaseAccess access, List<String> schemas) {
        try (Connection connection =
                new Login(database, folder, access).connected().connect()) {
            Server server = DatabaseSession.serverOf(connection);
            List<Unheld> unheld = new ArrayList<>();
            List<String> statements = switch (server) {
                case POSTGRESQL -> new PostgresCatalogue(connection, schemas).statements(unheld);
                case MARIADB -> ofMariadb(connection, database, schemas);
                case SQLITE -> ofSqlite(connection);
                default -> new JdbcCatalogue(connection, schemas).statements();
            };
            if (statements.stream().noneMatch(each -> each.startsWith("CREATE TABLE"))) {
                throw new SourceException(
                        database.shown(),
                        schemas.isEmpty()
                                ? "there is no table that the user may see"
                                : "there is no table in " + ColumnNames.listed(schemas),
                        "name another --schema, or have rights granted");
            }
            return new CatalogueScript(String.join(";\n", statements) + ";\n", server, unheld);
        } catch (SQLException e) {
            throw Refusals.of(database, "", e);
        }
    }

    static List<String> texts(Connection connection, String query, Object... values) throws SQLException {
        List<String> texts = new ArrayList<>();
        try (PreparedStatement statement = connection.prepareStatement(query)) {
            for (int i = 0; i < values.length; i++) {
                statement.setObject(i + 1, values[i]);
            }
            try (ResultSet result = statement.executeQuery()) {
                while (result.next()) {
                    texts.add(result.getString(1));
                }
            }
        }
        return texts;
    }

    private static List<String> ofMariadb(Connection connection, Database database, List<String> schemas)
            throws SQLException {
        SqlNames names = SqlNames.of(Server.MARIADB);
        List<String> wanted = schemas.isEmpty() ? texts(connection, "SELECT database()") : schemas;
        List<String> statements = new ArrayList<>();
        for (String schema : wanted) {
            if (schema == null) {
                throw new SourceException(
                        database.shown(), "the address names no database", "add one to it, or name a --schema");
            }
            for (String table : texts(
                    connection,
                    "SELECT table_name FROM information_schema.tables WHERE table_schema = ?"
                            + " AND table_type = 'BASE TABLE' ORDER BY table_name",
                    schema)) {
                String called = names.quoted(schema) + "." + names.quoted(table);
                try (Statement statement = connection.createStatement();
                        ResultSet result = statement.executeQuery("SHOW CREATE TABLE " + called)) {
                    result.next();
                    String created = withoutEscapes(result.getString(2));
                    statements.add(
                            schemas.isEmpty()
                                    ? created
                                    : created.replaceFirst(
                                            "^CREATE TABLE ",
                                            "CREATE TABLE "
                                                    + java.util.regex.Matcher.quoteReplacement(
                                                            names.quoted(schema) + ".")));
                }
            }
        }
        return statements;
    }

    /** The statement with its texts as standard SQL writes them: a backslash is a letter like any other there. */
    static String withoutEscapes(String created) {
        StringBuilder plain = new StringBuilder();
        char quote = 0;
        for (int i = 0; i < created.length(); i++) {
            char c = created.charAt(i);
            if (quote == '\'' && c == '\\' && i + 1 < created.length()) {
                char next = created.charAt(++i);
                plain.append(
                        switch (next) {
                            case 'n' -> "\n";
                            case 'r' -> "\r";
                            case 't' -> "\t";
                            case '0' -> "\0";
                            case '\'' -> "''";
                            default -> String.valueOf(next);
                        });
                continue;
            }
            if (quote == 0 && (c == '\'' || c == '`' || c == '"')) {
                quote = c;
            } else if (c == quote) {
                quote = 0;
            }
            plain.append(c);
        }
        return plain.toString();
    }

    private static List<String> ofSqlite(Connection connection) throws SQLException {
        return texts(
                connection,
                "SELECT sql FROM sqlite_schema WHERE sql IS NOT NULL AND type IN ('table', 'index')"
                        + " AND name NOT LIKE 'sqlite!_%' ESCAPE '!' ORDER BY type DESC, rootpage, name");
    }
}
