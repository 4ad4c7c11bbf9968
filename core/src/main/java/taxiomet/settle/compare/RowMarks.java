package taxiomet.settle.compare;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.finding.FindingKind;
import taxiomet.finding.KeptResult.KeptParents;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.RowSet;
import taxiomet.keys.TypedBatch;
import taxiomet.personal.Pseudonyms;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;
import taxiomet.values.TypedColumn;
import taxiomet.work.KeyedHash;
import taxiomet.work.Secret;

/** Numbers that stand for rows of one table that are at fault, and what the rows are called. */
public final class RowMarks {
    private static final long KEY = 1;
    private static final long CONTENT = 2;
    private static final long RAW = 3;

    private final Table table;
    private final Secret secret;
    private final KeyedHash hash;
    private final Pseudonyms pseudonyms;
    private final KeyEncoder whole;
    private final KeyEncoder key;
    private final boolean[] isOfKey;
    private final Map<String, KeyEncoder> links = new HashMap<>();
    private final RowSet withoutKey = new RowSet();
    private final Map<Long, Mark> marks = new HashMap<>();

    /**
     * One row.
     *
     * @param identity stands for its primary key, or for all it holds; {@code rest} for all it holds beside its key
     * @param pointsAt for each link, what stands for the key that the row points at
     */
    public record Mark(long identity, long rest, Map<String, Long> pointsAt, String name) {}

    /** @param hash under the key by which rows are known again */
    public RowMarks(Charter charter, Table table, Secret secret, KeyedHash hash, Pseudonyms pseudonyms) {
        this.table = table;
        this.secret = secret;
        this.hash = hash;
        this.pseudonyms = pseudonyms;
        int[] all = IntStream.range(0, table.columns().size()).toArray();
        this.whole =
                new KeyEncoder(all, table.columns().stream().map(KeyForm::of).toList(), secret);
        this.key = table.primaryKey()
                .map(primary -> new KeyEncoder(table.indexesOf(primary.columns()), KeyForm.of(table, primary), secret))
                .orElse(null);
        this.isOfKey = new boolean[all.length];
        table.primaryKey()
                .ifPresent(primary -> primary.columns().forEach(column -> isOfKey[table.indexOf(column)] = true));
        for (ForeignKey link : table.links()) {
            links.put(link.name(), ofChild(charter, link, secret));
        }
    }

    private static KeyEncoder ofChild(Charter charter, ForeignKey link, Secret secret) {
        Table child = charter.table(link.child());
        return new KeyEncoder(
                child.indexesOf(link.columns()), KeyForm.of(child, charter.table(link.parent()), link), secret);
    }

    /** What stands for a key that links point at. */
    static long pointedAt(KeyedHash hash, long high, long low) {
        return hash.of(high, low) >>> Long.SIZE - KeptParents.BITS;
    }

    /** Reads the rows of some logs, which are all of this table. */
    public void read(List<FaultLog> logs, TableSource source) {
        RowSet rows = new RowSet();
        Set<String> ofKey =
                table.primaryKey().map(Key::columns).map(Set::copyOf).orElse(Set.of());
        for (FaultLog log : logs) {
            log.forEachRow(rows::add);
            boolean isKeyAtFault =
                    (log.kind().place() == FindingKind.Place.KEY && log.at().equals(Key.PRIMARY))
                            || (log.kind() == FindingKind.TYPE_MISMATCH && ofKey.contains(log.at()));
            if (isKeyAtFault) {
                log.forEachRow(withoutKey::add);
            }
        }
        int[] all = whole.columns();
        TypedBatch typed = TypedBatch.ofValues(table, all, secret);
        source.fetch(RefCursor.of(rows.iterator()), all, batch -> {
            typed.read(batch);
            whole.start(typed);
            if (key != null) {
                key.start(typed);
            }
            links.values().forEach(link -> link.start(typed));
            for (int row = 0; row < batch.size(); row++) {
                marks.put(batch.ref(row), mark(batch, row));
            }
            for (RowBatch.MalformedRow row : batch.malformed()) {
                marks.put(
                        row.ref(),
                        new Mark(hash.of(RAW, hash.of(row.raw())), 0, Map.of(), "row " + RowRef.row(row.ref())));
            }
        });
    }

    private Mark mark(RowBatch batch, int row) {
        boolean hasKey = key != null && !withoutKey.contains(batch.ref(row));
        long identity;
        if (hasKey) {
            key.encode(row);
            identity = hash.of(KEY, key.high(), key.low());
        } else {
            identity = content(row, false);
        }
        Map<String, Long> pointsAt = new HashMap<>();
        links.forEach((name, link) -> {
            link.look(row);
            if (link.isComplete()) {
                link.encode(row);
                pointsAt.put(name, pointedAt(hash, link.high(), link.low()));
            }
        });
        return new Mark(identity, hasKey ? content(row, true) : 0, pointsAt, name(batch, row));
    }

    /** What stands for all cells of a row: by their values, or as they are written where they are not of their type. */
    private long content(int row, boolean isWithoutKey) {
        long[] parts = new long[2 * isOfKey.length + 1];
        parts[0] = CONTENT;
        int size = 1;
        for (int i = 0; i < isOfKey.length; i++) {
            if (isWithoutKey && isOfKey[i]) {
                continue;
            }
            byte state = whole.state(row, i);
            if (state == TypedColumn.GOOD || state == TypedColumn.ODD) {
                whole.encodePart(row, i);
            } else {
                whole.encodePartAsWritten(row, i);
            }
            parts[size++] = whole.high();
            parts[size++] = whole.low();
        }
        return hash.of(Arrays.copyOf(parts, size));
    }

    private String name(RowBatch batch, int row) {
        List<String> cells = new ArrayList<>();
        for (String column : table.namingKey()) {
            String cell = batch.column(table.indexOf(column)).text(row);
            cells.add(cell == null ? "null" : pseudonyms.of(table.name(), column, cell));
        }
        if (cells.isEmpty()) {
            return "row " + RowRef.row(batch.ref(row));
        }
        return cells.size() == 1 ? cells.get(0) : cells.stream().collect(Collectors.joining(", ", "(", ")"));
    }

    /** The mark of a row that was read. */
    public Mark of(long ref) {
        return marks.get(ref);
    }
}
