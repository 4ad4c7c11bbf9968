package taxiomet.sources.jdbc;

import java.sql.SQLException;
import taxiomet.rows.RowBatch;

/** The rows of a relation in an order that stays as it is for a run. */
interface RelationRows {
    /**
     * Begins to read.
     *
     * @param columns names of the columns wanted
     * @param place where, as a cursor gave it; null for the first row
     */
    Cursor open(java.util.List<String> columns, Object place) throws SQLException;

    /** About how many bytes they take; 0 when not known. */
    long bytes() throws SQLException;

    /** Goes over rows. It serves one thread at a time. */
    interface Cursor extends AutoCloseable {
        /** Goes to the next row; false when there is none. */
        boolean next() throws SQLException;

        /** The place of the row, if it can be read from there on without those before it; null otherwise. */
        Object place();

        /** Adds the row's cells to all columns of a batch, and gives about how many bytes they take. */
        long addTo(RowBatch batch) throws SQLException;

        @Override
        void close();
    }
}
