package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import taxiomet.charter.Table;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;

/** Tells which rows are meant: where they stand, their keys and their labels, as they were read. */
final class RowNames {
    private final Map<String, TableSource> sources;
    private final Map<ReachedRow, RowName> known = new HashMap<>();

    RowNames(Map<String, TableSource> sources) {
        this.sources = sources;
    }

    /** The names of some rows, in their order. */
    List<RowName> of(List<ReachedRow> rows) {
        Map<ReachedTable, TreeMap<Long, ReachedRow>> unknown = new HashMap<>();
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

    RowName of(ReachedRow row) {
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
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < columns.length; i++) {
                    cells.add(batch.column(i).text(row));
                }
                long ref = batch.ref(row);
                known.put(
                        rows.get(ref),
                        new RowName(
                                table.name(),
                                source.partName(RowRef.part(ref)),
                                RowRef.row(ref),
                                batch.line(row),
                                cells.subList(0, key.size()),
                                cells.subList(key.size(), cells.size())));
            }
        });
    }

    private static RowName ofNew(ReachedRow row) {
        Table table = row.table.table();
        long number = row.ref < 0 ? 0 : RowRef.row(row.ref);
        return new RowName(table.name(), "", number, 0, cells(row, table.namingKey()), cells(row, table.label()));
    }

    private static List<String> cells(ReachedRow row, List<String> columns) {
        List<String> cells = new ArrayList<>();
        for (String column : columns) {
            int place = row.table.table().indexOf(column);
            cells.add(row.table.keeps(place) ? row.table.codec(place).write(row.value(place)) : null);
        }
        return cells;
    }
}
