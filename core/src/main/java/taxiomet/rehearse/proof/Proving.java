package taxiomet.rehearse.proof;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Table;
import taxiomet.rows.TableSource;

/** A database that carries changes out in one transaction, and takes all of them back. What goes wrong beside the changes is a {@link
 * taxiomet.rows.SourceException}. */
public interface Proving extends AutoCloseable {
    /** What the database is called. */
    String server();

    /** The triggers of the tables, each with its table. */
    List<String> triggers();

    /**
     * Carries out the next change; one that is refused leaves nothing behind.
     *
     * @return why it is refused; empty where it is not
     */
    Optional<String> carryOut();

    /** Judges what waits for the end; where that is refused, nothing of all changes is left. */
    Optional<String> end();

    /** The rows of a table as they stand now, read by one thread. */
    TableSource rows(Table table);

    /** Takes everything back. */
    @Override
    void close();
}
