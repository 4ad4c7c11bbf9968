package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.Inside;
import taxiomet.rows.RowBatch;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.CursorSource;

/** A table, a view or a query in a database, all as it was at one moment. */
public final class JdbcSource extends CursorSource {
    private static final String NO_FUNCTION = "42883";

    private final DatabaseRows rows;
    private final boolean isPersonal;
    private final List<String> columns;
    private final DatabaseSession session;
    private final List<String> undeclared = new ArrayList<>();
    private final RelationColumns there;
    private final RelationRows relation;
    private final String from;
    private final long bytes;

    private JdbcSource(DatabaseRows rows, List<String> columns, DatabaseSession session, boolean isPersonal)
            throws SQLException {
        this.isPersonal = isPersonal;
        this.rows = rows;
        this.columns = List.copyOf(columns);
        this.session = session;
        SqlNames names = SqlNames.of(session.server());
        from = rows.isQuery()
                // A line of its own: nothing that ends a query takes the bracket with it.
                ? "(" + asked(rows) + "\n) asked"
                : String.join(".", rows.parts().stream().map(names::quoted).toList());
        Connection connection = session.take();
        try {
            there = columnsThere(connection, from);
            requireColumns(there.names());
            if (session.server() == Server.POSTGRESQL) {
                relation = new CopiedRows(session, rows, from, rows.order());
            } else {
                List<String> key =
                        rows.isQuery() || !session.hasTypedColumns() ? List.of() : Catalogues.keyOf(connection, rows);
                relation = new PagedRows(
                        session,
                        from,
                        key,
                        rows.order(),
                        there.moments(),
                        Catalogues.bytesOf(connection, session.server(), rows));
            }
        } finally {
            session.giveBack(connection);
        }
        bytes = relation.bytes();
    }

    /**
     * Opens the rows of a relation.
     *
     * @param columns names of the columns wanted
     * @param isPersonal whether some of its values may not be told
     * @throws SourceException when the database cannot be read, or lacks the relation or a column
     */
    public static JdbcSource open(
            DatabaseRows rows, List<String> columns, DatabaseSessions sessions, boolean isPersonal) {
        return open(rows, columns, sessions.of(rows), isPersonal);
    }

    static JdbcSource open(DatabaseRows rows, List<String> columns, DatabaseSession session, boolean isPersonal) {
        try {
            return new JdbcSource(rows, columns, session, isPersonal);
        } catch (SQLException e) {
            throw Refusals.of(rows.database(), called(rows), e, isPersonal);
        }
    }

    private static String asked(DatabaseRows rows) {
        return rows.relation().strip().replaceAll(";\\s*$", "");
    }

    /**
     * Has PostgreSQL itself say that a query is one statement, and one that only reads, before it becomes a piece of others: as a value, it is
     * taken for a cursor, which takes nothing else (PostgreSQL, "Mapping Tables to XML"). Elsewhere the connection takes one statement alone. A
     * server that speaks its language and lacks the function reads what our own look at the query has let through.
     */
    private static void requireOneReading(Connection connection, String query, Savepoint before) throws SQLException {
        try (PreparedStatement statement =
                connection.prepareStatement("SELECT query_to_xmlschema(?, true, true, '')")) {
            statement.setString(1, query);
            statement.executeQuery().close();
        } catch (SQLException e) {
            if (!NO_FUNCTION.equals(e.getSQLState())) {
                throw e;
            }
            connection.rollback(before);
        }
    }

    private static String called(DatabaseRows rows) {
        return rows.isQuery() ? "the query" : rows.relation();
    }

    @Override
    protected SourceException refused(Exception e) {
        return Refusals.of(
                rows.database(),
                called(rows),
                e instanceof SQLException known ? known : new SQLException(e),
                isPersonal);
    }

    private RelationColumns columnsThere(Connection connection, String from) throws SQLException {
        synchronized (connection) {
            // A statement that fails would end the transaction, and with it the moment that is read.
            Savepoint before = session.server() == Server.POSTGRESQL ? connection.setSavepoint() : null;
            try {
                if (rows.isQuery() && session.server() == Server.POSTGRESQL) {
                    requireOneReading(connection, asked(rows), before);
                }
                return new RelationColumns(
                        connection, session.server(), from, rows.isQuery() ? List.of() : rows.parts());
            } catch (SQLException e) {
                if (before != null) {
                    connection.rollback(before);
                }
                throw rows.isQuery() ? e : missing(e);
            }
        }
    }

