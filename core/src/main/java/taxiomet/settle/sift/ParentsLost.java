package taxiomet.settle.sift;

import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Table;
import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.expression.RowFilter;
import taxiomet.finding.settled.SiftResult.Reason;
import taxiomet.finding.settled.SiftResult.Why;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RefCursor;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.values.TypedColumn;
import taxiomet.work.Secret;

/**
 * The keys over one link of parents that are set aside, and the children that have none but these. A key is lost when no row that has it is
 * left: where several rows may share it, those that are left are looked for by reading the parents again. For a partial match there are
 * keys of each part of the columns.
 */
final class ParentsLost implements LinkSift {
    /** Another parent with this key is left. */
    private static final long HELD = Long.MAX_VALUE;

    private final ForeignKey link;
    private final Table child;
    private final Table parent;
    private final List<KeyForm> forms;
    private final Secret secret;
    private final BooleanSupplier areKeysShared;
    private final Map<Integer, KeyTable> lost = new LinkedHashMap<>();
    private final Reason reason;
    private boolean isDue;
    private boolean areHeldKnown = true;

    /** @param areKeysShared whether several parents that are left may have one key over the link */
    ParentsLost(
            ForeignKey link,
            Table child,
            Table parent,
            Secret secret,
            MemoryBudget budget,
            BooleanSupplier areKeysShared) {
        this.link = link;
        this.child = child;
        this.parent = parent;
        this.secret = secret;
        this.areKeysShared = areKeysShared;
        this.forms = KeyForm.of(child, parent, link);
        this.reason = new Reason(Why.PARENT_ASIDE, Optional.empty(), link.name(), Optional.of(link.parent()));
        for (int part = isPartial() ? 1 : whole(); part <= whole(); part++) {
            lost.put(part, new KeyTable(budget));
        }
    }

    private boolean isPartial() {
        return link.match() == Match.PARTIAL && forms.size() > 1;
    }

    private int whole() {
        return (1 << forms.size()) - 1;
    }

    /** The columns of a part of the link, of one of its ends. */
    private KeyEncoder encoder(int part, int[] columns) {
        int[] places = BitSet.valueOf(new long[] {part}).stream().toArray();
        return new KeyEncoder(
                Arrays.stream(places).map(place -> columns[place]).toArray(),
                Arrays.stream(places).mapToObj(forms::get).toList(),
                secret);
    }

    private Map<Integer, KeyEncoder> encoders(int[] columns) {
        Map<Integer, KeyEncoder> all = new LinkedHashMap<>();
        lost.keySet().forEach(part -> all.put(part, encoder(part, columns)));
        return all;
    }

    private int[] ofParent() {
        return parent.indexesOf(link.parentColumns());
    }

    @Override
    public void lose(long[] refs, TableSource parents) {
        int[] columns = Arrays.stream(ofParent()).distinct().sorted().toArray();
        TypedBatch typed = TypedBatch.ofValues(parent, columns, secret);
        Map<Integer, KeyEncoder> keys = encoders(ofParent());
        parents.fetch(RefCursor.of(Arrays.stream(refs).iterator()), columns, batch -> {
            typed.read(batch);
            keys.forEach((part, encoder) -> {
                encoder.start(typed);
                for (int row = 0; row < batch.size(); row++) {
                    encoder.look(row);
                    if (encoder.isComplete()) {
                        encoder.encode(row);
                        put(lost.get(part), encoder.high(), encoder.low(), batch.ref(row));
                    }
                }
            });
        });
    }

    private void put(KeyTable keys, long high, long low, long ref) {
        if (!keys.ensureRoom()) {
            throw new SourceException(
                    parent.name(),
                    "the keys of the rows that are set aside do not fit into memory",
                    "give more with --memory, or in the environment: TAXIOMET_JAVA_OPTS=-Xmx4g");
        }
        int slot = keys.slotOf(high, low);
        if (keys.isUsed(slot)) {
            keys.setValue(slot, ref);
        } else {
            keys.insert(slot, high, low, ref);
        }
        isDue = true;
        areHeldKnown = false;
    }

    /** Whether children are to be looked for by reading their table again. */
    boolean isDue() {
        return isDue;
    }

    @Override
    public Optional<RowCheck> holders(AsideRows asideOfParents) {
        if (areHeldKnown) {
            return Optional.empty();
        }
        areHeldKnown = true;
        return isPartial() || areKeysShared.getAsBoolean()
                ? Optional.of(new Holders(asideOfParents))
                : Optional.empty();
    }

