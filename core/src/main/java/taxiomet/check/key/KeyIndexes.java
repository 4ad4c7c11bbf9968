package taxiomet.check.key;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Table;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.Plan;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyIndex;

/** The keys of all tables: those that are declared, and those that links point at, one index for both where they are alike. */
public final class KeyIndexes implements Conclusion {
    private final Plan plan;
    private final Map<SharedKey, KeyIndex> shared = new LinkedHashMap<>();
    private final Set<KeyIndex> all = new LinkedHashSet<>();

    /** What an index can be shared for: the same columns of a table, compared alike. */
    private record SharedKey(String table, List<String> columns, List<KeyForm> forms) {
        /** By hand, and {@link #equals} too: those that a record makes at run time cost 60 ms of every start. */
        @Override
        public int hashCode() {
            return 31 * table.hashCode() + columns.hashCode();
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof SharedKey key
                    && table.equals(key.table)
                    && columns.equals(key.columns)
                    && forms.equals(key.forms);
        }
    }

    /** Puts itself before everything else that is concluded: others ask it. */
    public KeyIndexes(Plan plan) {
        this.plan = plan;
        plan.conclude(this);
        plan.whenTold(() -> all.forEach(KeyIndex::close));
    }

    /** A new index for a declared key; links share it that point at its columns, if it holds for all rows. */
    KeyIndex declared(Table table, List<String> columns, List<KeyForm> forms, boolean isForAll) {
        KeyIndex index = new KeyIndex(plan.spill(), plan.budget(), columns.size());
        all.add(index);
        SharedKey id = new SharedKey(table.name(), columns, forms);
        // Of two keys over the same columns, each has its own duplicates; links need one of the indexes.
        if (isForAll && shared.putIfAbsent(id, index) == null) {
            plan.whenRead(table, index::seal);
        }
        return index;
    }

    /** The index of some columns of a table, for a link that points at them; they are looked at for its sake if no key does so. */
    public KeyIndex pointedAt(Table table, List<String> columns, List<KeyForm> forms) {
        return shared.computeIfAbsent(new SharedKey(table.name(), columns, forms), id -> {
            KeyIndex index = new KeyIndex(plan.spill(), plan.budget(), columns.size());
            all.add(index);
            plan.whenRead(table, index::seal);
            plan.look(
                    table,
                    new KeyCheck(
                            new KeyEncoder(table.indexesOf(columns), forms, plan.secret()),
                            index,
                            false,
                            Optional.empty(),
                            null));
            return index;
        });
    }

    /** Has all keys kept so that they can be handed over; nothing has been looked at yet. */
    public void keepApart() {
        all.forEach(KeyIndex::keepApart);
    }

    @Override
    public void resolve() {
        all.forEach(KeyIndex::resolve);
    }

    @Override
    public void close() {
        // Hints ask the indexes, too: they are closed when the findings have been told.
    }
}
