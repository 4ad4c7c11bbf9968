package taxiomet.sources;

import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.rows.TableSource;
import taxiomet.sources.csv.CsvReading;
import taxiomet.sources.csv.CsvTableSource;

/** The way from a table of a charter to its rows. */
public final class RowSources {
    private RowSources() {}

    /**
     * Opens the rows of a table with all its declared columns.
     *
     * @throws taxiomet.rows.SourceException when a file is not there, cannot be read, or lacks a declared column
     */
    public static TableSource open(Table table) {
        return open(table, CsvReading.USUAL);
    }

    /** The same, with a say in how delimited text is read. */
    public static TableSource open(Table table, CsvReading reading) {
        return CsvTableSource.open(
                table.rows(), table.columns().stream().map(Column::name).toList(), reading);
    }
}
