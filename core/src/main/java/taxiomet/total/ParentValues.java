package taxiomet.total;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.expression.StoredValues;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyPlaces;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.spill.LongSpool;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Offsets;
import taxiomet.spill.SpillFolder;
import taxiomet.work.Secret;

/**
 * Values of the rows that a link points at, by their keys. Of rows that share a key the first counts. Keys stand in memory, values on disk
 * beyond the first few.
 *
 * <p>A parent's record is two longs for the key of each link that goes on from it, zeros where it has no such key, a long for each that says
 * whether it has one, and its values.
 */
final class ParentValues implements AutoCloseable {
    private static final int LONGS_IN_MEMORY = 1 << 16;
    private static final int LONGS_OF_KEY = 3;

    private final Table parent;
    private final KeyEncoder ofChild;
    private final KeyEncoder ofParent;
    private final KeyPlaces places;
    private final LongSpool records;
    private final Offsets offsets = new Offsets();
    private final List<Integer> columns = new ArrayList<>();
    private final List<KeyEncoder> onward = new ArrayList<>();

    ParentValues(ForeignKey link, Charter charter, Secret secret, SpillFolder spill, MemoryBudget budget) {
        Table child = charter.table(link.child());
        this.parent = charter.table(link.parent());
        List<KeyForm> forms = KeyForm.of(child, parent, link);
        this.ofChild = new KeyEncoder(child.indexesOf(link.columns()), forms, secret);
        this.ofParent = new KeyEncoder(parent.indexesOf(link.parentColumns()), forms, secret);
        this.places = new KeyPlaces(budget);
        this.records = new LongSpool(spill, LONGS_IN_MEMORY);
    }

    Table parent() {
        return parent;
    }

    /** Makes the keys of the rows that the link starts from. */
    KeyEncoder ofChild() {
        return ofChild;
    }

    /** Has the values of a column kept, and gives their place among those of a parent. */
    int keep(int column) {
        if (!columns.contains(column)) {
            columns.add(column);
        }
        return columns.indexOf(column);
    }

    /** Has the keys kept by which a link goes on from the parents, and gives their place. */
    int goOn(KeyEncoder keys) {
        onward.add(keys);
        return onward.size() - 1;
    }

    /** Reads the parents. */
    void read(TableSource source, Secret secret) {
        int[] wanted = Stream.of(
                        IntStream.of(ofParent.columns()),
                        columns.stream().mapToInt(column -> column),
                        onward.stream().flatMapToInt(keys -> IntStream.of(keys.columns())))
                .flatMapToInt(each -> each)
                .distinct()
                .sorted()
                .toArray();
        TypedBatch batch = TypedBatch.ofValues(parent, wanted, secret);
        StoredValues record = new StoredValues();
        source.read(wanted, rows -> {
            batch.read(rows);
            ofParent.start(batch);
            onward.forEach(keys -> keys.start(batch));
            for (int row = 0; row < batch.size(); row++) {
                ofParent.look(row);
                if (ofParent.isComplete()) {
                    ofParent.encode(row);
                    add(row, batch, record);
                }
            }
        });
        offsets.add(records.size());
    }

    private void add(int row, TypedBatch batch, StoredValues record) {
        if (places.place(ofParent.high(), ofParent.low()) != KeyPlaces.ABSENT) {
            return;
        }
        if (!places.put(ofParent.high(), ofParent.low(), offsets.size())) {
            throw new SourceException(
                    parent.name(),
                    "the keys of its rows, whose values totals ask for, do not fit into memory",
                    "give more with --memory");
        }
        record.clear();
        for (KeyEncoder keys : onward) {
            keys.look(row);
            boolean isComplete = keys.isComplete();
            if (isComplete) {
                keys.encode(row);
            }
            record.add(isComplete ? 1 : 0);
            record.add(isComplete ? keys.high() : 0);
            record.add(isComplete ? keys.low() : 0);
        }
        for (int column : columns) {
            record.addCell(batch.column(column), row);
        }
        offsets.add(records.size());
        for (int i = 0; i < record.size(); i++) {
            records.add(record.longs()[i]);
        }
    }

    /** The values of one parent at a time; it serves one thread. */
    final class Finder {
        private final StoredValues values = new StoredValues();
        private long[] longs = new long[0];
        private int length;
        private int found = KeyPlaces.ABSENT;
        private boolean isThere;

        /** Goes to the parent that has a key. */
        void find(long high, long low) {
            int place = places.place(high, low);
            isThere = place != KeyPlaces.ABSENT;
            if (!isThere || place == found) {
                return;
            }
            found = place;
            length = (int) (offsets.get(place + 1) - offsets.get(place));
            if (longs.length < length) {
                longs = new long[length];
            }
            LongSpool.Reader reader = records.read(offsets.get(place), offsets.get(place + 1), length);
            for (int i = 0; i < length; i++) {
                longs[i] = reader.next();
            }
        }

        /** There is no parent. */
        void findNone() {
            isThere = false;
        }

        /** Has another go to the parent that a link leads to from here. */
        void goOn(int place, Finder next) {
            int at = LONGS_OF_KEY * place;
            if (isThere && longs[at] == 1) {
                next.find(longs[at + 1], longs[at + 2]);
            } else {
                next.findNone();
            }
        }

        /** A value of the parent; null where there is none, or one that is not of its type. */
        Object value(int place) {
            if (!isThere) {
                return null;
            }
            values.read(longs, length, LONGS_OF_KEY * onward.size());
            for (int i = 0; i < place; i++) {
                values.skip();
            }
            return switch (values.kind()) {
                case NULL, ILL_TYPED -> null;
                default -> values.value();
            };
        }
    }

    @Override
    public void close() {
        places.close();
        records.close();
    }
}
