package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Savepoint;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Server;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.RowQueue;

/** A table, a view or a query in a database, all as it was at one moment. */
public final class JdbcSource implements TableSource {
    private final DatabaseRows rows;
    private final List<String> columns;
    private final DatabaseSession session;
    private final List<String> undeclared = new ArrayList<>();
    private final RelationRows relation;
    private final long bytes;
    /** From which rows on it can be read without those before: their numbers, and the places. */
    private final TreeMap<Long, Object> places = new TreeMap<>();

    private boolean isRead;
    private volatile long bytesRead;

    private JdbcSource(DatabaseRows rows, List<String> columns, DatabaseSession session) throws SQLException {
        this.rows = rows;
        this.columns = List.copyOf(columns);
        this.session = session;
        SqlNames names = SqlNames.of(session.server());
        String from = rows.isQuery()
                ? "(" + rows.relation().strip().replaceAll(";\\s*$", "") + ") asked"
                : String.join(".", rows.parts().stream().map(names::quoted).toList());
        Connection connection = session.take();
        try {
            requireColumns(columnsThere(connection, from));
            if (session.server() == Server.POSTGRESQL) {
                relation = new CopiedRows(session, rows, from, rows.order());
            } else {
                List<String> key = rows.isQuery() ? List.of() : Catalogues.keyOf(connection, rows);
                relation = new PagedRows(
                        session, from, key, rows.order(), Catalogues.bytesOf(connection, session.server(), rows));
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
     * @throws SourceException when the database cannot be read, or lacks the relation or a column
     */
    public static JdbcSource open(DatabaseRows rows, List<String> columns, DatabaseSessions sessions) {
        DatabaseSession session = sessions.of(rows);
        try {
            return new JdbcSource(rows, columns, session);
        } catch (SQLException e) {
            throw Refusals.of(rows.database(), called(rows), e);
        }
    }

    private static String called(DatabaseRows rows) {
        return rows.isQuery() ? "the query" : rows.relation();
    }

    private SourceException refused(SQLException e) {
        return Refusals.of(rows.database(), called(rows), e);
    }

    private List<String> columnsThere(Connection connection, String from) throws SQLException {
        List<String> there = new ArrayList<>();
        synchronized (connection) {
            // A statement that fails would end the transaction, and with it the moment that is read.
            Savepoint before = session.server() == Server.POSTGRESQL ? connection.setSavepoint() : null;
            try (Statement statement = connection.createStatement();
                    ResultSet none = statement.executeQuery("SELECT * FROM " + from + " WHERE 1 = 0")) {
                ResultSetMetaData metadata = none.getMetaData();
                for (int i = 1; i <= metadata.getColumnCount(); i++) {
                    there.add(metadata.getColumnLabel(i));
                }
            } catch (SQLException e) {
                if (before != null) {
                    connection.rollback(before);
                }
                throw rows.isQuery() ? e : missing(e);
            }
        }
        return there;
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
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return rows.path();
    }

    @Override
    public int partCount() {
        return 1;
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
    public long bytesRead() {
        return Math.min(bytes, bytesRead);
    }

    @Override
    public long emptyLines() {
        return 0;
    }

    private List<String> names(int[] wanted) {
        return Arrays.stream(wanted).mapToObj(columns::get).toList();
    }

    private RowBatch batchOf(int width) {
        return session.server() == Server.POSTGRESQL ? new RowBatch(width) : RowBatch.ofValues(width);
    }

    @Override
    public Scan scan(int[] wanted, RefRanges ranges) {
        return new RelationScan(wanted.clone());
    }

    /** A pass over all rows, which come from one cursor whichever thread asks for them. */
    private final class RelationScan implements Scan {
        private final int[] wanted;
        private RelationRows.Cursor cursor;
        private boolean isAtEnd;
        private long number;
        private long row;

        RelationScan(int[] wanted) {
            this.wanted = wanted;
            bytesRead = 0;
        }

        @Override
        public BatchReader reader() {
            RowBatch batch = batchOf(wanted.length);
            return new BatchReader() {
                @Override
                public RowBatch next() {
                    batch.clear();
                    return fill(batch) ? batch : null;
                }

                @Override
                public void close() {
                    // The scan holds what is open.
                }
            };
        }

        private synchronized boolean fill(RowBatch batch) {
            if (isAtEnd) {
                return false;
            }
            try {
                if (cursor == null) {
                    cursor = relation.open(names(wanted), null);
                }
                while (!batch.isFull() && !isAtEnd) {
                    if (cursor.next()) {
                        row++;
                        if (!isRead && cursor.place() != null) {
                            places.put(row, cursor.place());
                        }
                        long size = cursor.addTo(batch);
                        batch.endRow(RowRef.of(0, row), 0, size);
                        bytesRead += size;
                    } else {
                        isAtEnd = true;
                        isRead = true;
                        close();
                    }
                }
            } catch (SQLException e) {
                throw refused(e);
            }
            batch.setNumber(number);
            number += batch.isEmpty() ? 0 : 1;
            return !batch.isEmpty();
        }

        @Override
        public synchronized void close() {
            if (cursor != null) {
                cursor.close();
                cursor = null;
            }
        }
    }

    @Override
    public void fetch(RefCursor refs, int[] wanted, RowSink sink) {
        RowQueue queue = new RowQueue(refs);
        RowBatch batch = batchOf(wanted.length);
        try {
            while (!queue.isEmpty()) {
                fetchFrom(queue, wanted, batch, sink);
            }
        } catch (SQLException e) {
            throw refused(e);
        }
    }

    /** Reads on from the best place before the next row that is asked for, as long as no other place is better. */
    private void fetchFrom(RowQueue queue, int[] wanted, RowBatch batch, RowSink sink) throws SQLException {
        var start = places.floorEntry(queue.row());
        long row = start == null ? 0 : start.getKey() - 1;
        batch.clear();
        try (RelationRows.Cursor cursor = relation.open(names(wanted), start == null ? null : start.getValue())) {
            while (!queue.isEmpty()) {
                Long better = places.floorKey(queue.row());
                if (better != null && better > row + 1) {
                    break;
                }
                if (!cursor.next()) {
                    throw new SourceException(
                            rows.database().shown(),
                            called(rows) + " has fewer rows than when it was read first",
                            "check again");
                }
                row++;
                if (row == queue.row()) {
                    batch.endRow(RowRef.of(0, row), 0, cursor.addTo(batch));
                    queue.take();
                }
                if (batch.isFull()) {
                    sink.accept(batch);
                    batch.clear();
                }
            }
        }
        if (!batch.isEmpty()) {
            sink.accept(batch);
        }
    }

    @Override
    public void close() {
        // The session is the run's.
    }
}
