package taxiomet.charter.place;

import java.nio.file.Path;

/** Where the rows of a table live. */
public sealed interface RowsPlace
        permits DelimitedFiles, FixedWidth, JsonLines, JsonItems, SqliteRows, SheetRows, ParquetRows, DatabaseRows {
    /** Where paths start: the charter's own folder. */
    Path folder();

    /** The path of the file, or a glob for several, from {@link #folder} on. */
    String path();
}
