package taxiomet.browse;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import taxiomet.charter.Table;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RowBatch;
import taxiomet.work.Secret;

/** A row that has been read whole, its values, and what is known of its relatives so far. */
final class RowAtHand {
    private final Table table;
    private final FoundRow row;
    private final Optional<TypedBatch> typed;
    private final List<String> way;
    private final List<ParentSought> parents = new ArrayList<>();

    /** @param way the links that lead up to it from the row that was asked for */
    RowAtHand(Table table, FoundRow row, List<String> way, Secret secret) {
        this.table = table;
        this.way = List.copyOf(way);
        this.row = row;
        this.typed = row.values().isEmpty() ? Optional.empty() : Optional.of(batch(table, row.values(), secret));
    }

    /** One row of cells, read as values of a table's columns. */
    static TypedBatch batch(Table table, List<String> cells, Secret secret) {
        RowBatch batch = new RowBatch(cells.size());
        for (int i = 0; i < cells.size(); i++) {
            if (cells.get(i) == null) {
                batch.column(i).addNull();
            } else {
                batch.column(i).add(cells.get(i));
            }
        }
        batch.endRow(1, 1, 1);
        int[] all = IntStream.range(0, cells.size()).toArray();
        TypedBatch typed = TypedBatch.ofValues(table, all, secret);
        typed.read(batch);
        return typed;
    }

    Table table() {
        return table;
    }

    List<String> way() {
        return way;
    }

    FoundRow row() {
        return row;
    }

    /** The row's values, as a batch of one row; empty where it is malformed. */
    Optional<TypedBatch> typed() {
        return typed;
    }

    /** The key that the row has in some columns; empty where one of them is null or not of its type. */
    Optional<RowKey> key(KeyEncoder encoder) {
        return typed.flatMap(batch -> keyIn(batch, encoder, false));
    }

    /** The same where nulls are equal to one another. */
    Optional<RowKey> keyWithNulls(KeyEncoder encoder) {
        return typed.flatMap(batch -> keyIn(batch, encoder, true));
    }

    /** The key that the row of a batch of one has in some columns. */
    static Optional<RowKey> keyIn(TypedBatch batch, KeyEncoder encoder, boolean nullsAreEqual) {
        encoder.start(batch);
        encoder.look(0);
        if (encoder.illTyped() > 0 || (encoder.nulls() > 0 && !nullsAreEqual)) {
            return Optional.empty();
        }
        encoder.encode(0);
        return Optional.of(new RowKey(encoder.high(), encoder.low()));
    }

    List<ParentSought> parents() {
        return parents;
    }
}
