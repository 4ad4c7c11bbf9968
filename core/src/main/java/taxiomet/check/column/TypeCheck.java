package taxiomet.check.column;

import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.Suspicion;
import taxiomet.values.TypedColumn;

/** Values that are not of their column's type. */
public final class TypeCheck extends ColumnCheck {
    private final Column column;

    /** @param mismatches gets the rows whose value is not of the column's type, with the rule it broke */
    public TypeCheck(int place, Column column, FaultLog mismatches) {
        super(place, mismatches);
        this.column = column;
    }

    @Override
    public boolean readsValues() {
        return false;
    }

    @Override
    boolean isNeedless(ColumnFacts facts) {
        return vouchesFor(column, facts);
    }

    @Override
    Optional<Suspicion> suspicion(int place) {
        return Optional.of(new Suspicion.NotAsDeclared(place));
    }

    @Override
    void find(TypedColumn values, TypedBatch batch, Faults faults) {
        if (values.has(TypedColumn.BAD)) {
            for (int row = 0; row < batch.size(); row++) {
                if (values.state(row) == TypedColumn.BAD) {
                    faults.add(batch.ref(row), values.refusal(row).words());
                }
            }
        }
    }
}
