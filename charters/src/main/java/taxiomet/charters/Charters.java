package taxiomet.charters;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Condition;
import taxiomet.charter.Problem;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charters.csvw.MetadataReader;
import taxiomet.charters.ddl.SchemaReader;
import taxiomet.charters.input.FileKind;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.input.Place;
import taxiomet.charters.input.ReadCharter;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.charters.sql.ExpressionReader;
import taxiomet.charters.yaml.CharterReader;

/** The way from a file to a charter. */
public final class Charters {
    /** A charter is written by hand; a larger file is something else. */
    private static final long MAX_BYTES = 2_000_000;

    private Charters() {}

    /**
     * Reads a charter in YAML, in JSON where the file's name ends in {@code .json}, metadata in the W3C's vocabulary (CSVW), or a SQL
     * schema where the name ends in {@code .sql}.
     *
     * @param rows for a schema the folder with the rows of its tables; empty for the schema's own
     * @throws CharterException with all problems when the file cannot be read or its charter cannot be used
     */
    public static ReadCharter read(Path file, Optional<Path> rows) throws CharterException {
        byte[] bytes = bytes(file);
        if (!InputFile.isSchema(file, bytes)) {
            if (rows.isPresent()) {
                throw unusable(file, "it is a charter, which names the rows of each table itself", "leave out --rows");
            }
            return InputFile.isJson(file, bytes) && MetadataReader.isMetadata(bytes)
                    ? MetadataReader.read(file, bytes)
                    : CharterReader.read(file, bytes);
        }
        Path folder = rows.orElseGet(() -> file.toAbsolutePath().getParent());
        return SchemaReader.read(file, new String(bytes, StandardCharsets.UTF_8), folder);
    }

    /**
     * Makes a charter of what a database's catalogue declares.
     *
     * @param name what it is called in messages
     * @param script the catalogue as CREATE and ALTER statements
     * @param server whose behaviour the charter follows, where it is one that is rehearsed
     * @param rows gives the place of a table's rows
     * @throws CharterException with all problems
     */
    public static ReadCharter ofCatalogue(String name, String script, Server server, Function<Table, RowsPlace> rows)
            throws CharterException {
        ReadCharter read = SchemaReader.read(Path.of(name), script, Path.of("").toAbsolutePath());
        Charter declared = read.charter();
        List<Table> tables = declared.tables().stream()
                .map(table -> table.withRows(rows.apply(table)))
                .toList();
        Charter whole = new Charter(
                name,
                tables,
                server.isRehearsed() ? server : Server.STANDARD,
                Charter.ordered(declared.with(tables).links(), declared.linkOrder()),
                declared.notRead());
        // Lines of the script are nobody's: a declaration is named by its table.
        return new ReadCharter(
                whole, path -> new Place(path.size() > 1 ? name + ", " + path.get(1) : name, 0, 0), read.remarks());
    }

    /**
     * Reads a condition over the rows of a table.
     *
     * @throws ExpressionException when it cannot be read, or asks for other tables
     */
    public static Condition condition(Charter charter, String table, String sql) throws ExpressionException {
        Map<String, Table> tables = charter.tables().stream().collect(Collectors.toMap(Table::name, each -> each));
        return new Condition(sql, new ExpressionReader(table, tables, Set.of()).readOwnCondition(sql));
    }

    private static byte[] bytes(Path file) throws CharterException {
        try {
            if (InputFile.isStandardInput(file)) {
                byte[] bytes = InputFile.bytes(file);
                if (bytes.length > MAX_BYTES) {
                    throw tooLarge(file);
                }
                return bytes;
            }
            if (DatabaseAddress.isOne(file.toString())) {
                throw new CharterException(List.of(new Problem(
                        DatabaseAddress.masked(file.toString()),
                        0,
                        0,
                        Problem.Kind.FORM,
                        DatabaseAddress.PROBLEM,
                        DatabaseAddress.REMEDY)));
            }
            if (Files.isDirectory(file)) {
                throw unusable(
                        file, "this is a folder", "name the charter in it, such as " + file.resolve("charter.yaml"));
            }
            if (!Files.isRegularFile(file) && Files.exists(file)) {
                throw unusable(file, "this is no ordinary file", "write the charter to a file first");
            }
            Optional<String> other = FileKind.other(file);
            if (other.isPresent()) {
                throw unusable(
                        file,
                        "this is " + other.get() + ", and no charter",
                        "`taxiomet survey " + file + " --write-charter charter.yaml` drafts a charter for its tables");
            }
            if (Files.size(file) > MAX_BYTES) {
                throw tooLarge(file);
            }
            return InputFile.bytes(file);
        } catch (NoSuchFileException e) {
            throw unusable(
                    file, "there is no such file", "name the charter, or go to the folder that holds charter.yaml");
        } catch (IOException e) {
            throw unusable(file, "the file cannot be read (" + e.getMessage() + ")", "");
        }
    }

    private static CharterException tooLarge(Path file) {
        return unusable(file, "the file is larger than any charter (2 MB)", "name the charter, not the data");
    }

    private static CharterException unusable(Path file, String problem, String remedy) {
        return new CharterException(
                List.of(new Problem(InputFile.name(file), 0, 0, Problem.Kind.FORM, problem, remedy)));
    }
}
