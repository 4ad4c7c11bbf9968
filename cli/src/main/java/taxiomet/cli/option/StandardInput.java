package taxiomet.cli.option;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charters.input.InputFile;
import taxiomet.cli.terminal.TemporaryFolder;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.OutputException;

/** The rows of one table that standard input holds: kept in a temporary file for the run, since rows are read more than once. */
public final class StandardInput {
    private static final String PATH = "-";
    private static final String NAME = "standard_input";

    private final Terminal terminal;
    private Optional<Path> kept = Optional.empty();
    private String table = "";

    /** @param terminal lets go of the file at its end */
    public StandardInput(Terminal terminal) {
        this.terminal = terminal;
    }

    /** Whether a path stands for it. */
    public static boolean isNamed(Path path) {
        return path.toString().equals(PATH);
    }

    /** A table whose rows can be read: where they are those of standard input, from where they are kept. */
    Table readable(Table declared) {
        if (!(declared.rows() instanceof DelimitedFiles files) || !files.path().equals(PATH)) {
            return declared;
        }
        if (!table.isEmpty() && !table.equals(declared.name())) {
            throw new UsageException("standard input holds the rows of one table, and both " + table + " and "
                    + declared.name() + " name it");
        }
        table = declared.name();
        Path file = file();
        return declared.withRows(files.at(file.getParent(), file.getFileName().toString()));
    }

    /** A charter in which rows that are kept are those of standard input again. */
    public Charter told(Charter charter) {
        return charter.with(charter.tables().stream()
                .map(each -> each.withRows(told(each.rows())))
                .toList());
    }

    private RowsPlace told(RowsPlace rows) {
        boolean isKept = kept.isPresent() && rows.folder().resolve(rows.path()).equals(kept.get());
        return isKept && rows instanceof DelimitedFiles files
                ? files.at(Path.of("").toAbsolutePath(), PATH)
                : rows;
    }

    /** The file that holds all of it; it is read once. */
    public synchronized Path file() {
        if (kept.isPresent()) {
            return kept.get();
        }
        if (InputFile.isStandardInputRead()) {
            throw new UsageException(
                    "standard input holds the charter or the proposal already, and cannot hold rows, too");
        }
        try {
            Path folder = Files.createTempDirectory(TemporaryFolder.path(), "taxiomet-")
                    .toAbsolutePath();
            Path file = folder.resolve(NAME);
            terminal.atEnd(() -> remove(file));
            Files.copy(System.in, file);
            kept = Optional.of(file);
            return file;
        } catch (IOException e) {
            throw new OutputException(
                    TemporaryFolder.path().toString(),
                    "standard input cannot be kept there (" + e.getMessage() + ")",
                    "set TMPDIR to a folder with more room");
        }
    }

    private static void remove(Path file) {
        try {
            Files.deleteIfExists(file);
            Files.deleteIfExists(file.getParent());
        } catch (IOException e) {
            // What is left in a folder for temporary files harms nobody.
            return;
        }
    }
}
