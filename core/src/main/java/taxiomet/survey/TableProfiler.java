package taxiomet.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import taxiomet.rows.RowBatch;
import taxiomet.rows.TableSource;

/** Reads a table once and profiles its columns. It serves one thread. */
final class TableProfiler {
    private final FoundTable table;
    private final Classifier classifier = new Classifier();
    private final List<ColumnProfiler> columns;
    private final List<RowSample> rowSamples = new ArrayList<>();
    private long rows;
    private long malformed;

    TableProfiler(FoundTable table) {
        this.table = table;
        this.columns = table.columns().stream()
                .map(name -> new ColumnProfiler(name, classifier))
                .toList();
        int width = columns.size();
        for (int lead = 0; lead < width; lead++) {
            rowSamples.add(new RowSample(width, lead));
        }
    }

    TableProfile profile(TableSource source) {
        int[] all = IntStream.range(0, columns.size()).toArray();
        source.read(all, this::add);
        return new TableProfile(this, rows, malformed);
    }

    private void add(RowBatch batch) {
        int width = columns.size();
        int size = batch.size();
        long[] hashes = new long[size * width];
        for (int c = 0; c < width; c++) {
            columns.get(c).addAll(batch.column(c), size, hashes, c, width);
        }
        long[] row = new long[width];
        for (int r = 0; r < size; r++) {
            System.arraycopy(hashes, r * width, row, 0, width);
            for (RowSample sample : rowSamples) {
                sample.add(row);
            }
        }
        rows += size + batch.malformed().size();
        malformed += batch.malformed().size();
    }

    FoundTable table() {
        return table;
    }

    List<ColumnProfiler> columns() {
        return columns;
    }

    List<RowSample> rowSamples() {
        return rowSamples;
    }
}
