package taxiomet.rows;

/** A run of a table's rows that can be read apart from the others, on a thread of its own. */
public interface Split {
    /** Which part (file) of the table the rows stand in, 0 for the first. */
    int part();

    /** How many bytes there are to read; 0 when not known. */
    long bytes();

    /**
     * Reads all rows.
     *
     * @param columns places of the columns wanted, as in {@link TableSource#columns()}; the batches hold them in this order
     * @throws SourceException when the rows cannot be read to their end, or changed while they were read
     */
    void read(int[] columns, RowSink sink);
}
