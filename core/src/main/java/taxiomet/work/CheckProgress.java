package taxiomet.work;

import java.util.function.LongSupplier;

/** Is told how far a check has come. */
public interface CheckProgress {
    /** A table is about to be read. */
    void reading(String table);

    /**
     * Some more rows have been read.
     *
     * @param bytesRead of all tables so far, for who wants to know
     * @param bytesInAll of all tables; 0 when not known
     */
    void advanced(LongSupplier bytesRead, long bytesInAll);

    /** All rows have been read; what had to wait is being worked out. */
    void concluding();

    /** Tells nobody. */
    CheckProgress NONE = new CheckProgress() {
        @Override
        public void reading(String table) {
            // Nobody watches.
        }

        @Override
        public void advanced(LongSupplier bytesRead, long bytesInAll) {
            // Nobody watches.
        }

        @Override
        public void concluding() {
            // Nobody watches.
        }
    };
}
