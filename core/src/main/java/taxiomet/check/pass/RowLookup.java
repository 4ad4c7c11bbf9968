package taxiomet.check.pass;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import taxiomet.charter.Table;
import taxiomet.finding.Evidence;
import taxiomet.finding.Hint;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowBatch.MalformedRow;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;

/** Rows of one table by their references, with all their declared columns. */
public final class RowLookup {
    private final TableSource source;
    private final int[] columns;

    /** A row as it stands in its file; without values when it is malformed. */
    public record FoundRow(long ref, String part, long line, List<String> values, String raw) {
        public Evidence evidence(String problem) {
            return evidence(0, problem, Optional.empty(), List.of());
        }

        public Evidence evidence(Optional<Hint> hint) {
            return evidence(0, "", hint, List.of());
        }

        /** @param differsIn what is different from the first row of the group */
        public Evidence evidence(long group, String problem, List<String> differsIn) {
            return evidence(group, problem, Optional.empty(), differsIn);
        }

        private Evidence evidence(long group, String problem, Optional<Hint> hint, List<String> differsIn) {
            return new Evidence(part, RowRef.row(ref), line, values, group, problem, hint, differsIn, raw);
        }
    }

    /** @param source the rows of the table with all its declared columns */
    public RowLookup(Table table, TableSource source) {
        this.source = source;
        this.columns = IntStream.range(0, table.columns().size()).toArray();
    }

    /** The rows of a few references, by reference. */
    public Map<Long, FoundRow> find(SortedSet<Long> refs) {
        Map<Long, FoundRow> found = new HashMap<>();
        forEach(RefCursor.of(refs.stream().mapToLong(Long::longValue).iterator()), row -> found.put(row.ref(), row));
        return found;
    }

    /** The rows of ascending references, each once, in their order. */
    public void forEach(RefCursor refs, Consumer<FoundRow> reader) {
        source.fetch(refs, columns, batch -> handOver(batch, reader));
    }

    private void handOver(RowBatch batch, Consumer<FoundRow> reader) {
        int nextMalformed = 0;
        List<MalformedRow> malformed = batch.malformed();
        for (int row = 0; row < batch.size(); row++) {
            while (nextMalformed < malformed.size()
                    && malformed.get(nextMalformed).ref() < batch.ref(row)) {
                handOver(malformed.get(nextMalformed++), reader);
            }
            String[] values = new String[columns.length];
            for (int i = 0; i < values.length; i++) {
                values[i] = batch.column(i).text(row);
            }
            long ref = batch.ref(row);
            reader.accept(new FoundRow(ref, partName(ref), batch.line(row), Arrays.asList(values), ""));
        }
        while (nextMalformed < malformed.size()) {
            handOver(malformed.get(nextMalformed++), reader);
        }
    }

    private void handOver(MalformedRow row, Consumer<FoundRow> reader) {
        reader.accept(new FoundRow(row.ref(), partName(row.ref()), row.line(), List.of(), row.raw()));
    }

    /** The cells of a row; of a malformed one as far as they can be told, and none where none can. */
    public List<String> cellsOf(FoundRow row) {
        return row.values().isEmpty() ? source.likelyCells(row.ref(), row.raw()) : row.values();
    }

    private String partName(long ref) {
        return source.partName(RowRef.part(ref));
    }
}
