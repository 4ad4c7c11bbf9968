package taxiomet.sources.jdbc;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.place.Database;

/** What the person at this machine lets a run connect to, and with what; files from elsewhere have no say in it. */
public interface DatabaseAccess {
    /** A variable of the environment; empty where it is not set. */
    Optional<String> variable(String name);

    /** Files with drivers of servers that are not known here, those named first asked first. */
    List<Path> drivers();

    /**
     * Is asked once for each database of a run before anything is sent to it.
     *
     * @param database with its variables filled in as far as they stand in its address
     * @throws RuntimeException when it is not to be connected to
     */
    void admit(Database database);

    /** For runs whose tables live in no database: none may be connected to. */
    static DatabaseAccess none() {
        return new DatabaseAccess() {
            @Override
            public Optional<String> variable(String name) {
                return Optional.empty();
            }

            @Override
            public List<Path> drivers() {
                return List.of();
            }

            @Override
            public void admit(Database database) {
                throw new IllegalStateException("no database was foreseen: " + database.shown());
            }
        };
    }
}
