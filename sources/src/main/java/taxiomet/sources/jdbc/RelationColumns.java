package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Server;
import taxiomet.rows.ColumnFacts;

/** The columns of a relation in their order, and what its server vouches for: types that hold for all values, and that there are no nulls. */
final class RelationColumns {
    private static final Set<Integer> MOMENTS = Set.of(Types.DATE, Types.TIME, Types.TIMESTAMP);

    /**
     * Where what is declared not null may be null all the same: it was not so before, is not so in tables that inherit it, or the rows are kept
     * elsewhere, or by a view.
     */
    private static final String PERHAPS_NULL =
            "SELECT 1 FROM pg_class WHERE oid = '%1$s'::regclass AND relkind NOT IN ('r', 'p')"
                    + " UNION ALL SELECT 1 FROM pg_constraint WHERE contype = 'n' AND conrelid = '%1$s'::regclass AND (NOT convalidated OR"
                    + " connoinherit)";

    /** A table of MariaDB whose engine holds what is declared. */
    private static final String PLAIN_TABLE =
            "SELECT 1 FROM information_schema.tables WHERE table_schema = coalesce(?, database())"
                    + " AND table_name = ? AND table_type = 'BASE TABLE' AND engine IN ('InnoDB', 'Aria', 'MyISAM')";

    private final Map<String, Integer> types = new LinkedHashMap<>();
    private final Map<String, ColumnFacts> facts = new LinkedHashMap<>();
    private final Map<String, ColumnInside> inside = new LinkedHashMap<>();
    private final Server server;

    /**
     * Asks the server.
     *
     * @param from the relation as a query names it
     * @param parts of the name of the table; none for a query, of whose columns less is known than their tables say: an outer join makes nulls
     * @throws SQLException when there is none, or it may not be read
     */
    RelationColumns(Connection connection, Server server, String from, List<String> parts) throws SQLException {
        this.server = server;
        try (Statement statement = connection.createStatement()) {
            Set<String> required = new HashSet<>();
            try (ResultSet none = statement.executeQuery("SELECT * FROM " + from + " WHERE 1 = 0")) {
                ResultSetMetaData metadata = none.getMetaData();
                for (int i = 1; i <= metadata.getColumnCount(); i++) {
                    String name = metadata.getColumnLabel(i);
                    types.put(name, metadata.getColumnType(i));
                    if (!parts.isEmpty() && metadata.isNullable(i) == ResultSetMetaData.columnNoNulls) {
                        required.add(name);
                    }
                    if (isKnown()) {
                        ColumnInside.of(server, metadata, i).ifPresent(known -> inside.put(name, known));
                    }
                    Optional<ColumnType> type = typeOf(metadata, i);
                    type.ifPresent(known -> facts.put(name, new ColumnFacts(known, true)));
                }
            }
            if (!required.isEmpty() && !facts.isEmpty() && isHeld(connection, from, parts)) {
                facts.replaceAll((name, known) -> new ColumnFacts(known.type(), !required.contains(name)));
            }
        }
    }

    /** Whether what a table declares not null is so in each of its rows. */
    private boolean isHeld(Connection connection, String from, List<String> parts) throws SQLException {
        if (server == Server.POSTGRESQL) {
            try (Statement statement = connection.createStatement();
                    ResultSet some = statement.executeQuery(PERHAPS_NULL.formatted(from.replace("'", "''")))) {
                return !some.next();
            }
        }
        try (PreparedStatement statement = connection.prepareStatement(PLAIN_TABLE)) {
            statement.setString(1, parts.size() > 1 ? parts.get(parts.size() - 2) : null);
            statement.setString(2, parts.get(parts.size() - 1));
            try (ResultSet plain = statement.executeQuery()) {
                return plain.next();
            }
        }
    }

    /** Only types whose every value is one of the same type here: a date of PostgreSQL may be infinite, a numeric no number. */
    private Optional<ColumnType> typeOf(ResultSetMetaData metadata, int column) throws SQLException {
        if (!isKnown()) {
            return Optional.empty();
        }
        String name = metadata.getColumnTypeName(column).toLowerCase(Locale.ROOT);
        return switch (metadata.getColumnType(column)) {
            case Types.SMALLINT -> whole(metadata, column, Name.SMALLINT);
            case Types.INTEGER -> whole(metadata, column, Name.INTEGER);
            case Types.BIGINT -> whole(metadata, column, Name.BIGINT);
            default -> server == Server.POSTGRESQL ? ofPostgres(name, metadata.getPrecision(column)) : Optional.empty();
        };
    }

    private static Optional<ColumnType> whole(ResultSetMetaData metadata, int column, Name name) throws SQLException {
        return metadata.isSigned(column) ? Optional.of(ColumnType.of(name)) : Optional.empty();
    }

    private static Optional<ColumnType> ofPostgres(String name, int length) {
        return switch (name) {
            case "text" -> Optional.of(ColumnType.of(Name.TEXT));
            case "varchar", "bpchar" -> ColumnType.parse("varchar(" + length + ")");
            case "uuid" -> Optional.of(ColumnType.of(Name.UUID));
            case "bool" -> Optional.of(ColumnType.of(Name.BOOLEAN));
            default -> Optional.empty();
        };
    }

    /** Whether its types are known to hold. */
    private boolean isKnown() {
        return server == Server.POSTGRESQL || server == Server.MARIADB;
    }

    /** A column as the server can compare it; empty where it cannot as it is done here. */
    Optional<ColumnInside> inside(String column) {
        return Optional.ofNullable(inside.get(column));
    }

    List<String> names() {
        return List.copyOf(types.keySet());
    }

    /** What is known of all values of a column. */
    Optional<ColumnFacts> facts(String column) {
        return Optional.ofNullable(facts.get(column));
    }

    /** Columns of MariaDB whose values its driver would take through the calendar of this machine, in which some hours have no name. */
    Set<String> moments() {
        Set<String> moments = new HashSet<>();
        types.forEach((name, type) -> {
            if (server == Server.MARIADB && MOMENTS.contains(type)) {
                moments.add(name);
            }
        });
        return moments;
    }
}
