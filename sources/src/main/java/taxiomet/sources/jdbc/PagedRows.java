package taxiomet.sources.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Server;
import taxiomet.rows.RowBatch;
import taxiomet.sources.file.CursorSource;
import taxiomet.sources.file.DynamicValue;
import taxiomet.values.ValueCells;

/**
 * Rows of a relation page by page in the order of a key, so that no cursor stays open on the one connection that sees the moment of the run. A
 * relation without a key is one page, which the driver streams if it can.
 */
final class PagedRows implements RelationRows {
    private static final int ROWS_IN_PAGE = 10_000;

    private final DatabaseSession session;
    private final String from;
    private final List<String> key;
    private final List<String> order;
    private final Set<String> moments;
    private final long size;

    /**
     * @param key columns that no two rows agree in and that are never null; none where there is no such key
     * @param order columns by which rows are put in order where there is no key
     * @param moments columns that the server is to hand over as texts
     */
    PagedRows(
            DatabaseSession session,
            String from,
            List<String> key,
            List<String> order,
            Set<String> moments,
            long size) {
        this.moments = Set.copyOf(moments);
        this.session = session;
        this.from = from;
        this.key = List.copyOf(key);
        this.order = List.copyOf(order);
        this.size = size;
    }

    @Override
    public long bytes() {
        return size;
    }

    @Override
    public CursorSource.Cursor open(List<String> columns, Object place) throws SQLException {
        return new Pages(columns, place == null ? null : ((List<?>) place).toArray());
    }

    private final class Pages implements CursorSource.Cursor {
        private final int width;
        private final String select;
        private final Connection connection;
        private final int[] types;
        /** The key behind which the page begins, and that behind which the next will. */
        private Object[] last;

        private Object[] next;
        private PreparedStatement statement;
        private ResultSet page;
        private int rowsInPage;
        private boolean isFirstOfPage;
        private boolean isAtEnd;

        /** @param after the key behind which it begins; null for the first row */
        Pages(List<String> columns, Object[] after) throws SQLException {
            SqlNames names = SqlNames.of(session.server());
            width = columns.size();
            List<String> all = new ArrayList<>(columns);
            all.addAll(key);
            String cells = all.stream()
                    .map(column -> moments.contains(column)
                            ? "CAST(" + names.quoted(column) + " AS CHAR)"
                            : names.quoted(column))
                    .collect(Collectors.joining(", "));
            select = "SELECT " + (cells.isEmpty() ? "NULL" : cells) + " FROM " + from;
            types = new int[Math.max(1, all.size())];
            connection = session.take();
            last = after;
        }

        private void begin() throws SQLException {
            SqlNames names = SqlNames.of(session.server());
            List<Object> values = new ArrayList<>();
            StringBuilder query = new StringBuilder(select);
            if (last != null) {
                query.append(" WHERE ").append(behind(names, values));
            }
            List<String> by = key.isEmpty() ? order : key;
            query.append(by.isEmpty() ? "" : " ORDER BY " + names.quoted(by));
            if (!key.isEmpty()) {
                query.append(
                        session.server() == Server.MARIADB || session.server() == Server.SQLITE
                                ? " LIMIT " + ROWS_IN_PAGE
                                : " OFFSET 0 ROWS FETCH NEXT " + ROWS_IN_PAGE + " ROWS ONLY");
            }
            synchronized (connection) {
                statement = connection.prepareStatement(query.toString());
                statement.setFetchSize(key.isEmpty() ? ROWS_IN_PAGE : 0);
                for (int i = 0; i < values.size(); i++) {
                    statement.setObject(i + 1, values.get(i));
                }
                page = statement.executeQuery();
            }
            ResultSetMetaData metadata = page.getMetaData();
            for (int i = 0; i < types.length; i++) {
                types[i] = typeOf(metadata, i + 1);
            }
            isFirstOfPage = true;
            rowsInPage = 0;
        }

        /** Behind the last row: the first column is greater, or it is equal and the next is, and so on. */
        private String behind(SqlNames names, List<Object> values) {
            List<String> ways = new ArrayList<>();
            for (int i = 0; i < key.size(); i++) {
                List<String> parts = new ArrayList<>();
                for (int j = 0; j <= i; j++) {
                    parts.add(names.quoted(key.get(j)) + (j == i ? " > ?" : " = ?"));
                    values.add(last[j]);
                }
                ways.add("(" + String.join(" AND ", parts) + ")");
            }
            return "(" + String.join(" OR ", ways) + ")";
        }

