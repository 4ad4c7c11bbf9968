package taxiomet.check.column;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.keys.ColumnKeys;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.Suspicion;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;
import taxiomet.work.Secret;

/** Values that are not among those a column allows, compared by value under the column's type. */
public final class AllowedValuesCheck extends ColumnCheck {
    private final KeyForm form;
    private final List<String> values;
    private final KeyTable allowed = new KeyTable(null);

    /** @param place of the column in its table */
    public AllowedValuesCheck(int place, Column column, Secret secret, FaultLog faults) {
        super(place, faults);
        form = KeyForm.of(column);
        values = column.values();
        CellColumn cells = new CellColumn(column.values().size());
        column.values().forEach(cells::add);
        TypedBatch values = TypedBatch.of(column, cells, secret);
        KeyEncoder encoder = new KeyEncoder(new int[] {0}, List.of(form), secret);
        encoder.start(values);
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
    Optional<Suspicion> suspicion(int place) {
        return Optional.of(new Suspicion.NotAmong(place, values));
    }

    @Override
    void find(TypedColumn values, TypedBatch batch, Faults faults) {
        ColumnKeys keys = batch.keys(columns()[0], form);
        for (int row = 0; row < batch.size(); row++) {
            if (values.isValue(row) && !allowed.contains(keys.highs()[row], keys.lows()[row])) {
                faults.add(batch.ref(row));
            }
        }
    }
}
