package taxiomet.cli.option;

import java.io.Console;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Option;
import taxiomet.charter.CharterException;
import taxiomet.charter.Column;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charters.Charters;
import taxiomet.charters.input.ReadCharter;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.trust.AllowedDatabases;
import taxiomet.cli.trust.PasswordFile;
import taxiomet.sources.jdbc.CatalogueScript;
import taxiomet.vet.Catalogue;

/** What commands ask about a database whose address stands on the command line. */
public final class DatabaseOptions {
    /** Holds the password of a database that an address on the command line names. */
    private static final String PASSWORD = "TAXIOMET_PASSWORD";

    @Option(
            names = "--schema",
            paramLabel = "NAME",
            description = "With the address of a database (jdbc:...) as the charter: the schema whose tables are meant."
                    + " Can be repeated. Default: that of the connection")
    private List<String> schemas = List.of();

    @Option(
            names = "--user",
            paramLabel = "NAME",
            description = "With the address of a database: the user. The password is taken from the variable "
                    + PASSWORD + ", or asked for.")
    private String user;

    @Option(
            names = "--password-file",
            paramLabel = "FILE",
            description = "With the address of a database: a file whose first line is the password, or a pipe.")
    private String passwordFile;

    @Option(
            names = "--driver",
            paramLabel = "FILE",
            description =
                    "A .jar with the JDBC driver of a database. Those of PostgreSQL, MariaDB, MySQL and SQLite are there; others"
                            + " can also lie in the folder taxiomet/drivers of your settings.")
    private String driver;

    @Option(
            names = AllowedDatabases.OPTION,
            paramLabel = "ADDRESS",
            description =
                    "Connect to this address of a database that the charter names, with what the charter says is sent there."
                            + " Can be repeated. On a terminal you are asked, once.")
    private List<String> allowed = List.of();

    /** Says for the run what these options say of drivers and addresses. */
    void apply(Terminal terminal) {
        AllowedDatabases.allow(terminal, allowed, Optional.ofNullable(driver));
    }

    /** @throws UsageException when an option is given that goes with such an address alone */
    public void requireNone() {
        if (!schemas.isEmpty() || user != null || passwordFile != null) {
            throw new UsageException((user != null ? "--user" : passwordFile != null ? "--password-file" : "--schema")
                    + " goes with the address of a database (jdbc:...)");
        }
    }

    /** @throws UsageException when an option is given that goes with tables in a database, and there are none */
    public void requireNone(List<Table> tables) {
        boolean isAny = tables.stream().anyMatch(table -> table.rows() instanceof DatabaseRows);
        if (!isAny && (driver != null || !allowed.isEmpty())) {
            throw new UsageException((driver != null ? "--driver" : AllowedDatabases.OPTION)
                    + " goes with rows in a database, and there are none");
        }
    }

    /**
     * What the catalogue of a database declares, with the rows of its tables in it.
     *
     * @param address as JDBC has it
     */
    public ReadCharter charter(String address, Terminal terminal) throws CharterException {
        Database database = database(address, terminal);
        return charter(database, script(database, terminal));
    }

    /** The same, with what is declared there and not held by all rows. */
    Catalogue catalogue(String address, Terminal terminal) throws CharterException {
        Database database = database(address, terminal);
        CatalogueScript script = script(database, terminal);
        return new Catalogue(charter(database, script).charter(), script.unheld());
    }

    private Database database(String text, Terminal terminal) {
        apply(terminal);
        try {
            DatabaseAddress address = DatabaseAddress.of(text);
            return new Database(
                    address,
                    Optional.ofNullable(user),
                    address.isOfServer() ? password(address, terminal) : Optional.empty(),
                    Optional.empty(),
                    false,
                    false);
        } catch (DatabaseAddress.Unusable e) {
            throw new UsageException(DatabaseAddress.masked(text) + ": " + e.getMessage() + "; " + e.remedy());
        }
    }

    private CatalogueScript script(Database database, Terminal terminal) {
        return CatalogueScript.of(database, folder(), new AllowedDatabases(terminal), schemas);
    }

    private static Path folder() {
        return Path.of("").toAbsolutePath();
    }

    private static ReadCharter charter(Database database, CatalogueScript script) throws CharterException {
        return Charters.ofCatalogue(
                database.shown(),
                script.sql(),
                script.server(),
                table -> new DatabaseRows(
                        folder(),
                        database,
                        relation(table),
                        false,
                        table.primaryKey()
                                .map(Key::columns)
                                .orElse(table.columns().stream()
                                        .map(Column::name)
                                        .toList())));
    }

    // Later versions of Java give a console that is none: whether somebody watches is known otherwise.
    @SuppressWarnings("SystemConsoleNull")
    private Optional<String> password(DatabaseAddress address, Terminal terminal) {
        if (passwordFile != null) {
            terminal.setVariable(PASSWORD, PasswordFile.read(Path.of(passwordFile)));
        } else if (terminal.secretOf(address.shown()).isPresent()) {
            return terminal.secretOf(address.shown());
        }
        Optional<String> name = Optional.ofNullable(user).or(address::user);
        Console console = System.console();
        if (terminal.variable(PASSWORD).isEmpty() && name.isPresent() && console != null && terminal.isWatched()) {
            char[] typed = console.readPassword("Password of %s at %s: ", name.get(), address.shown());
            if (typed != null && typed.length > 0) {
                terminal.setVariable(PASSWORD, new String(typed));
            }
        }
        return terminal.variable(PASSWORD).isEmpty() ? Optional.empty() : Optional.of("${" + PASSWORD + "}");
    }

    private static String relation(Table table) {
        return Stream.concat(table.schema().stream(), Stream.of(table.name()))
                .map(part -> part.matches("[^.\"]+") ? part : '"' + part.replace("\"", "\"\"") + '"')
                .collect(Collectors.joining("."));
    }
}
