package taxiomet.testing;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.rows.Undeclared;

/** Rows of a test, in one part or several, handed over a few at a time. */
public final class MemorySource implements TableSource {
    /** A row that cannot be taken apart; what follows it and a blank is what its line holds. */
    public static final String MALFORMED = "MALFORMED";

    private final List<String> columns;
    /** Part by part, the cells of each row; null for a malformed one. */
    private final List<List<String[]>> parts = new ArrayList<>();

    private final Map<Long, String> raw = new HashMap<>();
    private final int batchSize;
    private boolean isClosed;

    /**
     * @param rows cells with bars between them, {@code NULL} for null, {@link #MALFORMED} for a row that is none; a row {@code ---}
     *     begins the next part
     */
    public MemorySource(List<String> columns, List<String> rows, int batchSize) {
        this.columns = List.copyOf(columns);
        this.batchSize = batchSize;
        parts.add(new ArrayList<>());
        for (String row : rows) {
            if (row.equals("---")) {
                parts.add(new ArrayList<>());
            } else if (row.startsWith(MALFORMED)) {
                raw.put(RowRef.of(parts.size() - 1, parts.get(parts.size() - 1).size() + 1), row);
                parts.get(parts.size() - 1).add(null);
            } else {
                String[] cells = row.split("\\|", -1);
                if (cells.length != columns.size()) {
                    throw new IllegalArgumentException("a row of " + cells.length + " cells: " + row);
                }
                for (int i = 0; i < cells.length; i++) {
                    cells[i] = cells[i].equals("NULL") ? null : cells[i];
                }
                parts.get(parts.size() - 1).add(cells);
            }
        }
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return "part" + part;
    }

    @Override
    public int partCount() {
        return parts.size();
    }

    @Override
    public Undeclared undeclared() {
        return Undeclared.columns(List.of());
    }

    @Override
    public long bytes() {
        return parts.stream().mapToLong(List::size).sum() * 10;
    }

    @Override
    public List<String> likelyCells(long ref, String line) {
        String[] cells =
                Arrays.copyOf(line.substring(MALFORMED.length()).strip().split("\\|", -1), columns.size());
        return Arrays.asList(cells);
    }

    @Override
    public long bytesRead() {
        return 0;
    }

    @Override
    public long emptyLines() {
        return 0;
    }

    public boolean isClosed() {
        return isClosed;
    }

    private List<Long> refs() {
        List<Long> refs = new ArrayList<>();
        for (int part = 0; part < parts.size(); part++) {
            for (int row = 0; row < parts.get(part).size(); row++) {
                refs.add(RowRef.of(part, row + 1));
            }
        }
        return refs;
    }

    private void add(RowBatch batch, long ref, int[] wanted) {
        int row = (int) RowRef.row(ref) - 1;
        String[] cells = parts.get(RowRef.part(ref)).get(row);
        if (cells == null) {
            batch.addMalformed(new RowBatch.MalformedRow(ref, row + 2, "too few fields", raw.get(ref)));
            return;
        }
        for (int i = 0; i < wanted.length; i++) {
            if (cells[wanted[i]] == null) {
                batch.column(i).addNull();
            } else {
                batch.column(i).add(cells[wanted[i]]);
            }
        }
        batch.endRow(ref, row + 2, 10);
    }

    @Override
    public Scan scan(int[] wanted, RefRanges rows) {
        List<Long> refs = refs();
        AtomicInteger next = new AtomicInteger();
        return new Scan() {
            @Override
            public BatchReader reader() {
                RowBatch batch = new RowBatch(wanted.length);
                return new BatchReader() {
                    @Override
                    public RowBatch next() {
                        int run = next.getAndIncrement();
                        int from = run * batchSize;
                        if (from >= refs.size()) {
                            return null;
                        }
                        batch.clear();
                        batch.setNumber(run);
                        refs.subList(from, Math.min(refs.size(), from + batchSize))
                                .forEach(ref -> add(batch, ref, wanted));
                        return batch;
                    }

                    @Override
                    public void close() {
                        // Nothing is held.
                    }
                };
            }

            @Override
            public void close() {
                // Nothing is held.
            }
        };
    }

    @Override
    public void fetch(RefCursor refs, int[] wanted, RowSink sink) {
        RowBatch batch = new RowBatch(wanted.length);
        for (long ref = refs.next(); ref != RefCursor.END; ref = refs.next()) {
            batch.clear();
            add(batch, ref, wanted);
            sink.accept(batch);
        }
    }

    /** All rows of a source as texts, cells with bars between them. */
    public static List<String> rowsOf(TableSource source) {
        int[] all = new int[source.columns().size()];
        Arrays.setAll(all, i -> i);
        List<String> rows = new ArrayList<>();
        source.read(all, batch -> {
            for (int row = 0; row < batch.size(); row++) {
                List<String> cells = new ArrayList<>();
                for (int column = 0; column < batch.columnCount(); column++) {
                    cells.add(
                            batch.column(column).isNull(row)
                                    ? "NULL"
                                    : batch.column(column).text(row));
                }
                rows.add(String.join("|", cells));
            }
            batch.malformed().forEach(row -> rows.add(MALFORMED));
        });
        return rows;
    }

    @Override
    public void close() {
        isClosed = true;
    }
}
