package taxiomet.sources.jdbc;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import taxiomet.charter.place.DatabaseRows;

/** The databases that a run reads, each connected to when it is first asked for. */
public final class DatabaseSessions implements AutoCloseable {
    private final Function<String, Optional<String>> environment;
    private final Map<String, DatabaseSession> open = new LinkedHashMap<>();

    /** @param environment gives the variables that addresses, users and passwords may name */
    public DatabaseSessions(Function<String, Optional<String>> environment) {
        this.environment = environment;
    }

    /** With the variables of this process. */
    public DatabaseSessions() {
        this(name -> Optional.ofNullable(System.getenv(name)));
    }

    /**
     * The session of the database that rows live in.
     *
     * @throws taxiomet.rows.SourceException when it cannot be connected to
     */
    synchronized DatabaseSession of(DatabaseRows rows) {
        return open.computeIfAbsent(
                rows.database().url(),
                url -> DatabaseSession.open(
                        new Login(rows.database(), rows.folder(), environment).connected(), rows.database()));
    }

    /**
     * A way to carry changes out and take them back. On PostgreSQL the moment that is read is seen there too.
     *
     * @param rows of some table in the database
     * @param how what is to be done in it
     * @throws taxiomet.rows.SourceException when it cannot be connected to
     */
    public ProvingDatabase prove(DatabaseRows rows, ProvingDatabase.Plan how) {
        DatabaseSession read = of(rows);
        Login login = new Login(rows.database(), rows.folder(), environment);
        return ProvingDatabase.connected(login.connected(true), rows.database(), read.snapshot(), how);
    }

    @Override
    public synchronized void close() {
        open.values().forEach(DatabaseSession::close);
        open.clear();
    }
}
