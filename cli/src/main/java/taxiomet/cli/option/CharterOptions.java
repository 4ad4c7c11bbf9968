package taxiomet.cli.option;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import taxiomet.charter.CharterException;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charters.Charters;
import taxiomet.charters.input.FileKind;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.input.ReadCharter;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.sources.FilesWatched;
import taxiomet.vet.Catalogue;

/** What commands ask about where a charter comes from: a file, a SQL schema, or the catalogue of a database. */
public final class CharterOptions {
    @Option(
            names = "--rows",
            paramLabel = "DIR",
            description = "With a SQL schema (.sql) as the charter: the folder that holds TABLE.csv for each table."
                    + " Default: the schema's own folder")
    private Path rows;

    @Mixin
    private DatabaseOptions database;

    private boolean isAgainst;

    /** The catalogue of a database that a charter is compared with. */
    public Catalogue against(String address, Terminal terminal) throws CharterException {
        if (!DatabaseAddress.isOfDatabase(address)) {
            throw new UsageException("--against " + address + ": the address of a database begins with jdbc:");
        }
        return database.catalogue(address, terminal);
    }

    /** Options about a database go with a charter that is compared with one, too. */
    public CharterOptions withAgainst(boolean isSo) {
        isAgainst = isSo;
        return this;
    }

    /** Reads the charter, or the schema or the catalogue that stands for one. */
    public ReadCharter read(Path file, Terminal terminal) throws CharterException {
        String address = FileKind.isSqlite(file) ? "jdbc:sqlite:" + file : DatabaseAddress.unmangled(file.toString());
        boolean isDatabase = DatabaseAddress.isOfDatabase(address);
        database.apply(terminal);
        if (rows != null && isDatabase) {
            throw new UsageException("--rows goes with a SQL schema (.sql); a database has its own rows");
        }
        if (rows != null && !InputFile.isSchema(file) && !InputFile.isStandardInput(file)) {
            throw new UsageException(
                    "--rows goes with a SQL schema (.sql); a charter names the rows of each table itself");
        }
        if (rows != null && DatabaseAddress.isOne(rows.toString())) {
            throw new UsageException("--rows " + DatabaseAddress.masked(rows.toString()) + ": "
                    + DatabaseAddress.PROBLEM + "; " + DatabaseAddress.REMEDY);
        }
        if (rows != null && !Files.isDirectory(rows)) {
            throw new UsageException("--rows " + rows + ": there is no such folder");
        }
        if (isDatabase) {
            terminal.files().reads(file);
            return database.charter(address, terminal);
        }
        if (!isAgainst) {
            database.requireNone();
        }
        terminal.files().reads(file);
        ReadCharter read = Charters.read(file, Optional.ofNullable(rows));
        read.charter().tables().forEach(table -> FilesWatched.of(table.rows()).forEach(terminal.files()::reads));
        if (!isAgainst) {
            database.requireNone(read.charter().tables());
        }
        return read;
    }
}
