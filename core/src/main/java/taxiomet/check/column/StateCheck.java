package taxiomet.check.column;

import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** Cells in one {@link TypedColumn#state state}: nulls where there should be none, values that are oddly written. */
public final class StateCheck extends ColumnCheck {
    private final byte state;

    /** @param state as {@link TypedColumn} has them */
    public StateCheck(int column, byte state, FaultLog log) {
        super(column, log);
        this.state = state;
    }

    @Override
    public boolean readsValues() {
        return false;
    }

    @Override
    void find(TypedColumn values, TypedBatch batch, Faults faults) {
        if (values.has(state)) {
            for (int row = 0; row < batch.size(); row++) {
                if (values.state(row) == state) {
                    faults.add(batch.ref(row));
                }
            }
        }
    }
}
