package taxiomet.sources.sqlite;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.place.SqliteRows;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.DynamicValue;
import taxiomet.sources.file.FileParts;
import taxiomet.sources.file.FilledReader;
import taxiomet.sources.file.PlaceIndex;
import taxiomet.sources.file.RowQueue;
import taxiomet.sources.sqlite.SqliteCatalogue.ColumnThere;
import taxiomet.values.ValueCells;

/** A table in an SQLite database. */
public final class SqliteSource implements SplittableSource {
    /** In the place of a {@code rowid}. */
    private static final long NO_BOUND = Long.MIN_VALUE;

    private final SqliteRows rows;
    private final List<String> columns;
    private final List<String> undeclared = new ArrayList<>();
    private final DataFile file;
    private final Connection connection;
    /** By what rows are put in order, as SQL; empty where nothing does. */
    private final String order;

    private final boolean hasRowId;
    /** Where rows stand: in the place of an offset their {@code rowid}. */
    private final PlaceIndex places = new PlaceIndex();

    private boolean isRead;

    private SqliteSource(SqliteRows rows, List<String> columns) throws SQLException {
        this.rows = rows;
        this.columns = List.copyOf(columns);
        List<Path> paths = FileParts.find(rows.folder(), rows.path());
        if (paths.size() > 1) {
            throw new SourceException(
                    rows.path(),
                    paths.size() + " files have such a name, and a table lives in one database",
                    "name one");
        }
        Path path = paths.get(0);
        this.file = new DataFile(path);
        this.connection = SqliteCatalogue.connect(path);
        boolean isOpen = false;
        try {
            List<ColumnThere> found = SqliteCatalogue.columnsOf(connection, rows);
            List<String> there = found.stream().map(ColumnThere::name).toList();
            List<String> key = found.stream()
                    .filter(column -> column.keyPlace() > 0)
                    .sorted(Comparator.comparingInt(ColumnThere::keyPlace))
                    .map(ColumnThere::name)
                    .toList();
            requireColumns(there);
            hasRowId = SqliteCatalogue.hasRowId(connection, rows, there);
            order = hasRowId
                    ? " ORDER BY rowid"
                    : key.isEmpty()
                            ? ""
                            : " ORDER BY "
                                    + key.stream().map(SqliteCatalogue::quoted).collect(Collectors.joining(", "));
            isOpen = true;
        } finally {
            if (!isOpen) {
                connection.close();
            }
        }
    }

    /**
     * Opens a table of a database.
     *
     * @param columns names of the columns wanted
     * @throws SourceException when the database cannot be read, or lacks the table or a column
     */
    public static SqliteSource open(SqliteRows rows, List<String> columns) {
        try {
            return new SqliteSource(rows, columns);
        } catch (SQLException e) {
            throw SqliteCatalogue.unreadable(rows, e);
        }
    }

