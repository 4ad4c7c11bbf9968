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
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charters.Charters;
import taxiomet.charters.input.ReadCharter;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
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
            description = "With the address of a database: a file whose first line is the password.")
    private String passwordFile;

    @Option(
            names = "--driver",
            paramLabel = "FILE",
            description =
                    "With the address of a database: a .jar with its JDBC driver. Those of PostgreSQL, MariaDB, MySQL and"
                            + " SQLite are there.")
    private String driver;

    /** @throws UsageException when an option is given that goes with such an address alone */
    public void requireNone() {
        if (!schemas.isEmpty() || user != null || passwordFile != null || driver != null) {
            throw new UsageException((user != null
                            ? "--user"
                            : passwordFile != null ? "--password-file" : driver != null ? "--driver" : "--schema")
                    + " goes with the address of a database (jdbc:...)");
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

    private Database database(String address, Terminal terminal) {
        return new Database(
                address,
                Optional.ofNullable(user),
                password(address, terminal),
                Optional.ofNullable(passwordFile),
                Optional.ofNullable(driver));
    }

    private CatalogueScript script(Database database, Terminal terminal) {
        return CatalogueScript.of(
                database,
                folder(),
                name -> Optional.of(terminal.variable(name)).filter(value -> !value.isEmpty()),
                schemas);
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
    private Optional<String> password(String address, Terminal terminal) {
        if (passwordFile != null) {
            return Optional.empty();
        }
        Console console = System.console();
        if (terminal.variable(PASSWORD).isEmpty() && user != null && console != null && terminal.isWatched()) {
            char[] typed = console.readPassword(
                    "Password of %s at %s: ", user, Database.at(address).shown());
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
