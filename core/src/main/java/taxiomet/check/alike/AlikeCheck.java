package taxiomet.check.alike;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeSet;
import taxiomet.charter.Alike;
import taxiomet.charter.Table;
import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RefCursor;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;
import taxiomet.work.Secret;

/** Looks at the rows of a table for those that are probably one thing entered twice. */
final class AlikeCheck implements RowCheck {
    /** Pairs whose rows are in memory at once. */
    private static final int PAIRS_AT_ONCE = 20_000;

    private final Table table;
    private final Alike rule;
    private final SpillFolder spill;
    private final Secret secret;
    private final FaultLog log;
    private final int[] columns;
    private final LooseRows rows;
    private final Resemblance resemblance;
    private final Lookalikes found;
    private long largeBlocks;
    private boolean areTooMany;

    AlikeCheck(Table table, Alike rule, SpillFolder spill, MemoryBudget budget, Secret secret, FaultLog log) {
        this.table = table;
        this.rule = rule;
        this.spill = spill;
        this.secret = secret;
        this.log = log;
        this.columns = table.indexesOf(rule.columns());
        this.rows = new LooseRows(columns.length, spill, budget);
        this.resemblance = new Resemblance(rule);
        this.found = new Lookalikes(resemblance, spill);
    }

    @Override
    public int[] columns() {
        return columns.clone();
    }

    @Override
    public void exchange(StateExchange state) {
        state.longs(rows.spool(), rows.length(), rows.length() - 1);
    }

    @Override
    public BatchCheck onThread() {
        return new BatchCheck() {
            private final long[] record = new long[rows.length()];
            private long[] seen = new long[0];
            private int filled;

            @Override
            public void look(TypedBatch batch) {
                filled = 0;
                if (seen.length < batch.size() * record.length) {
                    seen = new long[batch.size() * record.length];
                }
                for (int row = 0; row < batch.size(); row++) {
                    int values = 0;
                    for (int i = 0; i < columns.length; i++) {
                        LooseValue value = LooseValue.of(batch, columns[i], row);
                        values += value == null ? 0 : 1;
                        LooseRows.encode(value, record, i * LooseRows.LONGS_OF_COLUMN);
                    }
                    if (values >= rule.agree()) {
                        record[record.length - 1] = batch.ref(row);
                        System.arraycopy(record, 0, seen, filled, record.length);
                        filled += record.length;
                    }
                }
            }

            @Override
            public void settle() {
                for (int i = 0; i < filled; i++) {
                    rows.spool().add(seen[i]);
                }
            }
        };
    }

    /** Finds the rows that are alike, with the values of those that may be read once more. */
    void find(TableSource source) {
        boolean[] isText = new boolean[columns.length];
        for (int i = 0; i < columns.length; i++) {
            isText[i] = table.columns().get(columns[i]).type().isText();
        }
        try (rows;
                CandidatePairs candidates = new CandidatePairs(rule, rows, isText, spill)) {
            candidates.find();
            largeBlocks = candidates.largeBlocks();
            areTooMany = candidates.areTooMany();
            compare(candidates.pairs(), source);
        }
        found.group(log);
    }

    private void compare(SortedSpool pairs, TableSource source) {
        SortedSpool.Reader reader = pairs.read();
        long[] ones = new long[PAIRS_AT_ONCE];
        long[] others = new long[PAIRS_AT_ONCE];
        boolean hasMore = true;
        while (hasMore) {
            int count = 0;
            while (count < PAIRS_AT_ONCE && (hasMore = reader.next())) {
                ones[count] = reader.first();
                others[count++] = reader.second();
            }
            Map<Long, LooseValue[]> values = values(source, ones, others, count);
            for (int i = 0; i < count; i++) {
                long manners = resemblance.of(values.get(ones[i]), values.get(others[i]));
                if (resemblance.isAlike(manners)) {
                    found.add(ones[i], others[i], manners);
                }
            }
        }
    }

    private Map<Long, LooseValue[]> values(TableSource source, long[] ones, long[] others, int count) {
        TreeSet<Long> refs = new TreeSet<>();
        for (int i = 0; i < count; i++) {
            refs.add(ones[i]);
            refs.add(others[i]);
        }
        Map<Long, LooseValue[]> values = new HashMap<>();
        int[] ascending = Arrays.stream(columns).sorted().toArray();
        TypedBatch batch = TypedBatch.ofValues(table, ascending, secret);
        source.fetch(RefCursor.of(refs.stream().mapToLong(Long::longValue).iterator()), ascending, read -> {
            batch.read(read);
            for (int row = 0; row < batch.size(); row++) {
                LooseValue[] ofRow = new LooseValue[columns.length];
                for (int i = 0; i < columns.length; i++) {
                    ofRow[i] = LooseValue.of(batch, columns[i], row);
                }
                values.put(batch.ref(row), ofRow);
            }
        });
        return values;
    }

    Table table() {
        return table;
    }

    Alike rule() {
        return rule;
    }

    /** What was found; nothing before all rows have been looked at. */
    Lookalikes found() {
        return found;
    }

    /** How many blocks were too large for every two of their rows. */
    long largeBlocks() {
        return largeBlocks;
    }

    /** Whether there are more pairs than are looked for. */
    boolean areTooMany() {
        return areTooMany;
    }
}
