package taxiomet.rehearse.result;

import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import taxiomet.charter.Table;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;

/** Tells which rows are meant: where they stand, their keys and their labels, as they were read. */
public final class RowNames {
    private final Map<String, TableSource> sources;
    private final Map<ReachedRow, RowName> known = new HashMap<>();

    /** @param sources the rows of all tables, by name */
    public RowNames(Map<String, TableSource> sources) {
        this.sources = sources;
    }

    /** The names of some rows, in their order. */
    public List<RowName> of(List<ReachedRow> rows) {
        Map<ReachedTable, TreeMap<Long, ReachedRow>> unknown = new LinkedHashMap<>();
        for (ReachedRow row : rows) {
            if (row.isNew()) {
                known.put(row, ofNew(row));
            } else if (!known.containsKey(row)) {
                unknown.computeIfAbsent(row.table, table -> new TreeMap<>()).put(row.ref, row);
            }
        }
        unknown.forEach(this::fetch);
        return rows.stream().map(known::get).toList();
    }

    /** What a row is called. */
    public RowName of(ReachedRow row) {
        return of(List.of(row)).get(0);
    }

    private void fetch(ReachedTable reached, Map<Long, ReachedRow> rows) {
        Table table = reached.table();
        List<String> key = table.namingKey();
        int[] columns = IntStream.concat(
                        IntStream.of(table.indexesOf(key)), IntStream.of(table.indexesOf(table.label())))
                .toArray();
        TableSource source = sources.get(table.name());
        Iterator<Long> refs = rows.keySet().iterator();
        source.fetch(() -> refs.hasNext() ? refs.next() : RefCursor.END, columns, batch -> {
            for (int row = 0; row < batch.size(); row++) {
                Map<String, String> keyCells = new LinkedHashMap<>();
                Map<String, String> labelCells = new LinkedHashMap<>();
                for (int i = 0; i < columns.length; i++) {
                    String cell = batch.column(i).text(row);
                    if (i < key.size()) {
                        keyCells.put(key.get(i), cell);
                    } else {
                        labelCells.put(table.label().get(i - key.size()), cell);
                    }
                }
                long ref = batch.ref(row);
                known.put(
                        rows.get(ref),
                        new RowName(
                                table.name(),
                                source.partName(RowRef.part(ref)),
                                RowRef.row(ref),
                                batch.line(row),
                                keyCells,
                                labelCells));
            }
        });
    }

    private static RowName ofNew(ReachedRow row) {
        Table table = row.table.table();
        long number = row.ref < 0 ? 0 : RowRef.row(row.ref);
        return new RowName(table.name(), "", number, 0, cells(row, table.namingKey()), cells(row, table.label()));
    }

    private static Map<String, String> cells(ReachedRow row, List<String> columns) {
        Map<String, String> cells = new LinkedHashMap<>();
        for (String column : columns) {
            int place = row.table.table().indexOf(column);
            cells.put(column, row.table.keeps(place) ? row.table.codec(place).write(row.value(place)) : null);
        }
        return cells;
    }
}
