package taxiomet.settle.sift;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Consumer;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.pass.RowLookup;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.finding.settled.SiftResult.AsideRow;
import taxiomet.finding.settled.SiftResult.CauseRow;
import taxiomet.finding.settled.SiftResult.Reason;
import taxiomet.rows.RowRef;

/** The rows that are set aside, called by their keys, and the rows that caused it. */
public final class AsideList {
    /** Rows are fetched so many at a time. */
    private static final int ROWS_AT_ONCE = 20_000;

    private final Charter charter;
    private final Sift sift;
    private final Map<String, RowLookup> lookups = new HashMap<>();

    private record Known(long ref, Reason reason, long cause) {}

    public AsideList(Charter charter, Sift sift) {
        this.charter = charter;
        this.sift = sift;
    }

    /** Hands over the rows of a table as they stand. */
    public void forEach(String table, Consumer<AsideRow> sink) {
        List<Known> chunk = new ArrayList<>();
        sift.forEachAside(table, (ref, reason, cause) -> {
            chunk.add(new Known(ref, reason, cause));
            if (chunk.size() == ROWS_AT_ONCE) {
                handOver(table, chunk, sink);
            }
        });
        handOver(table, chunk, sink);
    }

    private void handOver(String name, List<Known> chunk, Consumer<AsideRow> sink) {
        Map<String, TreeSet<Long>> wanted = new HashMap<>();
        for (Known row : chunk) {
            wanted.computeIfAbsent(name, of -> new TreeSet<>()).add(row.ref());
            if (row.cause() >= 0) {
                wanted.computeIfAbsent(row.reason().causeTable().orElseThrow(), of -> new TreeSet<>())
                        .add(row.cause());
            }
        }
        Map<String, Map<Long, FoundRow>> found = new HashMap<>();
        wanted.forEach((of, refs) -> found.put(of, lookup(of).find(refs)));
        for (Known known : chunk) {
            FoundRow row = found.get(name).get(known.ref());
            Optional<CauseRow> cause = known.cause() < 0
                    ? Optional.empty()
                    : known.reason().causeTable().map(of -> {
                        FoundRow by = found.get(of).get(known.cause());
                        return new CauseRow(of, by.part(), RowRef.row(by.ref()), key(of, by));
                    });
            sink.accept(new AsideRow(
                    name, row.part(), RowRef.row(row.ref()), row.line(), key(name, row), known.reason(), cause));
        }
        chunk.clear();
    }

    private RowLookup lookup(String table) {
        return lookups.computeIfAbsent(table, name -> new RowLookup(charter.table(name), sift.source(name)));
    }

    private Map<String, String> key(String name, FoundRow row) {
        Table table = charter.table(name);
        List<String> cells = lookup(name).cellsOf(row);
        Map<String, String> key = new LinkedHashMap<>();
        if (!cells.isEmpty()) {
            table.namingKey().forEach(column -> key.put(column, cells.get(table.indexOf(column))));
        }
        return key;
    }
}
