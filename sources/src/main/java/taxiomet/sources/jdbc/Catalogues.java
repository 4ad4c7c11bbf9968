package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import taxiomet.charter.Server;
import taxiomet.charter.place.DatabaseRows;

/** What a database says of its tables, as far as reading their rows needs it. */
final class Catalogues {
    private static final Set<String> OF_THE_SERVER = Set.of(
            "pg_catalog", "information_schema", "mysql", "performance_schema", "sys", "INFORMATION_SCHEMA", "SYS");

    private Catalogues() {}

    /** The columns of a table's primary key, in its order; none where it has none. */
    static List<String> keyOf(Connection connection, DatabaseRows rows) throws SQLException {
        List<String> parts = rows.parts();
        String table = parts.get(parts.size() - 1);
        String schema = parts.size() > 1 ? parts.get(parts.size() - 2) : null;
        DatabaseMetaData metadata = connection.getMetaData();
        boolean schemasAreCatalogues = metadata.getDatabaseProductName().matches("(?i).*(mariadb|mysql).*");
        String catalogue = schemasAreCatalogues && schema != null ? schema : connection.getCatalog();
        TreeMap<Integer, String> columns = new TreeMap<>();
        try (ResultSet keys = metadata.getPrimaryKeys(
                catalogue, schemasAreCatalogues ? null : schema == null ? connection.getSchema() : schema, table)) {
            while (keys.next()) {
                columns.put(keys.getInt("KEY_SEQ"), keys.getString("COLUMN_NAME"));
            }
        }
        return List.copyOf(columns.values());
    }

    /** About how many bytes a table takes; 0 when not known. */
    static long bytesOf(Connection connection, Server server, DatabaseRows rows) throws SQLException {
        if (server != Server.MARIADB || rows.isQuery()) {
            return 0;
        }
        List<String> parts = rows.parts();
        try (PreparedStatement statement = connection.prepareStatement(
                "SELECT data_length FROM information_schema.tables WHERE table_schema = coalesce(?, database())"
                        + " AND table_name = ?")) {
            statement.setString(1, parts.size() > 1 ? parts.get(parts.size() - 2) : null);
            statement.setString(2, parts.get(parts.size() - 1));
            try (ResultSet result = statement.executeQuery()) {
                return result.next() ? result.getLong(1) : 0;
            }
        }
    }

    /** Names of the tables and views that may be read, those of the server itself left out; none where they cannot be told. */
    static List<String> tablesOf(DatabaseSession session) {
        List<String> names = new ArrayList<>();
        try {
            Connection connection = session.take();
            try (ResultSet tables = connection
                    .getMetaData()
                    .getTables(
                            connection.getCatalog(), null, "%", new String[] {"TABLE", "VIEW", "PARTITIONED TABLE"})) {
                String own = connection.getSchema();
                while (tables.next()) {
                    String schema = tables.getString("TABLE_SCHEM");
                    if (schema == null || !OF_THE_SERVER.contains(schema)) {
                        names.add(
                                schema == null || schema.equals(own)
                                        ? tables.getString("TABLE_NAME")
                                        : schema + "." + tables.getString("TABLE_NAME"));
                    }
                }
            } finally {
                session.giveBack(connection);
            }
        } catch (SQLException e) {
            return List.of();
        }
        return names;
    }
}
