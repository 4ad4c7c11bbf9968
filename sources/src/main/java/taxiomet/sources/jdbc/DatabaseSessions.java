package taxiomet.sources.jdbc;

import java.util.LinkedHashMap;
import java.util.Map;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseRows;

/** The databases that a run reads, each connected to when it is first asked for. */
public final class DatabaseSessions implements AutoCloseable {
    private final DatabaseAccess access;
    private final Map<Database, DatabaseSession> open = new LinkedHashMap<>();

    /** @param access what may be connected to */
    public DatabaseSessions(DatabaseAccess access) {
        this.access = access;
    }

    /**
     * The session of the database that rows live in.
     *
     * @throws taxiomet.rows.SourceException when it cannot be connected to
     */
    synchronized DatabaseSession of(DatabaseRows rows) {
        return open.computeIfAbsent(
                rows.database(),
                database -> DatabaseSession.open(new Login(database, rows.folder(), access).connected(), database));
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
        Login login = new Login(rows.database(), rows.folder(), access);
        return ProvingDatabase.connected(login.connectedToProve(), rows.database(), read.snapshot(), how);
    }

    @Override
    public synchronized void close() {
        open.values().forEach(DatabaseSession::close);
        open.clear();
    }
}
