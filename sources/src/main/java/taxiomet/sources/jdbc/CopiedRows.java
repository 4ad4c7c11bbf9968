package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.function.IntFunction;
import org.postgresql.PGConnection;
import org.postgresql.copy.CopyOut;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.rows.RowBatch;
import taxiomet.sources.file.CursorSource;
import taxiomet.values.CellColumn;

/**
 * Rows of a PostgreSQL relation as COPY sends them: texts with tabs between them (PostgreSQL, "COPY", text format). Those of a table come as
 * they stand in its blocks, piece by piece, so that a row is found again by the piece that it is in; those of a view or a query in the order
 * of their key.
 */
final class CopiedRows implements RelationRows {
    /** In a piece; a block has 8 kB. */
    private static final long BLOCKS = 2_048;

    /** From this version on a range of blocks is read alone. */
    private static final int RANGES_OF_BLOCKS = 14;

    private final DatabaseSession session;
    private final String from;
    private final String order;
    /** How many blocks there are; -1 where rows have no blocks of their own. */
    private final long blocks;

    private final long size;

    /** @param order columns that put the rows in order where no block does */
    CopiedRows(DatabaseSession session, DatabaseRows rows, String from, List<String> order) throws SQLException {
        this.session = session;
        this.from = from;
        this.order = " ORDER BY " + SqlNames.of(session.server()).quoted(order);
        Connection connection = session.take();
        try {
            boolean hasBlocks = !rows.isQuery()
                    && connection.getMetaData().getDatabaseMajorVersion() >= RANGES_OF_BLOCKS
                    && DatabaseSession.text(
                                    connection,
                                    "SELECT relkind IN ('r', 'm') AND NOT relhassubclass FROM pg_class WHERE oid = '"
                                            + from.replace("'", "''") + "'::regclass")
                            .equals("t");
            long bytes = hasBlocks
                    ? Long.parseLong(DatabaseSession.text(
                            connection, "SELECT pg_relation_size('" + from.replace("'", "''") + "'::regclass)"))
                    : 0;
            size = bytes;
            blocks = hasBlocks ? bytes / Long.parseLong(DatabaseSession.text(connection, "SHOW block_size")) : -1;
        } finally {
            session.giveBack(connection);
        }
    }

    @Override
    public long bytes() {
        return size;
    }

    /** Whether rows have places of their own in blocks. */
    boolean hasBlocks() {
        return blocks >= 0;
    }

    @Override
    public CursorSource.Cursor open(List<String> columns, Object place) throws SQLException {
        return new Copying(columns, place == null ? 0 : (Integer) place, this::piece);
    }

    /** Only the rows at some places, in their order. */
    CursorSource.Cursor open(List<String> columns, RowPlaces places) throws SQLException {
        return new Copying(columns, 0, places::piece);
    }

    /** Which rows are those of a piece of the relation, as a clause; null behind the last. */
    private String piece(int number) {
        if (blocks < 0) {
            return number > 0 ? null : order;
        }
        long first = number * BLOCKS;
        if (number > 0 && first >= blocks) {
            return null;
        }
        long end = first + BLOCKS;
        return " WHERE ctid >= '(" + first + ",0)'::tid" + (end < blocks ? " AND ctid < '(" + end + ",0)'::tid" : "");
    }

    private final class Copying implements CursorSource.Cursor {
        private static final byte TAB = '\t';
        private static final byte ESCAPE = '\\';

        private final String select;
        private final int width;
        private final Connection connection;
        private final boolean[] isEscaped;
        private final int[] starts;
        private final int[] ends;
        private final IntFunction<String> pieces;
        private CopyOut copy;
        private int nextPiece;
        private boolean isFirstOfPiece;
        private int place;
        private byte[] row;
        private byte[] unescaped = new byte[1 << 8];

        Copying(List<String> columns, int piece, IntFunction<String> pieces) throws SQLException {
            this.pieces = pieces;
            width = columns.size();
            select = "SELECT "
                    + (columns.isEmpty()
                            ? "NULL"
                            : SqlNames.of(session.server()).quoted(columns)) + " FROM " + from;
            starts = new int[width];
            ends = new int[width];
            isEscaped = new boolean[width];
            nextPiece = piece;
            connection = session.take();
        }

        private boolean begin() throws SQLException {
            String where = pieces.apply(nextPiece);
            if (where == null) {
                return false;
            }
            place = nextPiece++;
            copy = connection
                    .unwrap(PGConnection.class)
                    .getCopyAPI()
                    .copyOut("COPY (" + select + where + ") TO STDOUT");
            isFirstOfPiece = true;
            return true;
        }

        @Override
        public boolean next() throws SQLException {
            isFirstOfPiece = false;
            while (true) {
                if (copy == null && !begin()) {
                    return false;
                }
                row = copy.readFromCopy();
                if (row != null) {
                    return true;
                }
                copy = null;
            }
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
            return isFirstOfPiece && blocks >= 0 ? place : null;
        }

        @Override
        public long addTo(RowBatch batch) {
            if (width > 0) {
                cut();
            }
            for (int i = 0; i < width; i++) {
                CellColumn cells = batch.column(i);
                int length = ends[i] - starts[i];
                if (!isEscaped[i]) {
                    cells.add(row, starts[i], length);
                } else if (length == 2 && row[starts[i] + 1] == 'N') {
                    cells.addNull();
                } else {
                    cells.add(unescaped, 0, unescape(starts[i], ends[i]));
                }
            }
            return row.length;
        }

        private void cut() {
            int column = 0;
            int last = row.length - 1;
            starts[0] = 0;
            isEscaped[0] = false;
            for (int i = 0; i < last; i++) {
                if (row[i] == TAB) {
                    ends[column++] = i;
                    starts[column] = i + 1;
                    isEscaped[column] = false;
                } else if (row[i] == ESCAPE) {
                    isEscaped[column] = true;
                }
            }
            ends[column] = last;
        }

        private int unescape(int start, int end) {
            if (unescaped.length < end - start) {
                unescaped = new byte[end - start];
            }
            int size = 0;
            for (int i = start; i < end; i++) {
                byte b = row[i];
                if (b == ESCAPE) {
                    b = row[++i];
                    b = switch (b) {
                        case 'b' -> '\b';
                        case 'f' -> '\f';
                        case 'n' -> '\n';
                        case 'r' -> '\r';
                        case 't' -> '\t';
                        case 'v' -> 0x0B;
                        default -> b;
                    };
                }
                unescaped[size++] = b;
            }
            return size;
        }

        @Override
        public void close() {
            boolean isInOrder = copy == null;
            try {
                // What is cancelled ends the transaction; the rest of a piece is sooner read.
                while (copy != null && blocks >= 0 && copy.readFromCopy() != null) {
                    row = null;
                }
                isInOrder |= blocks >= 0;
            } catch (SQLException e) {
                isInOrder = false;
            }
            copy = null;
            if (isInOrder) {
                session.giveBack(connection);
            } else {
                session.drop(connection);
            }
        }
    }
}
