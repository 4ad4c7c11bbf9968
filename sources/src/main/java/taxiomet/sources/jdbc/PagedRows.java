package taxiomet.sources.jdbc;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.Arrays;
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
    private static final int KEYS_IN_PAGE = 1_000;
    private static final int COUNTED_AT_ONCE = 100;

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
        return new Pages(columns, place == null ? null : ((List<?>) place).toArray(), List.of());
    }

    /** Columns that no two rows agree in and that are never null; none where there is no such key. */
    List<String> key() {
        return key;
    }

    /** Only the rows of some keys, at least one, in the order of their keys, in which these are given. */
    CursorSource.Cursor open(List<String> columns, List<Object[]> keys) throws SQLException {
        return new Pages(columns, null, keys);
    }

    /** How many rows stand before those of some keys, and one more; as for {@link #open(List, List)}. */
    long[] numbers(Connection connection, List<Object[]> keys) throws SQLException {
        long[] numbers = new long[keys.size()];
        long before = 0;
        for (int from = 0; from < numbers.length; from += COUNTED_AT_ONCE) {
            int end = Math.min(numbers.length, from + COUNTED_AT_ONCE);
            List<String> parts = new ArrayList<>();
            List<Object> values = new ArrayList<>();
            for (int i = from; i < end; i++) {
                String behind = i == 0 ? "" : beside(keys.get(i - 1), " > ?", values) + " AND ";
                parts.add("(SELECT count(*) FROM " + this.from + " WHERE " + behind
                        + beside(keys.get(i), " < ?", values) + ")");
            }
            try (PreparedStatement statement = connection.prepareStatement("SELECT " + String.join(", ", parts))) {
                for (int i = 0; i < values.size(); i++) {
                    statement.setObject(i + 1, values.get(i));
                }
                try (ResultSet result = statement.executeQuery()) {
                    result.next();
                    for (int i = from; i < end; i++) {
                        before += result.getLong(i - from + 1) + 1;
                        numbers[i] = before;
                    }
                }
            }
        }
        return numbers;
    }

    /**
     * On one side of a key: the first column is greater (or less), or it is equal and the next is, and so on.
     *
     * @param side how the column is compared that is not equal
     * @param values gets what the question marks stand for
     */
    private String beside(Object[] of, String side, List<Object> values) {
        SqlNames names = SqlNames.of(session.server());
        List<String> ways = new ArrayList<>();
        for (int i = 0; i < key.size(); i++) {
            List<String> parts = new ArrayList<>();
            for (int j = 0; j <= i; j++) {
                parts.add(names.quoted(key.get(j)) + (j == i ? side : " = ?"));
                values.add(of[j]);
            }
            ways.add("(" + String.join(" AND ", parts) + ")");
        }
        return "(" + String.join(" OR ", ways) + ")";
    }

    private final class Pages implements CursorSource.Cursor {
        private final int width;
        private final String select;
        private final Connection connection;
        private final int[] types;
        /** The keys of the rows wanted; none for all rows. */
        private final List<Object[]> wanted;

        private int pages;
        /** The key behind which the page begins, and that behind which the next will. */
        private Object[] last;

        private Object[] next;
        private PreparedStatement statement;
        private ResultSet page;
        private int rowsInPage;
        private boolean isFirstOfPage;
        private boolean isAtEnd;

        /**
         * @param after the key behind which it begins; null for the first row
         * @param keys of the rows wanted; none for all rows
         */
        Pages(List<String> columns, Object[] after, List<Object[]> keys) throws SQLException {
            wanted = List.copyOf(keys);
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
            if (!wanted.isEmpty()) {
                query.append(" WHERE ").append(among(names, values));
            } else if (last != null) {
                query.append(" WHERE ").append(beside(last, " > ?", values));
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

        /** The keys wanted whose rows are those of the page. */
        private String among(SqlNames names, List<Object> values) {
            List<Object[]> page =
                    wanted.subList(pages * KEYS_IN_PAGE, Math.min(wanted.size(), (pages + 1) * KEYS_IN_PAGE));
            page.forEach(each -> values.addAll(Arrays.asList(each)));
            pages++;
            return "(" + names.quoted(key) + ") IN " + Sql.marks(key.size(), page.size());
        }

        private boolean isLastPage() {
            return wanted.isEmpty()
                    ? key.isEmpty() || rowsInPage < ROWS_IN_PAGE
                    : pages * KEYS_IN_PAGE >= wanted.size();
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
                isAtEnd = isLastPage();
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
