package taxiomet.survey.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.work.Workers;

/** Profiles the columns of some rows of a table. It serves one thread; what several have seen of one table is brought together. */
public final class TableProfiler {
    private final FoundTable table;
    private final List<ColumnProfiler> columns;
    private final List<RowSample> rowSamples = new ArrayList<>();
    private long[] hashes = new long[0];
    private long rows;
    private long malformed;

    private TableProfiler(FoundTable table, SampleSizes sizes) {
        this.table = table;
        Classifier classifier = new Classifier();
        this.columns = table.columns().stream()
                .map(name -> new ColumnProfiler(name, classifier, sizes.values()))
                .toList();
        int width = columns.size();
        for (int lead = 0; lead < width; lead++) {
            rowSamples.add(new RowSample(width, lead, sizes.rows(width)));
        }
    }

    /** Reads a table once, with several threads, and profiles its columns. */
    public static TableProfile profile(FoundTable table, TableSource source, SampleSizes sizes, int threads) {
        int[] all = IntStream.range(0, table.columns().size()).toArray();
        List<TableProfiler> parts = new ArrayList<>();
        try (Scan scan = source.scan(all, RefRanges.ALL)) {
            Workers.run(threads, "survey", workers -> {
                TableProfiler part = new TableProfiler(table, sizes);
                try (Scan.BatchReader reader = scan.reader()) {
                    RowBatch batch = reader.next();
                    while (batch != null && !workers.haveFailed()) {
                        part.add(batch);
                        batch = reader.next();
                    }
                }
                synchronized (parts) {
                    parts.add(part);
                }
            });
        }
        TableProfiler whole = parts.get(0);
        parts.subList(1, parts.size()).forEach(whole::merge);
        return new TableProfile(whole, whole.rows, whole.malformed);
    }

    private void add(RowBatch batch) {
        int width = columns.size();
        int size = batch.size();
        if (hashes.length < size * width) {
            hashes = new long[size * width];
        }
        for (int c = 0; c < width; c++) {
            columns.get(c).addAll(batch.column(c), size, batch.number(), hashes, c, width);
        }
        for (RowSample sample : rowSamples) {
            sample.addAll(hashes, size);
        }
        rows += size + batch.malformed().size();
        malformed += batch.malformed().size();
    }

    private void merge(TableProfiler other) {
        for (int c = 0; c < columns.size(); c++) {
            columns.get(c).merge(other.columns.get(c));
            rowSamples.get(c).merge(other.rowSamples.get(c));
        }
        rows += other.rows;
        malformed += other.malformed;
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
