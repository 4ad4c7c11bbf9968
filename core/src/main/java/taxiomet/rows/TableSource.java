package taxiomet.rows;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;

/** The rows of one table, wherever they stand. */
public interface TableSource extends AutoCloseable {
    /** The columns of the table that are there, in the order asked for when the source was opened. */
    List<String> columns();

    /** The name of a part (its file) for a person; the parts are numbered from 0. */
    String partName(int part);

    int partCount();

    /**
     * What is known of a column without reading it; empty where nothing is.
     *
     * @param column its place, as in {@link #columns}
     */
    default Optional<ColumnFacts> facts(int column) {
        return Optional.empty();
    }

    /**
     * What looks for rows where they live; empty where nothing does.
     *
     * @param table what is declared of it
     * @param charter of all tables
     * @param sources of all tables that are read in the run, by name
     */
    default Optional<Inside> inside(Table table, Charter charter, Map<String, TableSource> sources) {
        return Optional.empty();
    }

    /**
     * Which of some whole numbers stand in a column, where that can be told without reading it; empty where it cannot.
     *
     * @param column its place, as in {@link #columns}; of whole numbers
     */
    default Optional<Set<Long>> numbersIn(int column, Set<Long> sought) {
        return Optional.empty();
    }

    /** The table that these rows were found in, where they are not all of it. */
    default TableSource whole() {
        return this;
    }

    /** What is there beside the columns asked for; where each row has names of its own, all of it is known once all rows were read. */
    Undeclared undeclared();

    /** What is to be said of cells that are shown as one, as a clause; known when all rows were read, and empty where there are none. */
    default Optional<String> mergedCells() {
        return Optional.empty();
    }

    /** How many bytes there are to read in one pass; 0 when not known. */
    long bytes();

    /**
     * Begins a pass over the rows.
     *
     * @param columns places of the columns wanted, as in {@link #columns()}; the batches hold them in this order
     * @param rows which rows are wanted; others may come too. All rows must have been read once before some can be named
     */
    Scan scan(int[] columns, RefRanges rows);

    /** Hands over all rows in their order, on the calling thread; {@code columns} as for {@link #scan}. */
    default void read(int[] columns, RowSink sink) {
        try (Scan scan = scan(columns, RefRanges.ALL);
                Scan.BatchReader reader = scan.reader()) {
            for (RowBatch batch = reader.next(); batch != null; batch = reader.next()) {
                sink.accept(batch);
            }
        }
    }

    /**
     * Hands over single rows without reading the whole table again. Places are known once all rows were read.
     *
     * @param refs ascending
     * @param columns places of the columns wanted
     * @param sink gets the rows in their order, and those that are malformed among them
     * @throws SourceException when the rows cannot be read, or have changed since they were read first
     */
    void fetch(RefCursor refs, int[] columns, RowSink sink);

    /**
     * The cells of a malformed row, as far as they can be told: one for each of {@link #columns()}, null for those that cannot. No cells
     * where a source can tell none.
     *
     * @param raw the line that the row begins in
     */
    default List<String> likelyCells(long ref, String raw) {
        return List.of();
    }

    /** How many bytes of its files have been read in the current pass, for the sake of those who wait. */
    long bytesRead();

    /** How many lines without any field were passed over when all rows were read. */
    long emptyLines();

    @Override
    void close();
}
