package taxiomet.cli.option;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/** A file of SQLite where a charter is expected: its tables are read as those of an address. */
final class SqliteFile {
    /** What such a file begins with (SQLite, "Database File Format", 1.3). */
    private static final String HEAD = "SQLite format 3\0";

    private SqliteFile() {}

    static boolean isOne(Path file) {
        if (!Files.isRegularFile(file)) {
            return false;
        }
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(HEAD.length()), StandardCharsets.ISO_8859_1).equals(HEAD);
        } catch (IOException e) {
            // Whoever reads it as something else says why it cannot be read.
            return false;
        }
    }

    static String address(Path file) {
        return "jdbc:sqlite:" + file;
    }
}
