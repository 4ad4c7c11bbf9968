package taxiomet.sources.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.charter.Column;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.rehearse.proof.Proving;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;

/**
 * One transaction in which changes are carried out, and which nothing here ever commits: it is rolled back, and where this program is killed the
 * server does so when the connection is lost.
 */
public final class ProvingDatabase implements Proving {
    private static final int SECONDS_FOR_A_LOCK = 10;
    private static final int SQLITE_BUSY = 5;
    private static final int SQLITE_LOCKED = 6;
    private static final int SQLITE_CONSTRAINT = 19;
    private static final int SQLITE_MISMATCH = 20;

    private final Connection connection;
    private final Database database;
    private final Server server;
    private final Plan plan;
    private final String snapshot;
    private List<String> triggers = List.of();
    private long brokenBefore;
    private Savepoint start;
    private List<String> statements = List.of();
    private int done;
    private boolean isRefused;

    /**
     * What is to be done.
     *
     * @param settings statements by which the server reads them as they are meant
     * @param tables that are compared afterwards
     * @param moment that is to be current; where the server knows none but its own, {@link #moment} says which
     * @param isAllOrNothing whether a refused change takes all others back
     * @param areDeferred whether links that can wait for the end do
     */
    public record Plan(
            List<String> settings, List<Table> tables, Instant moment, boolean isAllOrNothing, boolean areDeferred) {
        public Plan {
            settings = List.copyOf(settings);
            tables = List.copyOf(tables);
        }
    }

    private ProvingDatabase(Connection connection, Database database, String snapshot, Plan plan) throws SQLException {
        this.connection = connection;
        this.database = database;
        this.snapshot = snapshot;
        this.plan = plan;
        this.server = DatabaseSession.serverOf(connection);
    }

    static ProvingDatabase connected(Login.Connecting login, Database database, String snapshot, Plan plan) {
        Connection connection = login.connect();
        try {
            return new ProvingDatabase(connection, database, snapshot, plan);
        } catch (SQLException e) {
            DatabaseSession.closeQuietly(connection);
            throw Refusals.of(database, "", e);
        }
    }

    /**
     * Begins the transaction.
     *
     * @return what is now in it
     * @throws SourceException when it could not take everything back
     */
    public Instant begin() {
        try {
            requireWayBack();
            for (String setting : plan.settings()) {
                DatabaseSession.run(connection, setting);
            }
            Instant moment = beginAt();
            triggers = triggersOf();
            brokenBefore = broken();
            start = connection.setSavepoint();
            return moment;
        } catch (SQLException e) {
            throw Refusals.of(database, "", e);
        }
    }

    /** Says what the changes are, one statement for each. */
    public void propose(List<String> changes) {
        statements = List.copyOf(changes);
    }

    /** Whose behaviour the server shows. */
    public Server behaviour() {
        return server;
    }

    /** Only where all tables can be rolled back. */
    private void requireWayBack() throws SQLException {
        if (!server.isWritten()) {
            throw new SourceException(
                    database.shown(),
                    "nothing is proved in a database of this kind",
                    "it is done in PostgreSQL, MariaDB and SQLite");
        } else if (server == Server.MARIADB) {
            List<String> engines = texts("SELECT concat(table_name, ' (', engine, ')') FROM information_schema.tables"
                    + " WHERE " + isOneOf("table_schema", "table_name") + " AND engine <> 'InnoDB'");
            if (!engines.isEmpty()) {
                throw new SourceException(
                        database.shown(),
                        "changes of " + String.join(", ", engines)
                                + " could not be taken back: its engine knows no transactions",
                        "prove it on a copy whose tables are InnoDB's");
            }
        }
    }

