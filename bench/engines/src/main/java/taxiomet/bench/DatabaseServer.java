package taxiomet.bench;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.stream.Collectors;
import org.postgresql.PGConnection;

/**
 * The work of a check, done by a database server: load, then add primary and foreign keys: {@code DatabaseServer FOLDER}. Prints the
 * processor seconds of the server, which does not count as ours.
 */
public final class DatabaseServer {
    private DatabaseServer() {}

    public static void main(String[] args) throws SQLException, IOException {
        Path folder = Path.of(args[0]);
        Path data = Files.createTempDirectory("server");
        try (EmbeddedPostgres server = EmbeddedPostgres.builder()
                .setDataDirectory(data)
                .setServerConfig("shared_buffers", "1GB")
                .setServerConfig("maintenance_work_mem", "512MB")
                .setServerConfig("max_wal_size", "8GB")
                .setServerConfig("wal_level", "minimal")
                .setServerConfig("max_wal_senders", "0")
                .setServerConfig("fsync", "off")
                .start()) {
            try (Connection connection = server.getPostgresDatabase().getConnection();
                    Statement sql = connection.createStatement()) {
                for (DecisionTable table : DecisionTable.all(false)) {
                    load(connection, sql, table, folder);
                }
            }
            System.out.println("server " + processorSeconds(data) + " s");
        }
    }

    private static void load(Connection connection, Statement sql, DecisionTable table, Path folder)
            throws SQLException, IOException {
        String columns = table.columns().stream()
                .map(c -> c.name() + " " + c.type() + (c.isRequired() ? " NOT NULL" : ""))
                .collect(Collectors.joining(", "));
        sql.execute("CREATE UNLOGGED TABLE " + table.name() + " (" + columns + ")");
        try (InputStream rows = Files.newInputStream(folder.resolve(table.name() + ".csv"))) {
            connection
                    .unwrap(PGConnection.class)
                    .getCopyAPI()
                    .copyIn("COPY " + table.name() + " FROM STDIN WITH (FORMAT csv, HEADER true)", rows);
        }
        sql.execute("ALTER TABLE " + table.name() + " ADD PRIMARY KEY (" + String.join(", ", table.key()) + ")");
        for (DecisionTable.Link link : table.links()) {
            sql.execute("ALTER TABLE " + table.name() + " ADD FOREIGN KEY (" + String.join(", ", link.columns())
                    + ") REFERENCES " + link.parent() + " (" + String.join(", ", link.parentColumns()) + ")");
        }
    }

    /** Of the server and all of its processes that have ended; sessions end with their connections. */
    private static double processorSeconds(Path data) throws IOException {
        try {
            Thread.sleep(500);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        String pid = Files.readAllLines(data.resolve("postmaster.pid")).get(0).strip();
        String stat = Files.readString(Path.of("/proc", pid, "stat"));
        String[] fields = stat.substring(stat.lastIndexOf(')') + 2).split(" ");
        long ticks = 0;
        for (int i = 11; i <= 14; i++) {
            ticks += Long.parseLong(fields[i]);
        }
        return ticks / 100.0;
    }
}
