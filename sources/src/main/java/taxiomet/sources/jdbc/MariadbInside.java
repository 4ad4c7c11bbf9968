package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.rows.Sieved;
import taxiomet.rows.SievedRows;
import taxiomet.rows.Sought;
import taxiomet.rows.Suspicion;
import taxiomet.rows.TableSource;

/**
 * A table of MariaDB with a primary key: a query for each thing to be looked for, which gives values, then one for the rows that have them, in the
 * order of that key; these are fetched then.
 */
final class MariadbInside extends SqlInside {
    private static final int FETCHED = 10_000;
    /** More values at fault than this are not asked for in one query. */
    private static final int MOST_VALUES = 10_000;

    private final PagedRows rows;
    private final DatabaseSession session;

    MariadbInside(JdbcSource source, PagedRows rows, Table table, Charter charter, Map<String, TableSource> sources) {
        super(source, table, charter, sources);
        this.rows = rows;
        this.session = source.session();
    }

    /** A suspicion and the condition that says so. */
    private record Asked(Suspicion suspicion, Sql condition) {}

    @Override
    String compared(ColumnInside column, String quoted) {
        return switch (column.kind()) {
            case TEXT, PADDED_TEXT -> "CAST(CONVERT(" + quoted + " USING utf8mb4) AS BINARY)";
            default -> quoted;
        };
    }

    @Override
    public Optional<Sieved> sieve(List<Suspicion> suspicions, List<List<Integer>> links, int threads) {
        List<Asked> asked = new ArrayList<>();
        Map<Suspicion, BitSet> met = new LinkedHashMap<>();
        suspicions.forEach(suspicion -> met.put(suspicion, new BitSet()));
        try {
            Connection connection = session.take();
            for (Suspicion suspicion : suspicions) {
                asked(connection, suspicion).ifPresent(sql -> asked.add(new Asked(suspicion, sql)));
            }
            Counts counts = count(connection, links, List.of());
            List<Object[]> keys = asked.isEmpty() ? List.of() : find(connection, asked, met);
            if (keys.size() > MOST_ROWS) {
                return Optional.empty();
            }
            return Optional.of(new Sieved(kept(connection, keys), counts.rows(), met, counts.nulls()));
        } catch (TooMany e) {
            return Optional.empty();
        } catch (Exception e) {
            throw source().failed(e);
        }
    }

    private Optional<Sql> asked(Connection connection, Suspicion suspicion) throws SQLException {
        if (suspicion instanceof Suspicion.Repeated repeated) {
            // The server holds its own key.
            return new HashSet<>(columns(repeated.columns())).containsAll(rows.key())
                    ? Optional.empty()
                    : among(connection, repeated.columns(), severalTimes(repeated.columns()));
        } else if (suspicion instanceof Suspicion.WithoutParent orphan) {
            return among(connection, orphan.columns(), withoutParent(orphan));
        }
        return condition(suspicion);
    }

    /** Has the server sort what it groups: an index of its own for each of many groups takes it twenty times as long. */
    @Override
    String selectGroups() {
        return "SELECT SQL_BIG_RESULT ";
    }

    /** A query for the values that no parent has: those of both ends are sorted together, since NOT IN looks for texts one by one. */
    private String withoutParent(Suspicion.WithoutParent orphan) {
        String named = IntStream.range(0, orphan.columns().size())
                .mapToObj(i -> "v" + i)
                .collect(Collectors.joining(", "));
        return selectGroups() + named + " FROM (SELECT " + values(orphan.columns()) + ", 0 AS parents FROM "
                + source().from() + " own WHERE " + noNull(orphan.columns()) + " UNION ALL SELECT "
                + String.join(", ", parentColumns(orphan)) + ", 1 FROM " + fromParents(orphan) + " WHERE "
                + canBeParent(orphan) + ") ends GROUP BY " + named + " HAVING max(parents) = 0";
    }

