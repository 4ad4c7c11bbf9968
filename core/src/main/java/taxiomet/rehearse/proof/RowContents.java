package taxiomet.rehearse.proof;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Comparison;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.TableSource;
import taxiomet.values.TypedColumn;
import taxiomet.work.Secret;

/**
 * The rows of a table by their values, whatever their order and spelling. Two of them are the same when their sums of fingerprints are, but for a
 * chance of one in 2^100; which rows differ is found by another reading.
 */
final class RowContents {
    /** Rows of which fingerprints are kept to tell which differ; of a larger table only how many. */
    private static final int MOST_KEPT = 4_000_000;

    private final Table table;
    private final Secret secret;
    private final int[] columns;
    private final List<Integer> named;

    /** @param secret under which fingerprints are taken; the same for all that are compared */
    RowContents(Table table, Secret secret) {
        this.table = table;
        this.secret = secret;
        this.columns = IntStream.range(0, table.columns().size()).toArray();
        List<String> key = table.keys().stream().findFirst().map(Key::columns).orElse(List.of());
        this.named = IntStream.of(columns)
                .filter(place ->
                        key.isEmpty() || key.contains(table.columns().get(place).name()))
                .filter(place -> !table.columns().get(place).isPersonal())
                .boxed()
                .toList();
    }

    /**
     * All rows together.
     *
     * @param high the sum of the first halves of their fingerprints, {@code low} that of the second
     */
    record Sum(long rows, long high, long low) {}

    private interface RowReader {
        void row(TypedBatch batch, int row, long high, long low);
    }

    Sum sum(TableSource source) {
        long[] sums = new long[3];
        read(source, (batch, row, high, low) -> {
            sums[0]++;
            sums[1] += high;
            sums[2] += low;
        });
        return new Sum(sums[0], sums[1], sums[2]);
    }

    private void read(TableSource source, RowReader reader) {
        TypedBatch batch = TypedBatch.ofValues(table, columns, secret);
        List<KeyForm> forms = table.columns().stream()
                .map(column -> new KeyForm(column.type().family(), Comparison.EXACT))
                .toList();
        KeyEncoder encoder = new KeyEncoder(columns, forms, secret);
        source.read(columns, rows -> {
            batch.read(rows);
            encoder.start(batch);
            for (int row = 0; row < batch.size(); row++) {
                long high = 1;
                long low = 2;
                for (int place : columns) {
                    addCell(encoder, batch.column(place), row, place);
                    high = Long.rotateLeft(high, 7) * 0x9E3779B97F4A7C15L + encoder.high();
                    low = Long.rotateLeft(low, 11) * 0xC2B2AE3D27D4EB4FL + encoder.low();
                }
                reader.row(batch, row, high, low);
            }
        });
    }

    private static void addCell(KeyEncoder encoder, TypedColumn column, int row, int place) {
        if (column.isValue(row)) {
            encoder.encodePart(row, place);
        } else {
            encoder.encodePartAsWritten(row, place);
        }
    }

    /** The rows that two readings of a table do not share. */
    record Difference(long missing, long more, List<String> examples) {}

    /** Which rows are on one side alone. */
    Difference difference(TableSource foreseen, TableSource found, int most) {
        Map<Long, Integer> left = new HashMap<>();
        long[] counts = new long[2];
        List<String> examples = new ArrayList<>();
        read(foreseen, (batch, row, high, low) -> {
            if (++counts[0] <= MOST_KEPT) {
                left.merge(high ^ low, 1, Integer::sum);
            }
        });
        if (counts[0] > MOST_KEPT) {
            long there = sum(found).rows();
            return new Difference(Math.max(1, counts[0] - there), Math.max(1, there - counts[0]), List.of());
        }
        read(found, (batch, row, high, low) -> {
            Integer count = left.get(high ^ low);
            if (count == null) {
                counts[1]++;
                if (examples.size() < most) {
                    examples.add("not foreseen: " + told(batch, row));
                }
            } else if (count == 1) {
                left.remove(high ^ low);
            } else {
                left.put(high ^ low, count - 1);
            }
        });
        long missing = left.values().stream().mapToLong(Integer::longValue).sum();
        int[] told = {0};
        read(foreseen, (batch, row, high, low) -> {
            if (told[0] < most && left.containsKey(high ^ low)) {
                told[0]++;
                examples.add("foreseen: " + told(batch, row));
            }
        });
        return new Difference(missing, counts[1], examples);
    }

    private String told(TypedBatch batch, int row) {
        if (named.isEmpty()) {
            return "a row whose key is personal";
        }
        // Of a row that stands otherwise the key tells too little.
        List<Integer> shown = IntStream.of(columns)
                .filter(place -> !table.columns().get(place).isPersonal())
                .limit(named.size() + 4L)
                .boxed()
                .collect(Collectors.toCollection(ArrayList::new));
        named.stream().filter(place -> !shown.contains(place)).forEach(shown::add);
        return shown.stream()
                .sorted()
                .map(place -> cell(
                        table.columns().get(place), batch.column(place).cells().text(row)))
                .collect(Collectors.joining(", "));
    }

    private static String cell(Column column, String text) {
        boolean isQuoted = text != null && column.type().family() == Family.TEXT;
        return column.name() + " " + (text == null ? "null" : isQuoted ? '"' + text + '"' : text);
    }
}
