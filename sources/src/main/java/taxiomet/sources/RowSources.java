package taxiomet.sources;

import java.util.List;
import java.util.function.Function;
import taxiomet.charter.Column;
import taxiomet.charter.DelimitedFiles;
import taxiomet.charter.JsonLines;
import taxiomet.charter.RowsPlace;
import taxiomet.charter.SqliteRows;
import taxiomet.charter.Table;
import taxiomet.rows.TableSource;
import taxiomet.sources.csv.CsvTableSource;
import taxiomet.sources.jsonl.JsonLinesSource;
import taxiomet.sources.sqlite.SqliteSource;

/** The registry of sources: the way from a table of a charter to its rows, one line for each kind of place. */
public final class RowSources {
    private static final List<Opener<?>> ALL = List.of(
            new Opener<>(
                    DelimitedFiles.class,
                    wanted -> CsvTableSource.open(wanted.rows, wanted.columns, wanted.chunkBytes, !wanted.isPersonal)),
            new Opener<>(
                    JsonLines.class, wanted -> JsonLinesSource.open(wanted.rows, wanted.columns, wanted.chunkBytes)),
            new Opener<>(SqliteRows.class, wanted -> SqliteSource.open(wanted.rows, wanted.columns)));

    private RowSources() {}

    /** What is to be opened: rows in a place of one kind, some of whose values may not be told. */
    private record Wanted<P extends RowsPlace>(P rows, List<String> columns, int chunkBytes, boolean isPersonal) {}

    /** Opens rows that live in places of one kind. */
    private record Opener<P extends RowsPlace>(Class<P> kind, Function<Wanted<P>, TableSource> open) {
        TableSource open(RowsPlace rows, List<String> columns, int chunkBytes, boolean isPersonal) {
            return open.apply(new Wanted<>(kind.cast(rows), columns, chunkBytes, isPersonal));
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

    /**
     * The same, with a say in how text is read.
     *
     * @param chunkBytes how many bytes a thread takes in one go, at least 1
     */
    public static TableSource open(Table table, int chunkBytes) {
        List<String> columns = table.columns().stream().map(Column::name).toList();
        return ALL.stream()
                .filter(opener -> opener.kind.isInstance(table.rows()))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException("no source for " + table.rows()))
                .open(
                        table.rows(),
                        columns,
                        chunkBytes,
                        table.columns().stream().anyMatch(Column::isPersonal));
    }
}