    /** The condition that a row has one of the values that a query finds; empty where it finds none. */
    private Optional<Sql> among(Connection connection, List<Integer> columns, String query) throws SQLException {
        List<Object> values = new ArrayList<>();
        int found = 0;
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(query)) {
            while (result.next()) {
                if (++found > MOST_VALUES) {
                    throw new TooMany();
                }
                for (int i = 0; i < columns.size(); i++) {
                    values.add(value(result, columns.get(i), i + 1));
                }
            }
        }
        if (found == 0) {
            return Optional.empty();
        }
        return Optional.of(new Sql(
                "(" + noNull(columns) + " AND (" + ownColumns(columns) + ") IN " + Sql.marks(columns.size(), found)
                        + ")",
                values));
    }

    private Object value(ResultSet result, int column, int place) throws SQLException {
        if (isNumber(column)) {
            return result.getBigDecimal(place);
        }
        return isText(column) ? result.getBytes(place) : result.getString(place);
    }

    /** The keys of all rows that meet a condition, one more than there may be when there are too many. */
    private List<Object[]> find(Connection connection, List<Asked> asked, Map<Suspicion, BitSet> met)
            throws SQLException {
        List<Sql> conditions = asked.stream().map(Asked::condition).toList();
        List<Object> values = valuesOf(conditions);
        String flags = conditions.stream().map(sql -> "(" + sql.text() + ")").collect(Collectors.joining(", "));
        String key = key();
        List<Object[]> keys = new ArrayList<>();
        try (PreparedStatement statement = connection.prepareStatement("SELECT " + key + ", " + flags + " FROM "
                + source().from() + " own WHERE " + any(conditions) + " ORDER BY " + key)) {
            Sql.setAll(statement, 1, values);
            Sql.setAll(statement, 1 + values.size(), values);
            statement.setFetchSize(FETCHED);
            try (ResultSet result = statement.executeQuery()) {
                while (result.next() && keys.size() <= MOST_ROWS) {
                    Object[] own = keyOf(result);
                    for (int i = 0; i < asked.size(); i++) {
                        if (result.getBoolean(own.length + i + 1)) {
                            met.get(asked.get(i).suspicion()).set(keys.size());
                        }
                    }
                    keys.add(own);
                }
            }
        }
        return keys;
    }

    @Override
    public Optional<SievedRows> seek(List<Sought> any) {
        if (!canSeek(any)) {
            return Optional.empty();
        }
        List<String> conditions = new ArrayList<>();
        List<Object> all = new ArrayList<>();
        for (Sought sought : any) {
            List<List<Object>> values = values(sought);
            if (!values.isEmpty()) {
                String columns = sought.columns().stream().map(this::plain).collect(Collectors.joining(", "));
                conditions.add(
                        "(" + columns + ") IN " + Sql.marks(sought.columns().size(), values.size()));
                values.forEach(all::addAll);
            }
        }
        if (conditions.isEmpty()) {
            return Optional.of(new SievedRows(source(), new long[0]));
        }
        try {
            Connection connection = session.take();
            List<Object[]> keys = new ArrayList<>();
            try (PreparedStatement statement = connection.prepareStatement("SELECT " + key() + " FROM "
                    + source().from() + " own WHERE " + String.join(" OR ", conditions) + " ORDER BY " + key())) {
                Sql.setAll(statement, 1, all);
                try (ResultSet result = statement.executeQuery()) {
                    while (result.next() && keys.size() <= MOST_ROWS) {
                        keys.add(keyOf(result));
                    }
                }
            }
            if (keys.size() > MOST_ROWS) {
                return Optional.empty();
            }
            return Optional.of(kept(connection, keys));
        } catch (Exception e) {
            throw source().failed(e);
        }
    }

    /** The rows of some keys. */
    private SievedRows kept(Connection connection, List<Object[]> keys) throws Exception {
        return keys.isEmpty()
                ? new SievedRows(source(), new long[0])
                : keep(rows.open(source().columns(), keys), rows.numbers(connection, keys));
    }

    /** The server's own key, in its order. */
    private String key() {
        SqlNames names = SqlNames.of(session.server());
        return rows.key().stream().map(column -> "own." + names.quoted(column)).collect(Collectors.joining(", "));
    }

    private Object[] keyOf(ResultSet result) throws SQLException {
        Object[] own = new Object[rows.key().size()];
        for (int i = 0; i < own.length; i++) {
            own[i] = result.getObject(i + 1);
        }
        return own;
    }
}
