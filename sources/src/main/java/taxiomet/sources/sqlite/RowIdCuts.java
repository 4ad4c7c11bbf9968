package taxiomet.sources.sqlite;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.rows.Split;

/** Cuts a table that has {@code rowid}s into pieces: from one of them to another. Where some are negative, the table is one piece. */
final class RowIdCuts {
    /** What a row is taken to have: a database does not say. */
    private static final int BYTES_A_ROW = 100;

    private final Connection connection;
    private final String table;

    RowIdCuts(Connection connection, String table) {
        this.connection = connection;
        this.table = SqliteCatalogue.quoted(table);
    }

    /** Pieces of about so many bytes, of one row at least. */
    List<Split> everyBytes(long bytes) throws SQLException {
        List<Split> splits = new ArrayList<>();
        long rows = Math.max(1, bytes / BYTES_A_ROW);
        long from = 0;
        Optional<Long> next = hasNegative() ? Optional.empty() : behind(from, rows);
        while (next.isPresent()) {
            splits.add(new Split(0, from, next.get()));
            from = next.get();
            next = behind(from, rows);
        }
        splits.add(new Split(0, from, Long.MAX_VALUE));
        return splits;
    }

    private boolean hasNegative() throws SQLException {
        try (PreparedStatement least = connection.prepareStatement("SELECT min(rowid) FROM " + table);
                ResultSet result = least.executeQuery()) {
            return result.next() && result.getLong(1) < 0;
        }
    }

    /** The {@code rowid} that is so many rows behind the first from one on; the greatest there can be is no place to cut at. */
    private Optional<Long> behind(long from, long rows) throws SQLException {
        try (PreparedStatement next = connection.prepareStatement(
                "SELECT rowid FROM " + table + " WHERE rowid >= ? ORDER BY rowid LIMIT 1 OFFSET ?")) {
            next.setLong(1, from);
            next.setLong(2, rows);
            try (ResultSet result = next.executeQuery()) {
                return result.next() && result.getLong(1) < Long.MAX_VALUE
                        ? Optional.of(result.getLong(1))
                        : Optional.empty();
            }
        }
    }
}