    private void requireColumns(List<String> there) {
        for (String column : columns) {
            if (!there.contains(column)) {
                throw new SourceException(
                        rows.path(),
                        "table `" + rows.table() + "` has no column `" + column + "`" + ColumnNames.near(column, there),
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
        return rows.path() + ", table " + rows.table();
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
        return 0;
    }

    @Override
    public long bytesRead() {
        return 0;
    }

    @Override
    public long emptyLines() {
        return 0;
    }

    /** Rows from one on, in their order. */
    private final class Cursor implements AutoCloseable {
        private final int width;
        private final PreparedStatement statement;
        private final ResultSet result;
        /** Whether all rows of the table come, so that their numbers are those in the table. */
        private final boolean isWhole;

        private long row;

        /**
         * @param from the least {@code rowid}; {@link #NO_BOUND} for none
         * @param to the {@code rowid} before which it ends; {@link #NO_BOUND} for none
         * @param firstRow the number of the first row
         */
        Cursor(int[] wanted, long from, long to, long firstRow) throws SQLException {
            width = wanted.length;
            String names = Arrays.stream(wanted)
                    .mapToObj(column -> SqliteCatalogue.quoted(columns.get(column)))
                    .collect(Collectors.joining(", "));
            String all = names.isEmpty() ? "NULL" : names;
            List<String> bounds = new ArrayList<>();
            if (from != NO_BOUND) {
                bounds.add("rowid >= " + from);
            }
            if (to != NO_BOUND) {
                bounds.add("rowid < " + to);
            }
            String where = bounds.isEmpty() ? "" : " WHERE " + String.join(" AND ", bounds);
            statement = connection.prepareStatement("SELECT " + all + (hasRowId ? ", rowid" : "") + " FROM "
                    + SqliteCatalogue.quoted(rows.table()) + where + order);
            row = firstRow - 1;
            isWhole = bounds.isEmpty();
            result = statement.executeQuery();
        }

        /** Goes to the next row; false when there is none. */
        boolean next() throws SQLException {
            row++;
            return result.next();
        }

        void notePlace() throws SQLException {
            if (hasRowId && isWhole && !isRead && places.wants(row)) {
                places.add(row, row, result.getLong(Math.max(1, width) + 1));
            }
        }

        void addTo(RowBatch batch) throws SQLException {
            long bytes = 0;
            for (int i = 0; i < width; i++) {
                bytes += DynamicValue.add(result.getObject(i + 1), (ValueCells) batch.column(i));
            }
            batch.endRow(RowRef.of(0, row), 0, bytes);
        }

        @Override
        public void close() throws SQLException {
            result.close();
            statement.close();
        }
    }

    @Override
    public Scan scan(int[] wanted, RefRanges ranges) {
        return new TableScan(wanted.clone(), () -> new Cursor(wanted, NO_BOUND, NO_BOUND, 1));
    }

    /** A pass over the table or a piece of it; the connection serves one thread at a time. */
    private final class TableScan implements SplitScan {
        private final int[] wanted;
        private final Opening opening;
        private Cursor cursor;
        private boolean isAtEnd;
        private long number;

        TableScan(int[] wanted, Opening opening) {
            this.wanted = wanted;
            this.opening = opening;
        }

        @Override
        public BatchReader reader() {
            return new FilledReader(RowBatch.ofValues(wanted.length), this::fill);
        }

        private boolean fill(RowBatch batch) {
            synchronized (connection) {
                if (isAtEnd) {
                    return false;
                }
                try {
                    if (cursor == null) {
                        cursor = opening.open();
                    }
                    while (!batch.isFull() && !isAtEnd) {
                        if (cursor.next()) {
                            cursor.notePlace();
                            cursor.addTo(batch);
                        } else {
                            isAtEnd = true;
                            isRead |= cursor.isWhole;
                            close();
                            file.requireUnchanged();
                        }
                    }
                } catch (SQLException e) {
                    throw SqliteCatalogue.unreadable(rows, e);
                }
                batch.setNumber(number);
                number += batch.isEmpty() ? 0 : 1;
                return !batch.isEmpty();
            }
        }

        @Override
        public long emptyLines() {
            return 0;
        }

        @Override
        public void close() {
            synchronized (connection) {
                try {
                    if (cursor != null) {
                        cursor.close();
                    }
                } catch (SQLException e) {
                    throw SqliteCatalogue.unreadable(rows, e);
                } finally {
                    cursor = null;
                }
            }
        }
    }

    /** The places in splits are {@code rowid}s; a table without them is one piece. */
    @Override
    public List<Split> splits(long bytes) {
        synchronized (connection) {
            try {
                return hasRowId
                        ? new RowIdCuts(connection, rows.table()).everyBytes(bytes)
                        : List.of(new Split(0, 0, Long.MAX_VALUE));
            } catch (SQLException e) {
                throw SqliteCatalogue.unreadable(rows, e);
            }
        }
    }

    @Override
    public SplitScan scan(int[] wanted, Split split) {
        long from = split.from() == 0 ? NO_BOUND : split.from();
        long to = split.to() == Long.MAX_VALUE ? NO_BOUND : split.to();
        return new TableScan(wanted.clone(), () -> new Cursor(wanted, from, to, 1));
    }

    private interface Opening {
        Cursor open() throws SQLException;
    }

    @Override
    public void fetch(RefCursor refs, int[] wanted, RowSink sink) {
        RowQueue queue = new RowQueue(refs);
        RowBatch batch = RowBatch.ofValues(wanted.length);
        synchronized (connection) {
            try {
                while (!queue.isEmpty()) {
                    fetchFrom(places.before(queue.row()), queue, wanted, batch, sink);
                }
                file.requireUnchanged();
            } catch (SQLException e) {
                throw SqliteCatalogue.unreadable(rows, e);
            }
        }
    }

    private void fetchFrom(int place, RowQueue queue, int[] wanted, RowBatch batch, RowSink sink) throws SQLException {
        try (Cursor cursor = place < 0
                ? new Cursor(wanted, NO_BOUND, NO_BOUND, 1)
                : new Cursor(wanted, places.offset(place), NO_BOUND, places.row(place))) {
            batch.clear();
            while (!queue.isEmpty()) {
                int better = places.before(queue.row());
                if (better > place && places.row(better) > cursor.row + 1) {
                    break;
                }
                if (!cursor.next()) {
                    throw new SourceException(
                            rows.path(),
                            "table `" + rows.table() + "` has fewer rows than when it was read first",
                            "check again when nobody writes to it");
                }
                if (cursor.row == queue.row()) {
                    cursor.addTo(batch);
                    queue.take();
                }
                if (batch.isFull()) {
                    sink.accept(batch);
                    batch.clear();
                }
            }
            if (!batch.isEmpty()) {
                sink.accept(batch);
            }
        }
    }

    @Override
    public void close() {
        try {
            connection.close();
        } catch (SQLException e) {
            throw SqliteCatalogue.unreadable(rows, e);
        }
    }
}
