package taxiomet.bench;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.postgresql.PGConnection;

/**
 * Deletes customers of the decision-support tables in an indexed PostgreSQL and an indexed SQLite, all links cascading, and takes each
 * delete back: {@code DeleteInEngines FOLDER}. Loading and indexing are timed apart.
 */
public final class DeleteInEngines {
    private static final List<String> CONDITIONS =
            List.of("c_custkey = 7", "c_custkey <= 1000", "c_custkey <= 15000");

    private DeleteInEngines() {}

    public static void main(String[] args) throws SQLException, IOException {
        Path folder = Path.of(args[0]);
        Path data = Files.createTempDirectory("server");
        try (EmbeddedPostgres server = EmbeddedPostgres.builder()
                .setDataDirectory(data)
                .setServerConfig("shared_buffers", "1GB")
                .setServerConfig("maintenance_work_mem", "512MB")
                .setServerConfig("fsync", "off")
                .start()) {
            try (Connection connection = server.getPostgresDatabase().getConnection();
                    Statement sql = connection.createStatement()) {
                long start = System.nanoTime();
                for (DecisionTable table : DecisionTable.all(false)) {
                    copy(connection, sql, table, folder);
                }
                sql.execute("ANALYZE");
                say("postgresql: load, keys, links and their indexes", start);
                delete(connection, sql, "postgresql");
            }
        }
        Path file = Files.createTempFile("tables", ".sqlite");
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement sql = connection.createStatement()) {
            long start = System.nanoTime();
            sql.execute("PRAGMA journal_mode = off");
            sql.execute("PRAGMA synchronous = off");
            sql.execute("PRAGMA cache_size = -500000");
            for (DecisionTable table : DecisionTable.all(false)) {
                insert(connection, sql, table, folder);
            }
            say("sqlite: load, keys, links and their indexes", start);
            sql.execute("PRAGMA journal_mode = memory");
            sql.execute("PRAGMA foreign_keys = on");
            delete(connection, sql, "sqlite");
        } finally {
            Files.deleteIfExists(file);
        }
    }

    private static void say(String what, long start) {
        System.out.printf("%s: %.2f s%n", what, (System.nanoTime() - start) / 1e9);
    }

    private static void delete(Connection connection, Statement sql, String engine) throws SQLException {
        connection.setAutoCommit(false);
        for (String condition : CONDITIONS) {
            long start = System.nanoTime();
            int rows = sql.executeUpdate("DELETE FROM customer WHERE " + condition);
            say(engine + ": delete " + rows + " customers", start);
            connection.rollback();
        }
        connection.setAutoCommit(true);
    }

    private static String columns(DecisionTable table) {
        return table.columns().stream()
                .map(c -> c.name() + " " + c.type() + (c.isRequired() ? " NOT NULL" : ""))
                .collect(Collectors.joining(", "));
    }

    private static Stream<String> links(DecisionTable table) {
        return table.links().stream()
                .map(link -> "FOREIGN KEY (" + String.join(", ", link.columns()) + ") REFERENCES " + link.parent() + " ("
                        + String.join(", ", link.parentColumns()) + ") ON DELETE CASCADE");
    }

    private static void index(Statement sql, DecisionTable table) throws SQLException {
        int number = 0;
        for (DecisionTable.Link link : table.links()) {
            sql.execute("CREATE INDEX " + table.name() + "_" + number++ + " ON " + table.name() + " ("
                    + String.join(", ", link.columns()) + ")");
        }
    }

    private static void copy(Connection connection, Statement sql, DecisionTable table, Path folder)
            throws SQLException, IOException {
        sql.execute("CREATE UNLOGGED TABLE " + table.name() + " (" + columns(table) + ")");
        try (InputStream rows = Files.newInputStream(folder.resolve(table.name() + ".csv"))) {
            connection
                    .unwrap(PGConnection.class)
                    .getCopyAPI()
                    .copyIn("COPY " + table.name() + " FROM STDIN WITH (FORMAT csv, HEADER true)", rows);
        }
        sql.execute("ALTER TABLE " + table.name() + " ADD PRIMARY KEY (" + String.join(", ", table.key()) + ")");
        for (String link : links(table).toList()) {
            sql.execute("ALTER TABLE " + table.name() + " ADD " + link);
        }
        index(sql, table);
    }

    private static void insert(Connection connection, Statement sql, DecisionTable table, Path folder)
            throws SQLException, IOException {
        String rules = Stream.concat(Stream.of("PRIMARY KEY (" + String.join(", ", table.key()) + ")"), links(table))
                .collect(Collectors.joining(", "));
        sql.execute("CREATE TABLE " + table.name() + " (" + columns(table) + ", " + rules + ")");
        int width = table.columns().size();
        String marks = Stream.generate(() -> "?").limit(width).collect(Collectors.joining(", "));
        connection.setAutoCommit(false);
        try (PreparedStatement insert =
                        connection.prepareStatement("INSERT INTO " + table.name() + " VALUES (" + marks + ")");
                Stream<String> lines = Files.lines(folder.resolve(table.name() + ".csv"))) {
            int[] waiting = new int[1];
            lines.skip(1).forEach(line -> {
                try {
                    List<String> cells = cells(line);
                    for (int i = 0; i < width; i++) {
                        insert.setString(i + 1, cells.get(i));
                    }
                    insert.addBatch();
                    if (++waiting[0] % 10_000 == 0) {
                        insert.executeBatch();
                    }
                } catch (SQLException e) {
                    throw new IllegalStateException(e);
                }
            });
            insert.executeBatch();
        }
        connection.commit();
        connection.setAutoCommit(true);
        index(sql, table);
    }

    /** The cells of a line; the tables have no line breaks in quotes. */
    private static List<String> cells(String line) {
        List<String> cells = new java.util.ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean isQuoted = false;
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            if (c == '"') {
                isQuoted = !isQuoted;
            } else if (c == ',' && !isQuoted) {
                cells.add(cell.toString());
                cell.setLength(0);
            } else {
                cell.append(c);
            }
        }
        cells.add(cell.toString());
        return cells;
    }
}