    @Override
    public Optional<ColumnFacts> facts(int column) {
        return there.facts(columns.get(column));
    }

    /** Says which table may have been meant, where there is none of the name. */
    private SQLException missing(SQLException e) {
        String state = String.valueOf(e.getSQLState());
        if (!state.equals("42P01") && !state.equals("42S02")) {
            return e;
        }
        List<String> all = Catalogues.tablesOf(session);
        throw new SourceException(
                rows.database().shown(),
                "there is no table or view `" + rows.relation() + "` in it"
                        + NearestWord.of(rows.relation(), all)
                                .map(near -> "; did you mean `" + near + "`?")
                                .orElse(""),
                all.isEmpty() ? "it has no tables that may be read" : "it has " + ColumnNames.listed(all));
    }

    private void requireColumns(List<String> there) {
        for (String column : columns) {
            if (!there.contains(column)) {
                throw new SourceException(
                        rows.database().shown(),
                        called(rows) + " has no column `" + column + "`" + ColumnNames.near(column, there),
                        "it has " + ColumnNames.listed(there));
            }
        }
        there.stream().filter(name -> !columns.contains(name)).forEach(undeclared::add);
    }

    @Override
    public Optional<Inside> inside(Table table, Charter charter, Map<String, TableSource> sources) {
        if (relation instanceof CopiedRows copied && copied.hasBlocks()) {
            return Optional.of(new PostgresInside(this, copied, table, charter, sources));
        }
        if (session.server() == Server.MARIADB
                && relation instanceof PagedRows paged
                && !paged.key().isEmpty()) {
            return Optional.of(new MariadbInside(this, paged, table, charter, sources));
        }
        return Optional.empty();
    }

    @Override
    public Optional<Set<Long>> numbersIn(int column, Set<Long> sought) {
        if (sought.isEmpty()) {
            return Optional.of(Set.of());
        }
        String name = SqlNames.of(session.server()).quoted(columns.get(column));
        String numbers = sought.stream().map(String::valueOf).collect(Collectors.joining(", "));
        return Optional.of(asked(connection -> {
            Set<Long> found = new HashSet<>();
            try (Statement statement = connection.createStatement();
                    ResultSet result = statement.executeQuery(
                            "SELECT " + name + " FROM " + from + " WHERE " + name + " IN (" + numbers + ")")) {
                while (result.next()) {
                    found.add(result.getLong(1));
                }
            }
            return found;
        }));
    }

    /** What a question about the relation asks of a connection. */
    @FunctionalInterface
    interface Question<T> {
        T ask(Connection connection) throws Exception;
    }

    /**
     * Asks on a connection of its own, which goes when it fails.
     *
     * @throws SourceException when the server cannot be asked
     */
    <T> T asked(Question<T> question) {
        try {
            Connection connection = session.take();
            boolean isInOrder = false;
            try {
                T answer = question.ask(connection);
                isInOrder = true;
                return answer;
            } finally {
                if (isInOrder) {
                    session.giveBack(connection);
                } else {
                    session.drop(connection);
                }
            }
        } catch (Exception e) {
            throw said(e);
        }
    }

    /** What is said when a question about it fails. */
    SourceException failed(Exception e) {
        return said(e);
    }

    DatabaseSession session() {
        return session;
    }

    RelationColumns there() {
        return there;
    }

    boolean isQuery() {
        return rows.isQuery();
    }

    /** The relation as a query names it. */
    String from() {
        return from;
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return rows.path();
    }

    @Override
    public Undeclared undeclared() {
        return Undeclared.columns(undeclared);
    }

    @Override
    public long bytes() {
        return bytes;
    }

    @Override
    protected Cursor open(int[] wanted, Object place) throws SQLException {
        return relation.open(names(columns, wanted), place);
    }

    @Override
    protected RowBatch batchOf(int width) {
        return session.server() == Server.POSTGRESQL ? new RowBatch(width) : RowBatch.ofValues(width);
    }

    @Override
    public void close() {
        // The session is the run's.
    }
}
