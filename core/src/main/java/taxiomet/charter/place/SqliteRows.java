package taxiomet.charter.place;

import java.nio.file.Path;
import java.util.regex.Pattern;

/**
 * Rows of a table or view in an SQLite database.
 *
 * @param path of the database's file
 * @param table the name of the table or view in it
 */
public record SqliteRows(Path folder, String path, String table) implements RowsPlace {
    private static final Pattern NAMES =
            Pattern.compile(".+\\.(?:db|sqlite|sqlite3)", Pattern.CASE_INSENSITIVE | Pattern.DOTALL);

    /** Whether a file is such a database by its name or path. */
    public static boolean isNamedSo(String file) {
        return NAMES.matcher(file).matches();
    }
}
