package taxiomet.settle.sift;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.ForeignKey;
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
import taxiomet.rows.TableSource;
import taxiomet.work.Secret;

/**
 * All parents and children over a link in a circle of tables, in memory: where each row is the parent of the next, children of children
 * would otherwise be looked for by one reading each. About 80 bytes for each parent with its children.
 */
final class Kinship implements LinkSift {
    private static final int NONE = -1;

    private final ForeignKey link;
    private final Table child;
    private final Table parent;
    private final Secret secret;
    private final List<KeyForm> forms;
    private final AsideRows asideOfChildren;
    private final Reading reading;
    private final Reason reason;

    /** Numbers of the keys that parents have. */
    private final KeyTable keys = new KeyTable(null);

    private int keyCount;
    /** For each key, how many parents have it that are not lost, and the first of its children. */
    private int[] held = new int[16];

    private int[] firstChild = new int[16];

    private long[] parents = new long[16];
    private int[] keyOfParent = new int[16];
    private int parentCount;
    private long[] children = new long[16];
    private int[] nextChild = new int[16];
    private int childCount;
    private boolean isRead;

    /** Reads a table for one look at its rows. */
    interface Reading {
        void read(Table table, RowCheck check);
    }

    Kinship(ForeignKey link, Table child, Table parent, Secret secret, AsideRows asideOfChildren, Reading reading) {
        this.link = link;
        this.child = child;
        this.parent = parent;
        this.secret = secret;
        this.forms = KeyForm.of(child, parent, link);
        this.asideOfChildren = asideOfChildren;
        this.reading = reading;
        this.reason = new Reason(Why.PARENT_ASIDE, Optional.empty(), link.name(), Optional.of(link.parent()));
    }

    @Override
    public Optional<RowCheck> holders(AsideRows asideOfParents) {
        // Each key is counted.
        return Optional.empty();
    }

    @Override
    public void lose(long[] refs, TableSource source) {
        if (!isRead) {
            reading.read(parent, new Rows(parent.indexesOf(link.parentColumns()), null, this::addParent));
            reading.read(child, new Rows(child.indexesOf(link.columns()), RowFilter.of(link.where()), this::addChild));
            isRead = true;
        }
        for (long ref : refs) {
            int place = Arrays.binarySearch(parents, 0, parentCount, ref);
            if (place >= 0 && --held[keyOfParent[place]] == 0) {
                for (int at = firstChild[keyOfParent[place]]; at != NONE; at = nextChild[at]) {
                    asideOfChildren.add(children[at], reason, ref);
                }
            }
        }
    }

    private void addParent(long high, long low, long ref) {
        if (parentCount == parents.length) {
            parents = Arrays.copyOf(parents, parentCount * 2);
            keyOfParent = Arrays.copyOf(keyOfParent, parentCount * 2);
        }
        keys.ensureRoom();
        int slot = keys.slotOf(high, low);
        if (!keys.isUsed(slot)) {
            if (keyCount == held.length) {
                held = Arrays.copyOf(held, keyCount * 2);
                firstChild = Arrays.copyOf(firstChild, keyCount * 2);
            }
            firstChild[keyCount] = NONE;
            keys.insert(slot, high, low, keyCount++);
        }
        int key = (int) keys.value(slot);
        held[key]++;
        parents[parentCount] = ref;
        keyOfParent[parentCount++] = key;
    }

    private void addChild(long high, long low, long ref) {
        int slot = keys.slotOf(high, low);
        if (!keys.isUsed(slot)) {
            // It has no parent at all, and is set aside for that.
            return;
        }
        if (childCount == children.length) {
            children = Arrays.copyOf(children, childCount * 2);
            nextChild = Arrays.copyOf(nextChild, childCount * 2);
        }
        int key = (int) keys.value(slot);
        children[childCount] = ref;
        nextChild[childCount] = firstChild[key];
        firstChild[key] = childCount++;
    }

    private interface KeySink {
        void key(long high, long low, long ref);
    }

    /** The keys of all rows that have one, in the order of the table. */
    private final class Rows implements RowCheck {
        private final int[] columns;
        private final RowFilter filter;
        private final KeySink sink;

        Rows(int[] columns, RowFilter filter, KeySink sink) {
            this.columns = columns;
            this.filter = filter;
            this.sink = sink;
        }

        @Override
        public int[] columns() {
            return RowFilter.columnsOf(columns, filter);
        }

        @Override
        public BatchCheck onThread() {
            KeyEncoder encoder = new KeyEncoder(columns, forms, secret);
            RowFilter own = RowFilter.copyOf(filter);
            return new BatchCheck() {
                private TypedBatch batch;

                @Override
                public void look(TypedBatch toRead) {
                    batch = toRead;
                    encoder.start(toRead);
                    encoder.encodeAll(toRead.size());
                    if (own != null) {
                        own.start(toRead);
                    }
                }

                @Override
                public void settle() {
                    for (int row = 0; row < batch.size(); row++) {
                        encoder.look(row);
                        if (encoder.isComplete() && (own == null || own.holds(row))) {
                            sink.key(encoder.highs()[row], encoder.lows()[row], batch.ref(row));
                        }
                    }
                }
            };
        }
    }

    @Override
    public void close() {
        keys.close();
    }
}
