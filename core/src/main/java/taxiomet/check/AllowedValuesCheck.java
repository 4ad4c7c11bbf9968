package taxiomet.check;

import java.util.List;
import taxiomet.charter.Column;
import taxiomet.rows.CellColumn;
import taxiomet.rows.TypedColumn;

/** Values that are not among those a column allows, compared by value under the column's type. */
final class AllowedValuesCheck implements RowCheck {
    private final int column;
    private final KeyEncoder encoder;
    private final KeyTable allowed = new KeyTable(null);
    private final FaultLog faults;

    AllowedValuesCheck(int place, Column column, FaultLog faults) {
        this.column = place;
        this.encoder = new KeyEncoder(new int[] {place}, List.of(KeyForm.of(column)));
        this.faults = faults;
        CellColumn cells = new CellColumn(column.values().size());
        column.values().forEach(cells::add);
        TypedColumn typed = new TypedColumn(column);
        typed.read(cells);
        encoder.start(typed);
        for (int row = 0; row < cells.size(); row++) {
            encoder.encode(row);
            allowed.ensureRoom();
            int slot = allowed.slotOf(encoder.high(), encoder.low());
            if (!allowed.isUsed(slot)) {
                allowed.insert(slot, encoder.high(), encoder.low(), row);
            }
        }
    }

    @Override
    public int[] columns() {
        return new int[] {column};
    }

    @Override
    public void check(TypedBatch batch) {
        TypedColumn typed = batch.column(column);
        encoder.start(batch);
        for (int row = 0; row < batch.size(); row++) {
            if (typed.isValue(row)) {
                encoder.encode(row);
                if (!allowed.contains(encoder.high(), encoder.low())) {
                    faults.add(batch.ref(row));
                }
            }
        }
    }
}
