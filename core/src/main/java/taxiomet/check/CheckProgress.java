package taxiomet.check;

/** Is told how far a check has come. */
public interface CheckProgress {
    /** A table is about to be read. */
    void reading(String table);

    /**
     * Some more rows have been read.
     *
     * @param bytesRead of all tables so far
     * @param bytesInAll of all tables; 0 when not known
     */
    void advanced(long bytesRead, long bytesInAll);

    /** All rows have been read; what had to wait is being worked out. */
    void concluding();
}
