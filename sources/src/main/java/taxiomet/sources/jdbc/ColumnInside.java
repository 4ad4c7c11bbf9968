package taxiomet.sources.jdbc;

import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Server;

/**
 * One column of a relation as its server can compare it.
 *
 * @param kind as which its values are compared; values of one kind are equal there exactly when they are here
 * @param type of which all its values are, as far as a type of ours tells
 * @param typeName as PostgreSQL calls the type as which it compares the values
 */
record ColumnInside(Kind kind, ColumnType type, String typeName) {
    /** Only numbers of so few digits: telling whether longer ones fit takes the server as long as moving them. */
    private static final int MOST_DIGITS = 18;
    /** Of a text that MariaDB can keep in an index of its own while it compares. */
    private static final int MOST_CHARACTERS = 190;

    /** What can be compared with one another. */
    enum Kind {
        NUMBER(Family.EXACT_NUMBER),
        TEXT(Family.TEXT),
        /** Trailing blanks are not told apart. */
        PADDED_TEXT(Family.TEXT),
        UUID(Family.UUID),
        BOOLEAN(Family.BOOLEAN),
        DATE(Family.MOMENT),
        TIMESTAMP(Family.MOMENT),
        INSTANT(Family.INSTANT);

        private final Family family;

        Kind(Family family) {
            this.family = family;
        }
    }

    /** A column that a query gives; empty where its values are not compared there as they are here. */
    static Optional<ColumnInside> of(Server server, ResultSetMetaData metadata, int column) throws SQLException {
        String name = metadata.getColumnTypeName(column).toLowerCase(Locale.ROOT);
        int precision = metadata.getPrecision(column);
        int scale = metadata.getScale(column);
        return switch (metadata.getColumnType(column)) {
            case Types.SMALLINT -> whole(metadata, column, Name.SMALLINT, "int2");
            case Types.INTEGER -> whole(metadata, column, Name.INTEGER, "int4");
            case Types.BIGINT -> whole(metadata, column, Name.BIGINT, "int8");
            case Types.NUMERIC, Types.DECIMAL ->
                precision > 0 && precision <= MOST_DIGITS && scale >= 0 && scale <= precision
                        ? of(Kind.NUMBER, "numeric(" + precision + "," + scale + ")", name)
                        : Optional.empty();
            case Types.DATE -> of(Kind.DATE, "date", name);
            case Types.TIMESTAMP ->
                // MariaDB's driver does not always tell how many digits there are behind the second.
                server == Server.MARIADB
                        ? of(Kind.TIMESTAMP, "timestamp(6)", name)
                        : of(
                                name.equals("timestamptz") ? Kind.INSTANT : Kind.TIMESTAMP,
                                (name.equals("timestamptz") ? "timestamp(%d) with time zone" : "timestamp(%d)")
                                        .formatted(scale),
                                name);
            default -> server == Server.POSTGRESQL ? ofPostgres(name, precision) : ofMariadb(metadata, column, name);
        };
    }

    private static Optional<ColumnInside> whole(ResultSetMetaData metadata, int column, Name name, String typeName)
            throws SQLException {
        return metadata.isSigned(column) ? of(Kind.NUMBER, name.sql(), typeName) : Optional.empty();
    }

    private static Optional<ColumnInside> ofPostgres(String name, int length) {
        return switch (name) {
            case "text" -> of(Kind.TEXT, "text", name);
            case "varchar" ->
                of(Kind.TEXT, length > 0 && length < Integer.MAX_VALUE ? "varchar(" + length + ")" : "text", "text");
            case "bpchar" -> of(Kind.PADDED_TEXT, "char(" + length + ")", "text");
            case "uuid" -> of(Kind.UUID, "uuid", name);
            case "bool" -> of(Kind.BOOLEAN, "boolean", name);
            default -> Optional.empty();
        };
    }

    private static Optional<ColumnInside> ofMariadb(ResultSetMetaData metadata, int column, String name)
            throws SQLException {
        int length = metadata.getPrecision(column);
        return switch (metadata.getColumnType(column)) {
            case Types.CHAR -> of(Kind.PADDED_TEXT, "char(" + length + ")", name);
            case Types.VARCHAR ->
                length > 0 && length <= MOST_CHARACTERS
                        ? of(Kind.TEXT, "varchar(" + length + ")", name)
                        : Optional.empty();
            default -> Optional.empty();
        };
    }

    private static Optional<ColumnInside> of(Kind kind, String type, String typeName) {
        return ColumnType.parse(type).map(known -> new ColumnInside(kind, known, typeName));
    }

    /** Whether its values are compared as a declared column's are. */
    boolean isComparedAs(Column declared) {
        boolean isPadded = declared.type().name() == Name.CHAR;
        return declared.type().family() == kind.family
                && declared.format().isEmpty()
                && !declared.decimalComma()
                && (kind.family != Family.TEXT || isPadded == (kind == Kind.PADDED_TEXT));
    }

    /**
     * The condition under which a value is not of a declared column's type, or oddly written; no text where none can be. Empty where the server
     * cannot tell.
     *
     * @param name of the column, quoted
     */
    Optional<String> oddness(Column declared, String name, Server server) {
        if (!isComparedAs(declared)) {
            return Optional.empty();
        }
        ColumnType wanted = declared.type();
        return switch (kind) {
            case NUMBER -> oddNumber(wanted, name, server);
            case TEXT, PADDED_TEXT ->
                Optional.of(type.isWithin(wanted) ? "" : "char_length(" + name + ") > " + wanted.length());
            case UUID, BOOLEAN -> Optional.of("");
            case DATE ->
                wanted.name() == Name.DATE
                        ? Optional.of(name + " NOT BETWEEN '0001-01-01' AND '9999-12-31'")
                        : Optional.empty();
            case TIMESTAMP, INSTANT ->
                wanted.name() != Name.DATE && type.scale() <= wanted.scale()
                        ? Optional.of(name + " NOT BETWEEN '0001-01-01 00:00:00" + zone()
                                + "' AND '9999-12-31 23:59:59.999999" + zone() + "'")
                        : Optional.empty();
        };
    }

    private String zone() {
        return kind == Kind.INSTANT ? "+00" : "";
    }

    private Optional<String> oddNumber(ColumnType wanted, String name, Server server) {
        if (type.isWithin(wanted)) {
            return Optional.of(type.isInteger() || server != Server.POSTGRESQL ? "" : name + " = 'NaN'");
        }
        if (!type.isInteger() || !wanted.isInteger()) {
            return Optional.empty();
        }
        return Optional.of(
                wanted.name() == Name.SMALLINT
                        ? name + " NOT BETWEEN " + Short.MIN_VALUE + " AND " + Short.MAX_VALUE
                        : name + " NOT BETWEEN " + Integer.MIN_VALUE + " AND " + Integer.MAX_VALUE);
    }
}
