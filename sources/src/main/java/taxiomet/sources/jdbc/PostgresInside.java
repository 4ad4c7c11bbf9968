package taxiomet.sources.jdbc;

import java.sql.Array;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.rows.Sieved;
import taxiomet.rows.SievedRows;
import taxiomet.rows.Sought;
import taxiomet.rows.Suspicion;
import taxiomet.rows.TableSource;
import taxiomet.work.Workers;

/**
 * A table of PostgreSQL: a query for each thing to be looked for, several at once, which give the places of rows in the table's blocks; the
 * rows there are fetched then.
 */
final class PostgresInside extends SqlInside {
    private static final int FETCHED = 10_000;
    /** Has the server end what takes long when nobody waits for it any more, where its system lets it notice. */
    private static final String END_WITH_US =
            "DO $$ BEGIN SET LOCAL client_connection_check_interval TO '2s'; EXCEPTION WHEN OTHERS THEN NULL; END $$";

    private final CopiedRows rows;
    private final DatabaseSession session;

    PostgresInside(JdbcSource source, CopiedRows rows, Table table, Charter charter, Map<String, TableSource> sources) {
        super(source, table, charter, sources);
        this.rows = rows;
        this.session = source.session();
    }

    /** Looks for something, on a connection of its own. */
    private interface Task {
        void run(Connection connection) throws SQLException;
    }

    @Override
    String compared(ColumnInside column, String quoted) {
        return switch (column.kind()) {
            case TEXT -> quoted + " COLLATE \"C\"";
            case PADDED_TEXT -> "CAST(" + quoted + " AS text) COLLATE \"C\"";
            default -> quoted;
        };
    }

    @Override
    public Optional<Sieved> sieve(List<Suspicion> suspicions, List<List<Integer>> links, int threads) {
        Map<Suspicion, RowPlaces> places = new LinkedHashMap<>();
        List<Task> tasks = new ArrayList<>();
        AtomicReference<Counts> counts = new AtomicReference<>();
        List<Sql> conditions = suspicions.stream()
                .map(this::condition)
                .flatMap(Optional::stream)
                .toList();
        RowPlaces ill = new RowPlaces();
        tasks.add(connection -> {
            counts.set(count(connection, links, conditions));
            if (counts.get().suspect() > 0) {
                find(connection, select(any(conditions)), valuesOf(conditions), ill);
            }
        });
        for (Suspicion suspicion : suspicions) {
            RowPlaces found = new RowPlaces();
            if (suspicion instanceof Suspicion.Repeated repeated) {
                places.put(suspicion, found);
                tasks.add(connection -> {
                    if (!isUnique(connection, repeated)) {
                        find(connection, repeated.columns(), severalTimes(repeated.columns()), found);
                    }
                });
            } else if (suspicion instanceof Suspicion.WithoutParent orphan) {
                places.put(suspicion, found);
                tasks.add(connection -> find(connection, orphan.columns(), withoutParent(orphan), found));
            }
        }
        try {
            run(tasks, threads);
            List<RowPlaces> all = new ArrayList<>(places.values());
            all.add(ill);
            RowPlaces union = RowPlaces.union(all);
            if (union.size() > MOST_ROWS) {
                return Optional.empty();
            }
            return Optional.of(new Sieved(
                    keep(rows.open(source().columns(), union), numbers(union)),
                    counts.get().rows(),
                    met(places, union),
                    counts.get().nulls()));
        } catch (TooMany e) {
            return Optional.empty();
        } catch (Exception e) {
            throw source().failed(e);
        }
    }

    private void run(List<Task> tasks, int threads) throws SQLException {
        AtomicInteger next = new AtomicInteger();
        AtomicReference<SQLException> failed = new AtomicReference<>();
        Workers.run(Math.min(threads, tasks.size()), "asking", all -> {
            for (int i = next.getAndIncrement();
                    i < tasks.size() && failed.get() == null && !all.haveFailed();
                    i = next.getAndIncrement()) {
                try {
                    Connection connection = session.take();
                    DatabaseSession.run(connection, END_WITH_US);
                    tasks.get(i).run(connection);
                    session.giveBack(connection);
                } catch (SQLException e) {
                    failed.compareAndSet(null, e);
                }
            }
        });
        if (failed.get() != null) {
            throw failed.get();
        }
    }

