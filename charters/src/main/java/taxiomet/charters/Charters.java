package taxiomet.charters;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charters.yaml.CharterReader;

/** The way from a file to a charter. */
public final class Charters {
    /** A charter is written by hand; a larger file is something else. */
    private static final long MAX_BYTES = 2_000_000;

    private Charters() {}

    /**
     * Reads a charter in YAML, or in JSON where the file's name ends in {@code .json}.
     *
     * @throws CharterException with all problems when the file cannot be read or its charter cannot be used
     */
    public static ReadCharter read(Path file) throws CharterException {
        byte[] bytes;
        try {
            if (Files.isDirectory(file)) {
                throw unusable(
                        file, "this is a folder", "name the charter in it, such as " + file.resolve("charter.yaml"));
            }
            if (!Files.isRegularFile(file) && Files.exists(file)) {
                throw unusable(file, "this is no ordinary file", "write the charter to a file first");
            }
            if (Files.size(file) > MAX_BYTES) {
                throw unusable(file, "the file is larger than any charter (2 MB)", "name the charter, not the data");
            }
            bytes = Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw unusable(
                    file, "there is no such file", "name the charter, or go to the folder that holds charter.yaml");
        } catch (IOException e) {
            throw unusable(file, "the file cannot be read (" + e.getMessage() + ")", "");
        }
        return CharterReader.read(file, bytes);
    }

    private static CharterException unusable(Path file, String problem, String remedy) {
        return new CharterException(List.of(new Problem(file.toString(), 0, 0, Problem.Kind.FORM, problem, remedy)));
    }
}
