package taxiomet.check.key;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyIndex;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.Suspicion;
import taxiomet.values.TypedColumn;

/** Duplicates and nulls in one key of a table; where only a link needs the key, nothing but its index. */
public final class KeyCheck implements RowCheck {
    private final KeyEncoder encoder;
    private final KeyIndex index;
    private final boolean nullsAreEqual;
    private final Optional<FaultLog> nullsInKey;
    private final List<String> names;
    private final RowFilter filter;

    /**
     * @param index gets all keys that can be a parent or a duplicate
     * @param nullsAreEqual whether a key with a null in it can be a duplicate too
     * @param nullsInKey gets rows with a null in the key, where that is a fault
     * @param filter the rows that the key is declared for; null for all
     */
    public KeyCheck(
            KeyEncoder encoder,
            KeyIndex index,
            boolean nullsAreEqual,
            Optional<FaultLog> nullsInKey,
            RowFilter filter) {
        this.encoder = encoder;
        this.index = index;
        this.nullsAreEqual = nullsAreEqual;
        this.nullsInKey = nullsInKey;
        this.names = nullsInKey.map(FaultLog::columns).orElse(List.of());
        this.filter = filter;
    }

    @Override
    public int[] columns() {
        return RowFilter.columnsOf(encoder.columns(), filter);
    }

    @Override
    public Optional<List<Suspicion>> suspicions() {
        if (filter != null || !encoder.comparesAsWritten()) {
            return Optional.empty();
        }
        List<Integer> columns = Arrays.stream(encoder.columns()).boxed().toList();
        List<Suspicion> all = new ArrayList<>();
        if (index.isRepeatedNoticed()) {
            all.add(new Suspicion.Repeated(columns, nullsAreEqual));
        }
        if (nullsInKey.isPresent()) {
            columns.forEach(column -> all.add(new Suspicion.Null(column)));
        }
        return Optional.of(all);
    }

    @Override
    public void exchange(StateExchange state) {
        state.partitions(index.keysApart(), 2, StateExchange.NONE);
    }

    @Override
    public BatchCheck onThread() {
        return new KeyMaker(encoder.copy(), RowFilter.copyOf(filter));
    }

    private final class KeyMaker implements BatchCheck {
        private final KeyEncoder keys;
        private TypedBatch batch;
        private boolean[] usable = new boolean[0];
        private boolean areAllUsable;
        private final RowFilter rows;

        KeyMaker(KeyEncoder keys, RowFilter rows) {
            this.keys = keys;
            this.rows = rows;
        }

        @Override
        public void look(TypedBatch toRead) {
            batch = toRead;
            keys.start(batch);
            keys.encodeAll(batch.size());
            areAllUsable = keys.areAllComplete() && rows == null;
            if (!areAllUsable) {
                if (usable.length < batch.size()) {
                    usable = new boolean[batch.size()];
                }
                if (rows != null) {
                    rows.start(batch);
                }
                for (int row = 0; row < batch.size(); row++) {
                    keys.look(row);
                    usable[row] = keys.illTyped() == 0
                            && (keys.nulls() == 0 || nullsAreEqual)
                            && (rows == null || rows.holds(row));
                }
            }
        }

        /** Which of the key's columns are null. */
        private String nullsIn(int row) {
            StringBuilder nulls = new StringBuilder("null in ");
            for (int i = 0; i < names.size(); i++) {
                if (keys.state(row, i) == TypedColumn.NULL) {
                    nulls.append(nulls.length() > "null in ".length() ? ", " : "")
                            .append(names.get(i));
                }
            }
            return nulls.toString();
        }

        @Override
        public void settle() {
            if (nullsInKey.isPresent() && !areAllUsable) {
                for (int row = 0; row < batch.size(); row++) {
                    keys.look(row);
                    if (keys.nulls() > 0) {
                        nullsInKey.get().add(batch.ref(row), nullsIn(row));
                    }
                }
            }
            index.add(keys.highs(), keys.lows(), areAllUsable ? null : usable, batch.size(), batch::ref);
        }
    }
}
