package taxiomet.roster;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyPlaces;
import taxiomet.keys.TypedBatch;
import taxiomet.personal.Pseudonyms;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Offsets;
import taxiomet.spill.SpillFolder;
import taxiomet.work.Secret;

/** Some cells of the rows that a link points at, by their keys. Keys stand in memory, cells on disk but for those asked for last. */
final class ParentCells implements AutoCloseable {
    private static final int KEPT = 1 << 12;

    private final ForeignKey link;
    private final Table parent;
    private final KeyEncoder child;
    private final KeyEncoder ofParent;
    private final int[] columns;
    private final KeyPlaces places;
    private final CellSpool cells;
    private final Offsets offsets = new Offsets();
    private final int[] keptPlaces = new int[KEPT];
    private final List<List<String>> kept = new ArrayList<>();
    private boolean isWhole = true;

    /** @param columns names of the parent's columns whose cells are wanted */
    ParentCells(
            ForeignKey link,
            Table child,
            Table parent,
            List<String> columns,
            Secret secret,
            SpillFolder spill,
            MemoryBudget budget) {
        this.link = link;
        this.parent = parent;
        List<KeyForm> forms = KeyForm.of(child, parent, link);
        this.child = new KeyEncoder(child.indexesOf(link.columns()), forms, secret);
        this.ofParent = new KeyEncoder(parent.indexesOf(link.parentColumns()), forms, secret);
        this.columns = parent.indexesOf(columns);
        this.places = new KeyPlaces(budget);
        this.cells = new CellSpool(spill);
        Arrays.fill(keptPlaces, KeyPlaces.ABSENT);
        for (int i = 0; i < KEPT; i++) {
            kept.add(List.of());
        }
    }

    ForeignKey link() {
        return link;
    }

    Table parent() {
        return parent;
    }

    /** Whether there was room for all parents; of the others nothing is known. */
    boolean isWhole() {
        return isWhole;
    }

    /** Reads the parents. */
    void read(TableSource source, Pseudonyms pseudonyms, Secret secret) {
        int[] wanted = IntStream.concat(IntStream.of(ofParent.columns()), IntStream.of(columns))
                .distinct()
                .sorted()
                .toArray();
        BitSet valued = new BitSet();
        IntStream.of(ofParent.columns()).forEach(valued::set);
        TypedBatch batch = new TypedBatch(parent, wanted, valued, secret);
        source.read(wanted, rows -> {
            batch.read(rows);
            ofParent.start(batch);
            for (int row = 0; row < batch.size() && isWhole; row++) {
                ofParent.look(row);
                if (ofParent.isComplete()) {
                    ofParent.encode(row);
                    add(row, batch, pseudonyms);
                }
            }
        });
    }

    private void add(int row, TypedBatch batch, Pseudonyms pseudonyms) {
        if (places.place(ofParent.high(), ofParent.low()) != KeyPlaces.ABSENT) {
            return;
        }
        isWhole = places.put(ofParent.high(), ofParent.low(), offsets.size());
        List<String> texts = new ArrayList<>();
        for (int column : columns) {
            texts.add(pseudonyms.of(
                    parent.name(),
                    parent.columns().get(column).name(),
                    batch.column(column).cells().text(row)));
        }
        offsets.add(cells.add(texts));
    }

    /** Places of the child's columns that say which parent. */
    int[] childColumns() {
        return child.columns();
    }

    void start(TypedBatch batch) {
        child.start(batch);
    }

    /** Whether a row of the child points at a row at all. */
    boolean isAsked(int row) {
        child.look(row);
        return child.nulls() == 0;
    }

    /** The cells of a row's parent; empty where there is none. */
    Optional<List<String>> of(int row) {
        child.look(row);
        if (!child.isComplete()) {
            return Optional.empty();
        }
        child.encode(row);
        int place = places.place(child.high(), child.low());
        if (place == KeyPlaces.ABSENT) {
            return Optional.empty();
        }
        int slot = place & KEPT - 1;
        if (keptPlaces[slot] != place) {
            keptPlaces[slot] = place;
            kept.set(slot, cells.at(offsets.get(place)));
        }
        return Optional.of(kept.get(slot));
    }

    @Override
    public void close() {
        places.close();
        cells.close();
    }
}
