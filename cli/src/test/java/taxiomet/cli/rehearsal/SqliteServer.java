package taxiomet.cli.rehearsal;

import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;

/** SQLite, in this process. */
final class SqliteServer extends RealServer {
    private static final Pattern UNIQUE = Pattern.compile("UNIQUE constraint failed: ([^)]*)\\)?");
    private static final Pattern NOT_NULL = Pattern.compile("NOT NULL constraint failed: (\\w+\\.\\w+)");
    private static final Pattern CHECK = Pattern.compile("CHECK constraint failed: (\\w+)");
    private RandomProposal loaded;

    SqliteServer() throws SQLException {
        this("jdbc:sqlite::memory:");
    }

    SqliteServer(String address) throws SQLException {
        super(DriverManager.getConnection(address));
    }

    @Override
    String name() {
        return "sqlite";
    }

    @Override
    boolean takes(RandomProposal proposal) {
        return !proposal.hasColumnList;
    }

    @Override
    void load(RandomProposal proposal) throws SQLException {
        execute("PRAGMA foreign_keys = off", "PRAGMA ignore_check_constraints = on");
        if (loaded != null) {
            for (TableCase table : loaded.tables) {
                execute("DROP TABLE " + table.name);
            }
        }
        loaded = proposal;
        createTables(proposal, "", true);
        execute("PRAGMA ignore_check_constraints = off", "PRAGMA foreign_keys = on");
    }

    @Override
    void linksOff() throws SQLException {
        execute("PRAGMA foreign_keys = off");
    }

    @Override
    void linksOn() throws SQLException {
        execute("PRAGMA foreign_keys = on");
    }

    @Override
    Optional<String> ruleNamedBy(SQLException e) {
        String message = String.valueOf(e.getMessage());
        Matcher unique = UNIQUE.matcher(message);
        if (unique.find()) {
            return Optional.of("unique " + unique.group(1).strip());
        }
        for (Pattern pattern : List.of(NOT_NULL, CHECK)) {
            Matcher matcher = pattern.matcher(message);
            if (matcher.find()) {
                return Optional.of(matcher.group(1));
            }
        }
        // A null for the number of a row is a mismatch of types to this server.
        if (message.contains("FOREIGN KEY constraint failed") || message.contains("SQLITE_MISMATCH")) {
            return Optional.empty();
        }
        throw new IllegalStateException(e);
    }
}