    private String select(String condition) {
        return "SELECT own.ctid FROM " + source().from() + " own WHERE " + condition;
    }

    /** A query for the values that no parent has: {@code v0}, {@code v1} and so on. */
    private String withoutParent(Suspicion.WithoutParent orphan) {
        List<String> theirs = parentColumns(orphan);
        String equal = IntStream.range(0, theirs.size())
                .mapToObj(i -> theirs.get(i) + " = " + compared(orphan.columns().get(i), "own."))
                .collect(Collectors.joining(" AND "));
        return "SELECT DISTINCT " + values(orphan.columns()) + " FROM " + source().from() + " own WHERE "
                + noNull(orphan.columns()) + " AND NOT EXISTS (SELECT 1 FROM " + fromParents(orphan) + " WHERE " + equal
                + " AND " + canBeParent(orphan) + ")";
    }

    private static void find(Connection connection, String query, List<Object> values, RowPlaces found)
            throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement(query)) {
            Sql.setAll(statement, 1, values);
            read(statement, found);
        }
    }

    private static void read(PreparedStatement statement, RowPlaces found) throws SQLException {
        statement.setFetchSize(FETCHED);
        try (ResultSet result = statement.executeQuery()) {
            while (result.next()) {
                if (found.size() == MOST_ROWS) {
                    throw new TooMany();
                }
                found.add(result.getString(1));
            }
        }
    }

    /**
     * Finds values, most often none, and then the rows that have them: to carry the place of each row through what the server joins or groups
     * would cost it more.
     *
     * @param query for the values of the columns: {@code v0}, {@code v1} and so on
     */
    private void find(Connection connection, List<Integer> key, String query, RowPlaces found) throws SQLException {
        List<List<String>> values = new ArrayList<>();
        key.forEach(column -> values.add(new ArrayList<>()));
        String texts = IntStream.range(0, key.size())
                .mapToObj(i -> "CAST(v" + i + " AS text)")
                .collect(Collectors.joining(", "));
        try (PreparedStatement statement =
                connection.prepareStatement("SELECT " + texts + " FROM (" + query + ") wanted")) {
            statement.setFetchSize(FETCHED);
            try (ResultSet result = statement.executeQuery()) {
                while (result.next()) {
                    if (values.get(0).size() == MOST_ROWS) {
                        throw new TooMany();
                    }
                    for (int i = 0; i < key.size(); i++) {
                        values.get(i).add(result.getString(i + 1));
                    }
                }
            }
        }
        if (values.get(0).isEmpty()) {
            return;
        }
        List<String> types = key.stream().map(this::typeOf).toList();
        List<String> each = key.stream().map(column -> compared(column, "own.")).toList();
        read(connection, each, types, values.stream().map(List::toArray).toList(), found);
    }

    /** Whether an index of the server keeps values apart already, whatever was declared since. */
    private boolean isUnique(Connection connection, Suspicion.Repeated repeated) throws SQLException {
        Set<String> names = new HashSet<>(columns(repeated.columns()));
        Map<String, Set<String>> indexes = new HashMap<>();
        try (PreparedStatement statement = connection.prepareStatement(
                "SELECT i.indexrelid, a.attname FROM pg_index i JOIN pg_attribute a ON a.attrelid = i.indrelid AND a.attnum = ANY"
                        + " (i.indkey[0:i.indnkeyatts - 1]) WHERE i.indrelid = CAST(? AS regclass) AND i.indisunique AND"
                        + " i.indisvalid AND i.indimmediate AND i.indpred IS NULL AND i.indexprs IS NULL")) {
            statement.setString(1, source().from());
            try (ResultSet result = statement.executeQuery()) {
                while (result.next()) {
                    indexes.computeIfAbsent(result.getString(1), index -> new HashSet<>())
                            .add(result.getString(2));
                }
            }
        }
        return indexes.values().stream().anyMatch(names::containsAll);
    }

    @Override
    public Optional<SievedRows> seek(List<Sought> any) {
        if (!canSeek(any)) {
            return Optional.empty();
        }
        RowPlaces found = new RowPlaces();
        try {
            Connection connection = session.take();
            for (Sought sought : any) {
                seek(connection, sought.columns(), values(sought), found);
            }
            session.giveBack(connection);
            RowPlaces union = RowPlaces.union(List.of(found));
            return Optional.of(keep(rows.open(source().columns(), union), numbers(union)));
        } catch (TooMany e) {
            return Optional.empty();
        } catch (Exception e) {
            throw source().failed(e);
        }
    }

    private void seek(Connection connection, List<Integer> columns, List<List<Object>> values, RowPlaces found)
            throws SQLException {
        if (values.isEmpty()) {
            return;
        }
        List<String> types = columns.stream().map(this::typeSought).toList();
        List<Object[]> arrays = IntStream.range(0, columns.size())
                .mapToObj(place -> values.stream().map(each -> each.get(place)).toArray())
                .toList();
        read(connection, columns.stream().map(this::plain).toList(), types, arrays, found);
    }

    /** The type whose values an index of the column can be asked for. */
    private String typeSought(int column) {
        String type = typeOf(column);
        return type.startsWith("int") ? "int8" : isPadded(column) ? "bpchar" : type;
    }

    /**
     * Reads the places of the rows that have one of some values.
     *
     * @param columns as they are compared
     * @param types of their values
     * @param values for each column, all of one length
     */
    private void read(
            Connection connection, List<String> columns, List<String> types, List<Object[]> values, RowPlaces found)
            throws SQLException {
        int width = columns.size();
        StringBuilder query = new StringBuilder("SELECT own.ctid FROM " + source().from() + " own WHERE ");
        query.append(columns.stream().map(column -> column + " = ANY (?)").collect(Collectors.joining(" AND ")));
        if (width > 1) {
            query.append(" AND (" + String.join(", ", columns) + ") IN (SELECT * FROM unnest" + Sql.marks(width) + ")");
        }
        try (PreparedStatement statement = connection.prepareStatement(query.toString())) {
            for (int i = 0; i < width; i++) {
                Array array = connection.createArrayOf(types.get(i), values.get(i));
                statement.setArray(i + 1, array);
                if (width > 1) {
                    statement.setArray(width + i + 1, array);
                }
            }
            read(statement, found);
        }
    }

    /** How many rows stand before each of some, and one more. */
    private long[] numbers(RowPlaces places) {
        long[] numbers = new long[places.size()];
        if (numbers.length == 0) {
            return numbers;
        }
        return source().asked(connection -> {
            try (PreparedStatement statement = connection.prepareStatement(
                    "SELECT (SELECT count(*) FROM " + source().from() + " own WHERE own.ctid >= part.first"
                            + " AND own.ctid < part.behind) FROM unnest(CAST(? AS tid[]), CAST(? AS tid[])) WITH ORDINALITY AS"
                            + " part (first, behind, place) ORDER BY part.place")) {
                statement.setString(1, places.written(true));
                statement.setString(2, places.written(false));
                try (ResultSet result = statement.executeQuery()) {
                    long before = 0;
                    for (int i = 0; result.next(); i++) {
                        before += result.getLong(1);
                        numbers[i] = before + 1;
                    }
                }
            }
            return numbers;
        });
    }

    private static Map<Suspicion, BitSet> met(Map<Suspicion, RowPlaces> places, RowPlaces all) {
        Map<Suspicion, BitSet> met = new HashMap<>();
        places.forEach((suspicion, own) -> {
            BitSet numbers = new BitSet();
            for (int i = 0; i < own.size(); i++) {
                numbers.set(all.numberOf(own, i));
            }
            met.put(suspicion, numbers);
        });
        return met;
    }
}
