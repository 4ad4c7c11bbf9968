package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Server;
import taxiomet.vet.Catalogue.Unheld;
import taxiomet.vet.Catalogue.What;

/** The catalogue of a PostgreSQL database as statements (PostgreSQL, "System Catalogs"). */
final class PostgresCatalogue {
    private static final SqlNames NAMES = SqlNames.of(Server.POSTGRESQL);

    private final Connection connection;
    private final List<String> schemas;
    private final boolean namesSchemas;
    private final List<String> statements = new ArrayList<>();

    /** @param schemas those wanted; empty for those on the connection's path */
    PostgresCatalogue(Connection connection, List<String> schemas) throws SQLException {
        this.connection = connection;
        this.namesSchemas = !schemas.isEmpty();
        this.schemas = schemas.isEmpty()
                ? CatalogueScript.texts(connection, "SELECT unnest(current_schemas(false))::text")
                : List.copyOf(schemas);
        try (Statement statement = connection.createStatement()) {
            // Names come with their schemas then, so that none is read as another.
            statement.execute("SET search_path TO ''");
        }
    }

    private interface RowReader {
        void read(ResultSet row) throws SQLException;
    }

    private void each(String query, RowReader reader) throws SQLException {
        try (PreparedStatement statement = connection.prepareStatement(query)) {
            statement.setArray(1, connection.createArrayOf("text", schemas.toArray()));
            try (ResultSet result = statement.executeQuery()) {
                while (result.next()) {
                    reader.read(result);
                }
            }
        }
    }

    /** @param unheld gets what is declared and not held by all rows */
    List<String> statements(List<Unheld> unheld) throws SQLException {
        addTypes();
        addTables();
        addConstraints();
        addIndexes();
        addUnheld(unheld);
        return statements;
    }

    private void addTypes() throws SQLException {
        each(
                "SELECT format_type(t.oid, NULL), string_agg(quote_literal(e.enumlabel), ', ' ORDER BY e.enumsortorder)"
                        + " FROM pg_type t JOIN pg_enum e ON e.enumtypid = t.oid JOIN pg_namespace n ON n.oid = t.typnamespace"
                        + " WHERE n.nspname NOT IN ('pg_catalog', 'information_schema') AND ?::text[] IS NOT NULL"
                        + " GROUP BY t.oid ORDER BY 1",
                row -> statements.add("CREATE TYPE " + row.getString(1) + " AS ENUM (" + row.getString(2) + ")"));
        each(
                "SELECT format_type(t.oid, NULL), format_type(t.typbasetype, t.typtypmod), t.typnotnull, t.typdefault,"
                        + " (SELECT string_agg(' CONSTRAINT ' || quote_ident(c.conname) || ' ' || pg_get_constraintdef(c.oid), '')"
                        + " FROM pg_constraint c WHERE c.contypid = t.oid AND c.contype = 'c')"
                        + " FROM pg_type t JOIN pg_namespace n ON n.oid = t.typnamespace WHERE t.typtype = 'd'"
                        + " AND n.nspname NOT IN ('pg_catalog', 'information_schema') AND ?::text[] IS NOT NULL ORDER BY t.oid",
                row -> statements.add("CREATE DOMAIN " + row.getString(1) + " AS " + row.getString(2)
                        + (row.getString(4) == null ? "" : " DEFAULT " + row.getString(4))
                        + (row.getBoolean(3) ? " NOT NULL" : "")
                        + (row.getString(5) == null ? "" : row.getString(5))));
    }

    private void addTables() throws SQLException {
        List<String> columns = new ArrayList<>();
        String[] last = new String[1];
        each(
                "SELECT n.nspname, c.relname, a.attname, format_type(a.atttypid, a.atttypmod), a.attnotnull AND NOT EXISTS"
                        + " (SELECT 1 FROM pg_constraint k WHERE k.conrelid = c.oid AND k.contype = 'p' AND a.attnum = ANY (k.conkey)),"
                        + " pg_get_expr(d.adbin, d.adrelid), a.attidentity::text, a.attgenerated::text"
                        + " FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace"
                        + " JOIN pg_attribute a ON a.attrelid = c.oid AND a.attnum > 0 AND NOT a.attisdropped"
                        + " LEFT JOIN pg_attrdef d ON d.adrelid = c.oid AND d.adnum = a.attnum"
                        + " WHERE c.relkind IN ('r', 'p') AND NOT c.relispartition AND n.nspname = ANY (?)"
                        + " ORDER BY n.nspname, c.relname, a.attnum",
                row -> {
                    String table = called(row.getString(1), row.getString(2));
                    if (last[0] != null && !table.equals(last[0])) {
                        end(last[0], columns);
                    }
                    last[0] = table;
                    columns.add(column(row));
                });
        if (last[0] != null) {
            end(last[0], columns);
        }
    }

    private void end(String table, List<String> columns) {
        statements.add("CREATE TABLE " + table + " (" + String.join(", ", columns) + ")");
        columns.clear();
    }

