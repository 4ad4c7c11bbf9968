package taxiomet.sources.jdbc;

import java.sql.SQLException;
import java.util.List;
import taxiomet.sources.file.CursorSource;

/** The rows of a relation in an order that stays as it is for a run. */
interface RelationRows {
    /**
     * Begins to read.
     *
     * @param columns names of the columns wanted
     * @param place where, as a cursor gave it; null for the first row
     */
    CursorSource.Cursor open(List<String> columns, Object place) throws SQLException;

    /** About how many bytes they take; 0 when not known. */
    long bytes() throws SQLException;
}
