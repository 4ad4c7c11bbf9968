package taxiomet.sources.sqlite;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.sqlite.SQLiteConfig;
import taxiomet.charter.NearestWord;
import taxiomet.charter.place.SqliteRows;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.FileParts;

/** What an SQLite database says of itself: its tables, their columns and keys. */
public final class SqliteCatalogue {
    /** Up to the version of the format that reads the file, by which write-ahead mode is known (SQLite file format, 1.3). */
    private static final int HEADER = 20;

    private static final byte WRITE_AHEAD = 2;
    private static final String WRITTEN_LAST = "-wal";
    private static final String COPY = "copy.sqlite";

    private SqliteCatalogue() {}

    /**
     * The tables and views of a database with the names of their columns, in the order of their names.
     *
     * @throws SourceException when it cannot be read, or has none
     */
    public static Map<String, List<String>> tablesOf(Path file) {
        SqliteRows any = new SqliteRows(file.getParent(), file.getFileName().toString(), "");
        Map<String, List<String>> all = new LinkedHashMap<>();
        try (Connection connection = connect(file)) {
            for (String table : tables(connection)) {
                List<String> columns = columnsOf(connection, table).stream()
                        .map(ColumnThere::name)
                        .toList();
                all.put(table, columns);
            }
        } catch (SQLException e) {
            throw unreadable(any, e);
        }
        if (all.isEmpty()) {
            throw new SourceException(file.toString(), "the database has no tables", "name another file");
        }
        return all;
    }

    static SourceException unreadable(SqliteRows rows, SQLException e) {
        String said = e.getMessage() == null ? "" : e.getMessage().replaceAll("^\\[(\\w+)\\]\\s*", "");
        String remedy = said.contains("not a database")
                ? "name a file that SQLite wrote"
                : said.contains("locked") ? "check again when nobody writes to it" : "";
        return new SourceException(rows.path(), "the database cannot be read (" + said + ")", remedy);
    }

    /**
     * A connection that only reads, with one snapshot for all that is read. A database in write-ahead mode to which nobody is writing is
     * read as a file that stays as it is: otherwise two files would be made beside it.
     */
    public static Connection connect(Path file) throws SQLException {
        SQLiteConfig config = new SQLiteConfig();
        config.setReadOnly(true);
        boolean isAtRest = isAtRest(file);
        Path read = isAtRest || !isLeft(file) ? file : copied(file);
        Connection connection = open(read, config, isAtRest ? "?mode=ro&immutable=1" : "?mode=ro");
        // One snapshot for all passes: what is read first is read again.
        connection.setAutoCommit(false);
        return connection;
    }

    /** One on which changes are carried out and rolled back; no file is made. */
    public static Connection connectToProve(Path file) throws SQLException {
        return open(file, new SQLiteConfig(), "?mode=rw");
    }

    private static Connection open(Path file, SQLiteConfig config, String mode) throws SQLException {
        config.enableLoadExtension(false);
        // As a URI: a question mark in a name is none of the address.
        Connection connection = config.createConnection(
                "jdbc:sqlite:file:" + file.toAbsolutePath().toUri().getRawPath() + mode);
        try (Statement statement = connection.createStatement()) {
            // Views of a file from elsewhere may call what does no harm, and nothing else (SQLite, "Defense Against The
            // Dark Arts").
            statement.execute("PRAGMA trusted_schema = OFF");
        }
        return connection;
    }

    /** Whether what was written last stands in a file beside it, and nobody has it open: to read it a third would be made there. */
    private static boolean isLeft(Path file) {
        return Files.exists(file.resolveSibling(file.getFileName() + WRITTEN_LAST))
                && Files.notExists(file.resolveSibling(file.getFileName() + "-shm"));
    }

    /** Both, in a folder for temporary files, which goes with the program. */
    private static Path copied(Path file) {
        try {
            Path folder = Files.createTempDirectory("taxiomet-");
            folder.toFile().deleteOnExit();
            for (String ending : List.of("", WRITTEN_LAST, "-shm")) {
                Path from = file.resolveSibling(file.getFileName() + ending);
                Path to = folder.resolve(COPY + ending);
                to.toFile().deleteOnExit();
                if (Files.exists(from)) {
                    Files.copy(from, to);
                }
            }
            return folder.resolve(COPY);
        } catch (IOException e) {
            throw new SourceException(
                    file.toString(),
                    "what was written last stands beside it, and both cannot be copied to be read (" + e.getMessage()
                            + ")",
                    "open it once with SQLite, which brings both together, or set TMPDIR to a folder with more room");
        }
    }

    private static boolean isAtRest(Path file) {
        byte[] header;
        try (InputStream in = Files.newInputStream(file)) {
            header = in.readNBytes(HEADER);
        } catch (IOException e) {
            throw FileParts.unreadable(file, e);
        }
        boolean isWriteAhead = header.length == HEADER && header[HEADER - 1] == WRITE_AHEAD;
        return isWriteAhead && !Files.exists(file.resolveSibling(file.getFileName() + WRITTEN_LAST));
    }

    static String quoted(String name) {
        return '"' + name.replace("\"", "\"\"") + '"';
    }

    /**
     * A column of a table.
     *
     * @param keyPlace which column of the primary key it is, 1 for the first; 0 for none
     */
    record ColumnThere(String name, int keyPlace) {}

    /** The columns of a table in their order; none where there is no such table. */
    private static List<ColumnThere> columnsOf(Connection connection, String table) throws SQLException {
        List<ColumnThere> columns = new ArrayList<>();
        try (PreparedStatement info =
                connection.prepareStatement("SELECT name, pk FROM pragma_table_info(?) ORDER BY cid")) {
            info.setString(1, table);
            ResultSet result = info.executeQuery();
            while (result.next()) {
                columns.add(new ColumnThere(result.getString(1), result.getInt(2)));
            }
        }
        return columns;
    }

    /** The columns of a table that is to be read. */
    static List<ColumnThere> columnsOf(Connection connection, SqliteRows rows) throws SQLException {
        List<ColumnThere> there = columnsOf(connection, rows.table());
        if (there.isEmpty()) {
            List<String> tables = tables(connection);
            throw new SourceException(
                    rows.path(),
                    "there is no table `" + rows.table() + "` in it"
                            + NearestWord.of(rows.table(), tables)
                                    .map(near -> "; did you mean `" + near + "`?")
                                    .orElse(""),
                    tables.isEmpty() ? "it has no tables" : "it has " + ColumnNames.listed(tables));
        }
        return there;
    }

    private static List<String> tables(Connection connection) throws SQLException {
        List<String> names = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT name FROM sqlite_schema"
                        + " WHERE type IN ('table', 'view') AND name NOT LIKE 'sqlite!_%' ESCAPE '!' ORDER BY name")) {
            while (result.next()) {
                names.add(result.getString(1));
            }
        }
        return names;
    }

    /** Whether rows can be found by {@code rowid}: not in views, in tables without it, and where a column bears the name. */
    static boolean hasRowId(Connection connection, SqliteRows rows, List<String> there) throws SQLException {
        if (there.stream().anyMatch("rowid"::equalsIgnoreCase)) {
            return false;
        }
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("SELECT type FROM sqlite_schema WHERE name = '"
                        + rows.table().replace("'", "''") + "' AND type = 'table'")) {
            if (!result.next()) {
                return false;
            }
        }
        try (Statement statement = connection.createStatement()) {
            statement
                    .executeQuery("SELECT rowid FROM " + quoted(rows.table()) + " LIMIT 0")
                    .close();
            return true;
        } catch (SQLException e) {
            return false;
        }
    }
}
