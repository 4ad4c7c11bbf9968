package taxiomet.survey;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import taxiomet.rows.RowBatch;
import taxiomet.rows.TableSource;
import taxiomet.values.CellColumn;

/** Reads a table once and profiles its columns. It serves one thread. */
final class TableProfiler {
    private final FoundTable table;
    private final Classifier classifier = new Classifier();
    private final List<ColumnProfiler> columns;
    private final List<RowSample> rowSamples = new ArrayList<>();
    private final boolean[] isAscending;
    private final long[] previous;
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
        isAscending = new boolean[width];
        java.util.Arrays.fill(isAscending, true);
        previous = new long[width];
        java.util.Arrays.fill(previous, Long.MIN_VALUE);
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
            ColumnProfiler profiler = columns.get(c);
            CellColumn cells = batch.column(c);
            for (int row = 0; row < size; row++) {
                long hash = profiler.add(cells, row);
                hashes[row * width + c] = hash;
                if (hash != 0) {
                    isAscending[c] &= classifier.high() > previous[c];
                    previous[c] = classifier.high();
                }
            }
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

    boolean[] isAscending() {
        return isAscending.clone();
    }
}
