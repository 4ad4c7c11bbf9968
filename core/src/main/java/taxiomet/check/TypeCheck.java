package taxiomet.check;

import taxiomet.rows.TypedColumn;

/** Values that are not of their column's type. */
final class TypeCheck extends ColumnCheck {
    TypeCheck(int column, FaultLog mismatches) {
        super(column, mismatches);
    }

    @Override
    public boolean readsValues() {
        return false;
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
