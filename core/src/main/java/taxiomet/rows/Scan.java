package taxiomet.rows;

/** One pass over the rows of a table, which several threads may share. */
public interface Scan extends AutoCloseable {
    /** A reader for one thread; all readers of a scan together give each row once. */
    BatchReader reader();

    @Override
    void close();

    /** Takes runs of rows as they come next in the table. It serves one thread. */
    interface BatchReader extends AutoCloseable {
        /**
         * The next rows that no other reader has taken: {@link RowBatch#number()} says which run of the scan they are. Runs are
         * numbered in the order of the table, 0 for the first, without a gap, whichever reader takes them: those who need that order wait
         * for each number in turn. A run may be empty. The batch is filled again with the next call.
         *
         * @return null when there are no more
         * @throws SourceException when the rows cannot be read to their end, or changed while they were read
         */
        RowBatch next();

        @Override
        void close();
    }
}