    private Instant beginAt() throws SQLException {
        connection.setAutoCommit(false);
        switch (server) {
            case POSTGRESQL -> {
                DatabaseSession.run(connection, "SET TRANSACTION ISOLATION LEVEL REPEATABLE READ");
                if (!snapshot.isEmpty()) {
                    DatabaseSession.run(connection, "SET TRANSACTION SNAPSHOT '" + snapshot.replace("'", "''") + "'");
                }
                DatabaseSession.settle(connection);
                DatabaseSession.run(connection, "SET LOCAL lock_timeout TO '" + SECONDS_FOR_A_LOCK + "s'");
                if (plan.areDeferred()) {
                    DatabaseSession.run(connection, "SET CONSTRAINTS ALL DEFERRED");
                }
                String now = DatabaseSession.text(
                        connection, "SELECT to_char(now(), 'YYYY-MM-DD\"T\"HH24:MI:SS.US') || 'Z'");
                return OffsetDateTime.parse(now).toInstant();
            }
            case MARIADB -> {
                DatabaseSession.run(
                        connection,
                        "SET SESSION time_zone = '+00:00'",
                        "SET SESSION innodb_lock_wait_timeout = " + SECONDS_FOR_A_LOCK,
                        "SET timestamp = " + secondsOf(plan.moment()),
                        "START TRANSACTION");
                return plan.moment();
            }
            default -> {
                // Changed pages wait in memory: on disk they would need a lock that readers hold up.
                DatabaseSession.run(connection, "PRAGMA cache_spill = OFF");
                return plan.moment();
            }
        }
    }

    private static String secondsOf(Instant moment) {
        long micros = ChronoUnit.MICROS.between(Instant.EPOCH, moment);
        return BigDecimal.valueOf(micros, 6).toPlainString();
    }

    private List<DatabaseRows> relations() {
        return plan.tables().stream().map(table -> (DatabaseRows) table.rows()).toList();
    }

    /** A condition on the catalogue: one of the tables, with its schema where it is said. */
    private String isOneOf(String schema, String name) {
        return relations().stream()
                .map(rows -> {
                    List<String> parts = rows.parts();
                    String table = name + " = " + quoted(parts.get(parts.size() - 1));
                    String own = server == Server.MARIADB ? "database()" : "current_schema()";
                    return "(" + schema + " = " + (parts.size() > 1 ? quoted(parts.get(parts.size() - 2)) : own)
                            + " AND " + table + ")";
                })
                .collect(Collectors.joining(" OR ", "(", ")"));
    }

    private String quoted(String text) {
        String escaped = server == Server.MARIADB ? text.replace("\\", "\\\\") : text;
        return "'" + escaped.replace("'", "''") + "'";
    }

    private List<String> triggersOf() throws SQLException {
        return texts(
                switch (server) {
                    case POSTGRESQL ->
                        "SELECT tgname || ' on ' || relname FROM pg_trigger t JOIN pg_class c ON c.oid = tgrelid"
                                + " JOIN pg_namespace n ON n.oid = relnamespace WHERE NOT tgisinternal AND tgenabled <> 'D' AND "
                                + isOneOf("nspname", "relname") + " ORDER BY 1";
                    case MARIADB ->
                        "SELECT concat(trigger_name, ' on ', event_object_table) FROM information_schema.triggers WHERE "
                                + isOneOf("event_object_schema", "event_object_table") + " ORDER BY 1";
                    default ->
                        "SELECT name || ' on ' || tbl_name FROM sqlite_master WHERE type = 'trigger' AND tbl_name IN ("
                                + relations().stream()
                                        .map(rows -> quoted(
                                                rows.parts().get(rows.parts().size() - 1)))
                                        .collect(Collectors.joining(", "))
                                + ") ORDER BY 1";
                });
    }

