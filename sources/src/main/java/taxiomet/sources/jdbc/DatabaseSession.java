package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import taxiomet.charter.Server;
import taxiomet.charter.place.Database;

/**
 * What reads one database in a run: connections in transactions that only read and see one moment. On PostgreSQL there may be several, which
 * share a snapshot that the first has exported; elsewhere there is one, which is used by turns.
 */
final class DatabaseSession implements AutoCloseable {
    private final Login.Connecting login;
    private final Database database;
    private final Server server;
    private final Connection first;
    private final String snapshot;
    private final Deque<Connection> idle = new ArrayDeque<>();
    private final List<Connection> all = new ArrayList<>();

    private DatabaseSession(Login.Connecting login, Database database, Connection first) throws SQLException {
        this.login = login;
        this.database = database;
        this.first = first;
        this.server = serverOf(first);
        all.add(first);
        begin(first);
        // There it does nothing but hold the snapshot.
        snapshot = server == Server.POSTGRESQL ? text(first, "SELECT pg_export_snapshot()") : "";
    }

    private DatabaseSession(Database database, Connection only) throws SQLException {
        this.login = () -> only;
        this.database = database;
        this.first = only;
        this.server = serverOf(only);
        this.snapshot = "";
        all.add(only);
    }

    /** What one connection sees, whatever transaction it is in; it goes with the session. */
    static DatabaseSession over(Connection only, Database database) throws SQLException {
        return new DatabaseSession(database, only);
    }

    static DatabaseSession open(Login.Connecting login, Database database) {
        Connection first = login.connect();
        try {
            return new DatabaseSession(login, database, first);
        } catch (SQLException e) {
            closeQuietly(first);
            throw Refusals.of(database, "", e);
        }
    }

    static Server serverOf(Connection connection) throws SQLException {
        String product = connection.getMetaData().getDatabaseProductName().toLowerCase(Locale.ROOT);
        if (product.contains("postgresql")) {
            return Server.POSTGRESQL;
        } else if (product.contains("mariadb") || product.contains("mysql")) {
            return Server.MARIADB;
        } else if (product.contains("sqlite")) {
            return Server.SQLITE;
        } else if (product.contains("sql server")) {
            return Server.SQLSERVER;
        }
        return product.contains("oracle") ? Server.ORACLE : Server.STANDARD;
    }

    /** Begins a transaction of one moment that only reads. */
    private void begin(Connection connection) throws SQLException {
        switch (server) {
            case POSTGRESQL -> {
                connection.setAutoCommit(false);
                run(connection, "SET TRANSACTION ISOLATION LEVEL REPEATABLE READ, READ ONLY");
                settle(connection);
            }
            case MARIADB -> {
                run(
                        connection,
                        "SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ",
                        "SET SESSION TRANSACTION READ ONLY",
                        "SET SESSION time_zone = '+00:00'",
                        "START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY");
            }
            default -> {
                connection.setReadOnly(true);
                connection.setAutoCommit(false);
                if (connection
                        .getMetaData()
                        .supportsTransactionIsolationLevel(Connection.TRANSACTION_REPEATABLE_READ)) {
                    connection.setTransactionIsolation(Connection.TRANSACTION_REPEATABLE_READ);
                }
            }
        }
    }

    /** Has PostgreSQL read for one transaction as is expected here. */
    static void settle(Connection connection) throws SQLException {
        run(
                connection,
                // Values as texts that do not depend on the server's settings; tables from their beginning on.
                "SET LOCAL datestyle TO 'ISO'",
                "SET LOCAL timezone TO 'UTC'",
                "SET LOCAL intervalstyle TO 'iso_8601'",
                "SET LOCAL extra_float_digits TO 1",
                "SET LOCAL bytea_output TO 'hex'",
                "SET LOCAL synchronize_seqscans TO off",
                "SET LOCAL max_parallel_workers_per_gather TO 0",
                "SET LOCAL statement_timeout TO 0",
                "SET LOCAL idle_in_transaction_session_timeout TO 0");
    }

    static void run(Connection connection, String... statements) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            for (String each : statements) {
                statement.execute(each);
            }
        }
    }

    static String text(Connection connection, String query) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(query)) {
            return result.next() ? result.getString(1) : "";
        }
    }

    Server server() {
        return server;
    }

    Database database() {
        return database;
    }

    /** Whether several connections can be had that see the same moment. */
    boolean hasSeveral() {
        return !snapshot.isEmpty();
    }

    /** The name under which the moment that is read can be shared; empty where it cannot. */
    String snapshot() {
        return snapshot;
    }

    /** Whether a column holds values of its type alone, and one of a primary key no null. */
    boolean hasTypedColumns() {
        return server != Server.SQLITE;
    }

    /** A connection for one use at a time; where there is one alone, that one, whoever else has it. */
    synchronized Connection take() throws SQLException {
        if (!hasSeveral()) {
            return first;
        }
        Connection found = idle.poll();
        if (found == null) {
            found = login.connect();
            all.add(found);
            begin(found);
            run(found, "SET TRANSACTION SNAPSHOT '" + snapshot.replace("'", "''") + "'");
        }
        return found;
    }

    /** Gives a connection back that is in order. */
    synchronized void giveBack(Connection connection) {
        if (hasSeveral()) {
            idle.add(connection);
        }
    }

    /** A connection that is not in order any more goes. */
    synchronized void drop(Connection connection) {
        if (connection != first) {
            all.remove(connection);
            closeQuietly(connection);
        }
    }

    static void closeQuietly(Connection connection) {
        try {
            connection.close();
        } catch (SQLException e) {
            // It was of no use any more.
            return;
        }
    }

    @Override
    public synchronized void close() {
        all.forEach(DatabaseSession::closeQuietly);
        all.clear();
        idle.clear();
    }
}
