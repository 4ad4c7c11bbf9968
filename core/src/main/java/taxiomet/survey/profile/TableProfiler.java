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
    /** Of each column those of a batch; 0 for null. */
    private final long[][] hashes;

    private long rows;
    private long malformed;

    private TableProfiler(FoundTable table, SampleSizes sizes) {
        this.table = table;
        Classifier classifier = new Classifier();
        this.columns = table.columns().stream()
                .map(name -> new ColumnProfiler(name, classifier, sizes.values()))
                .toList();
        int width = columns.size();
        this.hashes = new long[width][0];
        for (int lead = 0; lead < width; lead++) {
            rowSamples.add(new RowSample(width, lead, sizes.rows(width)));
        }
    }

    /** Reads a table once, with several threads, and profiles its columns. */
    public static TableProfile profile(FoundTable table, TableSource source, SampleSizes sizes, int threads) {
        return profile(
                table, source, sizes, IntStream.range(0, table.columns().size()).toArray(), threads);
    }

    /**
     * Reads the first rows of a table: so many of them, and those that come with them in one run.
     *
     * @param most how many, at least 1
     */
    public static TableProfile profileFirst(FoundTable table, TableSource source, SampleSizes sizes, long most) {
        int[] all = IntStream.range(0, table.columns().size()).toArray();
        TableProfiler part = new TableProfiler(table, sizes);
        boolean isSampled;
        try (Scan scan = source.scan(all, RefRanges.ALL);
                Scan.BatchReader reader = scan.reader()) {
            RowBatch batch = reader.next();
            while (batch != null && part.rows < most) {
                part.add(batch, all);
                batch = reader.next();
            }
            isSampled = batch != null;
        }
        return new TableProfile(part, part.rows, part.malformed, isSampled);
    }

    /**
     * Reads some columns of a table whole; what is said of the others means nothing.
     *
     * @param columns places of them, ascending
     */
    public static TableProfile profile(
            FoundTable table, TableSource source, SampleSizes sizes, int[] columns, int threads) {
        List<TableProfiler> parts = new ArrayList<>();
        try (Scan scan = source.scan(columns, RefRanges.ALL)) {
            Workers.run(threads, "survey", workers -> {
                TableProfiler part = new TableProfiler(table, sizes);
                try (Scan.BatchReader reader = scan.reader()) {
                    RowBatch batch = reader.next();
                    while (batch != null && !workers.haveFailed()) {
                        part.add(batch, columns);
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
        return new TableProfile(whole, whole.rows, whole.malformed, false);
    }

    private void add(RowBatch batch, int[] read) {
        int size = batch.size();
        for (int c = 0; c < hashes.length; c++) {
            hashes[c] = hashes[c].length < size ? new long[size] : hashes[c];
        }
        for (int i = 0; i < read.length; i++) {
            columns.get(read[i]).addAll(batch.column(i), size, batch.number(), hashes[read[i]]);
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
