package taxiomet.cli.terminal;

import java.nio.file.Files;
import java.nio.file.Path;
import taxiomet.reports.OutputException;

/** The folder for temporary files. */
public final class TemporaryFolder {
    private TemporaryFolder() {}

    /** The folder that the environment names, which exists. */
    public static Path path() {
        Path folder = Path.of(System.getProperty("java.io.tmpdir"));
        if (!Files.isDirectory(folder)) {
            throw new OutputException(
                    folder.toString(),
                    "there is no such folder for temporary files",
                    "set TMPDIR to a folder that exists");
        }
        return folder;
    }
}
