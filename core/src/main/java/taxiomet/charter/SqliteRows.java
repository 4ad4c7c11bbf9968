package taxiomet.charter;

import java.nio.file.Path;

/**
 * Rows of a table or view in an SQLite database.
 *
 * @param path of the database's file
 * @param table the name of the table or view in it
 */
public record SqliteRows(Path folder, String path, String table) implements RowsPlace {}
