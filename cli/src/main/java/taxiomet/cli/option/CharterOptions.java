package taxiomet.cli.option;

import java.io.Console;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Option;
import taxiomet.charter.CharterException;
import taxiomet.charter.Column;
import taxiomet.charter.Database;
import taxiomet.charter.DatabaseAddress;
import taxiomet.charter.DatabaseRows;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.input.ReadCharter;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.sources.jdbc.CatalogueScript;

/** What commands ask about where a charter comes from: a file, a SQL schema, or the catalogue of a database. */
public final class CharterOptions {
    /** Holds the password of a database that an address on the command line names. */
    private static final String PASSWORD = "TAXIOMET_PASSWORD";

    @Option(
            names = "--rows",
            paramLabel = "DIR",
            description = "With a SQL schema (.sql) as the charter: the folder that holds TABLE.csv for each table."
                    + " Default: the schema's own folder")
    private Path rows;

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

    /** Reads the charter, or the schema or the catalogue that stands for one. */
    public ReadCharter read(Path file, Terminal terminal) throws CharterException {
        String address = DatabaseAddress.shown(file.toString());
        boolean isDatabase = Database.isAddress(address);
        if (rows != null && isDatabase) {
            throw new UsageException("--rows goes with a SQL schema (.sql); a database has its own rows");
        }
        if (rows != null && !InputFile.isSchema(file) && !InputFile.isStandardInput(file)) {
            throw new UsageException(
                    "--rows goes with a SQL schema (.sql); a charter names the rows of each table itself");
        }
        if (rows != null && DatabaseAddress.isOne(rows.toString())) {
            throw new UsageException("--rows " + rows + ": " + DatabaseAddress.PROBLEM + "; " + DatabaseAddress.REMEDY);
        }
        if (rows != null && !Files.isDirectory(rows)) {
            throw new UsageException("--rows " + rows + ": there is no such folder");
        }
        if (isDatabase) {
            return ofDatabase(address, terminal);
        }
        if (!schemas.isEmpty() || user != null || passwordFile != null) {
            throw new UsageException((user != null ? "--user" : passwordFile != null ? "--password-file" : "--schema")
                    + " goes with the address of a database (jdbc:...) in place of a charter");
        }
        return Charters.read(file, Optional.ofNullable(rows));
    }

    private ReadCharter ofDatabase(String address, Terminal terminal) throws CharterException {
        Path folder = Path.of("").toAbsolutePath();
        Database database = new Database(
                address,
                Optional.ofNullable(user),
                password(address, terminal),
                Optional.ofNullable(passwordFile),
                false);
        CatalogueScript catalogue = CatalogueScript.of(
                database,
                folder,
                name -> Optional.of(terminal.variable(name)).filter(value -> !value.isEmpty()),
                schemas);
        return Charters.ofCatalogue(
                database.shown(),
                catalogue.sql(),
                catalogue.server(),
                table -> new DatabaseRows(
                        folder,
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