        @Override
        public boolean next() throws SQLException {
            while (!isAtEnd) {
                if (page == null) {
                    begin();
                } else {
                    isFirstOfPage = false;
                }
                if (page.next()) {
                    if (++rowsInPage == ROWS_IN_PAGE && !key.isEmpty()) {
                        next = keyOfRow();
                    }
                    return true;
                }
                last = next;
                isAtEnd = key.isEmpty() || rowsInPage < ROWS_IN_PAGE;
                closePage();
            }
            return false;
        }

        @Override
        public long line() {
            return 0;
        }

        @Override
        public long emptyLines() {
            return 0;
        }

        @Override
        public Object place() {
            return isFirstOfPage && last != null ? List.of(last) : null;
        }

        @Override
        public long addTo(RowBatch batch) throws SQLException {
            long bytes = 0;
            for (int i = 0; i < width; i++) {
                ValueCells cells = (ValueCells) batch.column(i);
                bytes += session.hasTypedColumns() ? add(cells, i) : DynamicValue.add(page.getObject(i + 1), cells);
            }
            return bytes;
        }

        private long add(ValueCells cells, int i) throws SQLException {
            int place = i + 1;
            switch (types[i]) {
                case Types.BIGINT -> {
                    long number = page.getLong(place);
                    if (page.wasNull()) {
                        cells.addNull();
                    } else {
                        cells.add(number);
                    }
                }
                case Types.DOUBLE -> {
                    double number = page.getDouble(place);
                    if (page.wasNull()) {
                        cells.addNull();
                    } else {
                        cells.add(number);
                    }
                }
                case Types.BOOLEAN -> {
                    boolean truth = page.getBoolean(place);
                    if (page.wasNull()) {
                        cells.addNull();
                    } else {
                        cells.add(truth);
                    }
                }
                case Types.NUMERIC -> {
                    BigDecimal number = page.getBigDecimal(place);
                    if (number == null) {
                        cells.addNull();
                    } else {
                        cells.add(number);
                    }
                }
                case Types.BINARY -> {
                    byte[] bytes = page.getBytes(place);
                    return addText(cells, bytes == null ? null : HexFormat.of().formatHex(bytes));
                }
                default -> {
                    return addText(cells, page.getString(place));
                }
            }
            return Long.BYTES;
        }

        private static long addText(ValueCells cells, String text) {
            if (text == null) {
                cells.addNull();
                return 1;
            }
            cells.add(text);
            return text.length();
        }

        private void closePage() throws SQLException {
            if (page != null) {
                page.close();
                statement.close();
                page = null;
            }
        }

        @Override
        public void close() {
            try {
                closePage();
            } catch (SQLException e) {
                // All that was wanted has been read.
                page = null;
            }
            session.giveBack(connection);
        }

        /** The key of the row, behind which the next page begins. */
        private Object[] keyOfRow() throws SQLException {
            Object[] values = new Object[key.size()];
            for (int i = 0; i < values.length; i++) {
                values[i] = page.getObject(width + i + 1);
            }
            return values;
        }
    }

    /** How the values of a column are taken. */
    private static int typeOf(ResultSetMetaData metadata, int column) throws SQLException {
        int type = metadata.getColumnType(column);
        return switch (type) {
            case Types.TINYINT, Types.SMALLINT, Types.INTEGER -> Types.BIGINT;
            // One without a sign may be greater than a long.
            case Types.BIGINT -> metadata.isSigned(column) ? Types.BIGINT : Types.VARCHAR;
            case Types.NUMERIC, Types.DECIMAL -> Types.NUMERIC;
            case Types.DOUBLE -> Types.DOUBLE;
            case Types.BOOLEAN -> Types.BOOLEAN;
            case Types.BIT -> metadata.getPrecision(column) <= 1 ? Types.BOOLEAN : Types.BINARY;
            case Types.BINARY, Types.VARBINARY, Types.LONGVARBINARY, Types.BLOB -> Types.BINARY;
            default -> Types.VARCHAR;
        };
    }
}