    /** What finds the children, which it sets aside; from then on the link is due no more until more keys are lost. */
    RowCheck children(AsideRows asideOfChildren) {
        isDue = false;
        return new Children(asideOfChildren);
    }

    private final class Holders implements RowCheck {
        private final AsideRows aside;

        Holders(AsideRows aside) {
            this.aside = aside;
        }

        @Override
        public int[] columns() {
            return ofParent();
        }

        @Override
        public BatchCheck onThread() {
            Map<Integer, KeyEncoder> keys = encoders(ofParent());
            return new BatchCheck() {
                private TypedBatch batch;

                @Override
                public void look(TypedBatch toRead) {
                    batch = toRead;
                    keys.values().forEach(encoder -> encoder.start(toRead));
                }

                @Override
                public void settle() {
                    keys.forEach((part, encoder) -> {
                        KeyTable table = lost.get(part);
                        encoder.encodeAll(batch.size());
                        for (int row = 0; row < batch.size(); row++) {
                            int slot = table.slotOf(encoder.highs()[row], encoder.lows()[row]);
                            if (table.isUsed(slot) && !aside.contains(batch.ref(row))) {
                                encoder.look(row);
                                if (encoder.isComplete()) {
                                    table.setValue(slot, HELD);
                                }
                            }
                        }
                    });
                }
            };
        }
    }

    private final class Children implements RowCheck {
        private final AsideRows aside;

        Children(AsideRows aside) {
            this.aside = aside;
        }

        private int[] own() {
            return child.indexesOf(link.columns());
        }

        @Override
        public int[] columns() {
            return RowFilter.columnsOf(own(), RowFilter.of(link.where()));
        }

        @Override
        public BatchCheck onThread() {
            return new ChildrenOfBatch(aside, own());
        }
    }

    private final class ChildrenOfBatch implements BatchCheck {
        private final AsideRows aside;
        private final KeyEncoder whole;
        private final Map<Integer, KeyEncoder> parts;
        private final RowFilter filter = RowFilter.of(link.where());
        private long[] refs = new long[16];
        private long[] causes = new long[16];
        private int found;

        ChildrenOfBatch(AsideRows aside, int[] columns) {
            this.aside = aside;
            this.parts = encoders(columns);
            this.whole = parts.get(whole());
        }

        @Override
        public void look(TypedBatch batch) {
            found = 0;
            parts.values().forEach(part -> part.start(batch));
            if (filter != null) {
                filter.start(batch);
            }
            if (isPartial()) {
                lookAtParts(batch);
            } else {
                lookAtWhole(batch);
            }
        }

        /** The usual case, for each row of a table: the key is looked for first, since few are lost. */
        private void lookAtWhole(TypedBatch batch) {
            whole.encodeAll(batch.size());
            long[] highs = whole.highs();
            long[] lows = whole.lows();
            KeyTable keys = lost.get(whole());
            for (int row = 0; row < batch.size(); row++) {
                int slot = keys.slotOf(highs[row], lows[row]);
                if (keys.isUsed(slot)) {
                    whole.look(row);
                    if (whole.isComplete() && (filter == null || filter.holds(row))) {
                        add(keys.value(slot), batch.ref(row));
                    }
                }
            }
        }

        private void lookAtParts(TypedBatch batch) {
            for (int row = 0; row < batch.size(); row++) {
                whole.look(row);
                if (whole.illTyped() == 0 && !whole.isAllNull() && (filter == null || filter.holds(row))) {
                    int part = whole();
                    for (int i = 0; i < forms.size(); i++) {
                        part -= whole.state(row, i) == TypedColumn.NULL ? 1 << i : 0;
                    }
                    KeyEncoder key = parts.get(part);
                    key.encode(row);
                    KeyTable keys = lost.get(part);
                    int slot = keys.slotOf(key.high(), key.low());
                    if (keys.isUsed(slot)) {
                        add(keys.value(slot), batch.ref(row));
                    }
                }
            }
        }

        private void add(long cause, long ref) {
            if (cause != HELD) {
                if (found == refs.length) {
                    refs = Arrays.copyOf(refs, found * 2);
                    causes = Arrays.copyOf(causes, found * 2);
                }
                refs[found] = ref;
                causes[found++] = cause;
            }
        }

        @Override
        public void settle() {
            for (int i = 0; i < found; i++) {
                aside.add(refs[i], reason, causes[i]);
            }
        }
    }

    @Override
    public void close() {
        lost.values().forEach(KeyTable::close);
    }
}
