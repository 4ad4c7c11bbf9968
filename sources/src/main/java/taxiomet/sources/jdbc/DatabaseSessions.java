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

    @Override
    public synchronized void close() {
        open.values().forEach(DatabaseSession::close);
        open.clear();
    }
}
