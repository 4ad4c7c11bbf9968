package taxiomet.sources;

import java.util.List;
import java.util.function.Function;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.FixedWidth;
import taxiomet.charter.place.JsonItems;
import taxiomet.charter.place.JsonLines;
import taxiomet.charter.place.ParquetRows;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SqliteRows;
import taxiomet.rows.TableSource;
import taxiomet.sources.csv.CsvTableSource;
import taxiomet.sources.fixed.FixedWidthSource;
import taxiomet.sources.jdbc.DatabaseAccess;
import taxiomet.sources.jdbc.DatabaseSessions;
import taxiomet.sources.jdbc.JdbcSource;
import taxiomet.sources.json.JsonItemsSource;
import taxiomet.sources.json.JsonLinesSource;
import taxiomet.sources.parquet.ParquetSource;
import taxiomet.sources.sheet.SheetSource;
import taxiomet.sources.sqlite.SqliteSource;

/** The registry of sources: the way from a table of a charter to its rows, one line for each kind of place. */
public final class RowSources {
    private static final List<Opener<?>> ALL = List.of(
            new Opener<>(
                    DelimitedFiles.class,
                    wanted -> CsvTableSource.open(wanted.rows, wanted.columns, wanted.chunkBytes, !wanted.isPersonal)),
            new Opener<>(
                    JsonLines.class, wanted -> JsonLinesSource.open(wanted.rows, wanted.columns, wanted.chunkBytes)),
            new Opener<>(JsonItems.class, wanted -> JsonItemsSource.open(wanted.rows, wanted.columns)),
            new Opener<>(FixedWidth.class, wanted -> FixedWidthSource.open(wanted.rows, wanted.columns)),
            new Opener<>(SqliteRows.class, wanted -> SqliteSource.open(wanted.rows, wanted.columns)),
            new Opener<>(ParquetRows.class, wanted -> ParquetSource.open(wanted.rows, wanted.columns)),
            new Opener<>(SheetRows.class, wanted -> SheetSource.open(wanted.rows, wanted.columns)),
            new Opener<>(
                    DatabaseRows.class,
                    wanted -> JdbcSource.open(wanted.rows, wanted.columns, wanted.sessions, wanted.isPersonal)));

    private RowSources() {}

    /** What is to be opened: rows in a place of one kind, some of whose values may not be told. */
    private record Wanted<P extends RowsPlace>(
            P rows, List<String> columns, int chunkBytes, boolean isPersonal, DatabaseSessions sessions) {}

    /** Opens rows that live in places of one kind. */
    private record Opener<P extends RowsPlace>(Class<P> kind, Function<Wanted<P>, TableSource> open) {
        TableSource open(
                RowsPlace rows, List<String> columns, int chunkBytes, boolean isPersonal, DatabaseSessions sessions) {
            return open.apply(new Wanted<>(kind.cast(rows), columns, chunkBytes, isPersonal, sessions));
        }
    }

    /**
     * Opens the rows of a table with all its declared columns.
     *
     * @throws taxiomet.rows.SourceException when a file is not there, cannot be read, or lacks a declared column
     */
    public static TableSource open(Table table) {
        return open(table, CsvTableSource.USUAL_CHUNK);
    }

    /** The same, of a table that lives in no database. */
    public static TableSource open(Table table, int chunkBytes) {
        return open(table, chunkBytes, new DatabaseSessions(DatabaseAccess.none()));
    }

    /**
     * The same, with a say in how text is read.
     *
     * @param chunkBytes how many bytes a thread takes in one go, at least 1
     * @param sessions with the databases of the run; whoever made them closes them
     */
    public static TableSource open(Table table, int chunkBytes, DatabaseSessions sessions) {
        List<String> columns = table.columns().stream().map(Column::name).toList();
        return ALL.stream()
                .filter(opener -> opener.kind.isInstance(table.rows()))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException("no source for " + table.rows()))
                .open(
                        table.rows(),
                        columns,
                        chunkBytes,
                        table.columns().stream().anyMatch(Column::isPersonal),
                        sessions);
    }
}
