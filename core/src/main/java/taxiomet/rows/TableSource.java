package taxiomet.rows;

import java.util.List;

/** The rows of one table, wherever they stand. */
public interface TableSource extends AutoCloseable {
    /** The columns of the table that are there, in the order asked for when the source was opened. */
    List<String> columns();

    /** The name of a part (its file) for a person; the parts are numbered from 0. */
    String partName(int part);

    int partCount();

    /** What is worth saying about the source once, as full clauses: columns that nobody declared, for example. */
    List<Notice> notices();

    /** The rows, cut into runs that can be read side by side; together they are the table in its order. */
    List<Split> splits();

    /**
     * Hands over single rows without reading the whole table again. Places are known once the splits were read.
     *
     * @param refs ascending
     * @param columns places of the columns wanted
     * @param sink gets the rows in their order, and those that are malformed among them
     * @throws SourceException when the rows cannot be read, or have changed since the splits were read
     */
    void fetch(RefCursor refs, int[] columns, RowSink sink);

    /** How many bytes of its files have been read in the current pass, for the sake of those who wait. */
    long bytesRead();

    /** How many lines without any field were passed over while the splits were read. */
    long emptyLines();

    @Override
    void close();

    /** A remark about a source: of which kind, and what there is to say. */
    record Notice(String kind, String text) {}
}
