package taxiomet.check;

import taxiomet.rows.TypedColumn;

/** Values that are not of their column's type, and those that are but are oddly written. */
final class TypeCheck implements RowCheck {
    private final int column;
    private final FaultLog mismatches;
    private final FaultLog oddities;

    TypeCheck(int column, FaultLog mismatches, FaultLog oddities) {
        this.column = column;
        this.mismatches = mismatches;
        this.oddities = oddities;
    }

    @Override
    public int[] columns() {
        return new int[] {column};
    }

    @Override
    public void check(TypedBatch batch) {
        TypedColumn typed = batch.column(column);
        for (int row = 0; row < batch.size(); row++) {
            byte state = typed.state(row);
            if (state == TypedColumn.BAD) {
                mismatches.add(batch.ref(row), typed.refusal(row).words());
            } else if (state == TypedColumn.ODD) {
                oddities.add(batch.ref(row));
            }
        }
    }
}
