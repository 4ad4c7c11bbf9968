package taxiomet.check.column;

import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.Suspicion;
import taxiomet.values.TypedColumn;

/** Cells in one {@link TypedColumn#state state}: nulls where there should be none, values that are oddly written. */
public final class StateCheck extends ColumnCheck {
    private final byte state;
    private final Column column;

    /**
     * @param place the column's
     * @param state as {@link TypedColumn} has them
     */
    public StateCheck(int place, Column column, byte state, FaultLog log) {
        super(place, log);
        this.column = column;
        this.state = state;
    }

    @Override
    public boolean readsValues() {
        return false;
    }

    @Override
    boolean isNeedless(ColumnFacts facts) {
        return state == TypedColumn.NULL ? !facts.hasNulls() : vouchesFor(column, facts);
    }

    @Override
    Optional<Suspicion> suspicion(int place) {
        return Optional.of(state == TypedColumn.NULL ? new Suspicion.Null(place) : new Suspicion.NotAsDeclared(place));
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