    private List<String> texts(String query) throws SQLException {
        List<String> texts = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(query)) {
            while (result.next()) {
                texts.add(result.getString(1));
            }
        }
        return texts;
    }

    @Override
    public String server() {
        return database.shown();
    }

    @Override
    public List<String> triggers() {
        return triggers;
    }

    @Override
    public Optional<String> carryOut() {
        String sql = statements.get(done++);
        Optional<String> refused = attempt(() -> DatabaseSession.run(connection, sql));
        isRefused |= refused.isPresent();
        return refused;
    }

    private interface Attempt {
        void run() throws SQLException;
    }

    /** Does something that a rule may refuse; then nothing of it is left. */
    private Optional<String> attempt(Attempt what) {
        try {
            Savepoint before = connection.setSavepoint();
            try {
                what.run();
                connection.releaseSavepoint(before);
                return Optional.empty();
            } catch (SQLException e) {
                requireRule(e);
                connection.rollback(before);
                return Optional.of(said(e));
            }
        } catch (SQLException e) {
            throw Refusals.of(database, "the proof", e);
        }
    }

    /** A lock that is not to be had, a lost connection or a lack of rights is no answer to a change. */
    private void requireRule(SQLException e) throws SQLException {
        String state = String.valueOf(e.getSQLState());
        boolean isOfData = state.startsWith("22")
                || state.startsWith("23")
                || state.startsWith("27")
                || state.startsWith("44")
                || state.startsWith("45")
                || state.startsWith("P0")
                || state.equals("HY000")
                || state.startsWith("01")
                || state.equals("428C9");
        boolean isBusy =
                server == Server.SQLITE && List.of(SQLITE_BUSY, SQLITE_LOCKED).contains(e.getErrorCode() & 0xFF);
        boolean isLock = isBusy
                || state.equals("55P03")
                || state.startsWith("40")
                || e.getErrorCode() == 1_205
                || e.getErrorCode() == 1_213;
        if (isLock) {
            throw new SourceException(
                    database.shown(),
                    "rows that the proposal touches are held or were changed by somebody else (" + said(e) + ")",
                    "prove it again when they are free; nothing was changed");
        }
        if (state.equals("42501") || (state.equals("42000") && words(e).contains("denied"))) {
            throw new SourceException(
                    database.shown(),
                    "the user may not do what the proposal asks for (" + said(e) + ")",
                    "prove it as a user who may; nothing was changed");
        }
        boolean isOfSqlite = List.of(SQLITE_CONSTRAINT, SQLITE_MISMATCH).contains(e.getErrorCode() & 0xFF);
        if (server == Server.SQLITE ? !isOfSqlite : !isOfData) {
            throw e;
        }
    }

    /** What the server says, without the values of rows where some are personal. */
    private String said(SQLException e) {
        return ServerWords.told(
                e.getMessage(),
                e.getSQLState(),
                plan.tables().stream()
                        .flatMap(table -> table.columns().stream())
                        .anyMatch(Column::isPersonal));
    }

    private static String words(SQLException e) {
        return ServerWords.told(e.getMessage(), e.getSQLState(), false);
    }

    @Override
    public Optional<String> end() {
        try {
            Optional<String> refused = Optional.empty();
            if (server == Server.POSTGRESQL) {
                refused = attempt(() -> DatabaseSession.run(connection, "SET CONSTRAINTS ALL IMMEDIATE"));
            } else if (server == Server.SQLITE && broken() > brokenBefore) {
                refused = Optional.of("FOREIGN KEY constraint failed");
            }
            if (refused.isPresent() || (isRefused && plan.isAllOrNothing())) {
                connection.rollback(start);
            }
            return refused;
        } catch (SQLException e) {
            throw Refusals.of(database, "the proof", e);
        }
    }

    /** How many rows of SQLite have no parent: it says so at the end of a transaction alone, which never comes. */
    private long broken() throws SQLException {
        return server == Server.SQLITE
                ? Long.parseLong(DatabaseSession.text(connection, "SELECT count(*) FROM pragma_foreign_key_check"))
                : 0;
    }

    @Override
    public TableSource rows(Table table) {
        try {
            List<String> columns = table.columns().stream().map(Column::name).toList();
            return JdbcSource.open(
                    (DatabaseRows) table.rows(),
                    columns,
                    DatabaseSession.over(connection, database),
                    table.columns().stream().anyMatch(Column::isPersonal));
        } catch (SQLException e) {
            throw Refusals.of(database, "the proof", e);
        }
    }

    @Override
    public void close() {
        try {
            connection.rollback();
        } catch (SQLException e) {
            // The connection is lost: the server has rolled back.
            return;
        } finally {
            DatabaseSession.closeQuietly(connection);
        }
    }
}