    private static String column(ResultSet row) throws SQLException {
        String value = row.getString(6);
        String generated = String.valueOf(row.getString(8));
        String identity = String.valueOf(row.getString(7));
        return NAMES.quoted(row.getString(3)) + " " + row.getString(4)
                + switch (identity) {
                    case "a" -> " GENERATED ALWAYS AS IDENTITY";
                    case "d" -> " GENERATED BY DEFAULT AS IDENTITY";
                    default ->
                        value == null
                                ? ""
                                : generated.isEmpty()
                                        ? " DEFAULT " + value
                                        : " GENERATED ALWAYS AS (" + value + ") STORED";
                }
                + (row.getBoolean(5) ? " NOT NULL" : "");
    }

    private String called(String schema, String table) {
        return namesSchemas ? NAMES.quoted(schema) + "." + NAMES.quoted(table) : NAMES.quoted(table);
    }

    private void addConstraints() throws SQLException {
        each(
                "SELECT n.nspname, c.relname, k.conname, pg_get_constraintdef(k.oid)"
                        + " FROM pg_constraint k JOIN pg_class c ON c.oid = k.conrelid"
                        + " JOIN pg_namespace n ON n.oid = c.relnamespace"
                        + " WHERE k.contype IN ('p', 'u', 'f', 'c', 'x') AND c.relkind IN ('r', 'p')"
                        + " AND NOT c.relispartition AND k.conparentid = 0 AND n.nspname = ANY (?)"
                        + " ORDER BY array_position(ARRAY['p', 'u', 'c', 'x', 'f'], k.contype::text), k.oid",
                row -> statements.add("ALTER TABLE " + called(row.getString(1), row.getString(2)) + " ADD CONSTRAINT "
                        + NAMES.quoted(row.getString(3)) + " " + row.getString(4)));
    }

    /** What was never validated, what is switched off, and indexes that could not be built. */
    private void addUnheld(List<Unheld> unheld) throws SQLException {
        each(
                "SELECT c.relname, k.conname, k.contype::text, (SELECT a.attname FROM pg_attribute a WHERE a.attrelid = c.oid"
                        + " AND a.attnum = k.conkey[1]) FROM pg_constraint k JOIN pg_class c ON c.oid = k.conrelid"
                        + " JOIN pg_namespace n ON n.oid = c.relnamespace WHERE NOT k.convalidated AND n.nspname = ANY (?)"
                        + " ORDER BY 1, 2",
                row -> {
                    boolean isOfColumn = row.getString(3).equals("n");
                    unheld.add(new Unheld(
                            row.getString(1),
                            isOfColumn ? What.NOT_NULL : What.CONSTRAINT,
                            row.getString(isOfColumn ? 4 : 2),
                            "it was never validated, and rows from before it may be otherwise",
                            "mend the rows that `taxiomet ddl --queries` lists, then ALTER TABLE ... VALIDATE CONSTRAINT "
                                    + NAMES.quoted(row.getString(2))));
                });
        each(
                "SELECT DISTINCT c.relname, k.conname FROM pg_trigger t JOIN pg_constraint k ON k.oid = t.tgconstraint"
                        + " JOIN pg_class c ON c.oid = k.conrelid JOIN pg_namespace n ON n.oid = c.relnamespace"
                        + " WHERE t.tgenabled = 'D' AND k.contype = 'f' AND n.nspname = ANY (?) ORDER BY 1, 2",
                row -> unheld.add(new Unheld(
                        row.getString(1),
                        What.CONSTRAINT,
                        row.getString(2),
                        "its triggers are disabled",
                        "ALTER TABLE ... ENABLE TRIGGER ALL on both tables, then check the rows")));
        each(
                "SELECT c.relname, x.relname FROM pg_index i JOIN pg_class c ON c.oid = i.indrelid JOIN pg_class x ON x.oid ="
                        + " i.indexrelid JOIN pg_namespace n ON n.oid = c.relnamespace WHERE i.indisunique AND NOT i.indisvalid"
                        + " AND n.nspname = ANY (?) ORDER BY 1, 2",
                row -> unheld.add(new Unheld(
                        row.getString(1),
                        What.CONSTRAINT,
                        row.getString(2),
                        "its index could not be built",
                        "mend the duplicates, then REINDEX INDEX " + NAMES.quoted(row.getString(2)))));
    }

    private void addIndexes() throws SQLException {
        each(
                "SELECT pg_get_indexdef(i.indexrelid) FROM pg_index i JOIN pg_class c ON c.oid = i.indrelid"
                        + " JOIN pg_namespace n ON n.oid = c.relnamespace WHERE i.indisunique AND n.nspname = ANY (?)"
                        + " AND c.relkind IN ('r', 'p') AND NOT c.relispartition"
                        + " AND NOT EXISTS (SELECT 1 FROM pg_constraint k WHERE k.conindid = i.indexrelid)"
                        + " ORDER BY i.indexrelid",
                row -> statements.add(row.getString(1)));
    }
}
