package taxiomet.check;

import taxiomet.rows.TypedColumn;

/** Nulls in a column that is declared not null. */
final class RequiredCheck implements RowCheck {
    private final int column;
    private final FaultLog missing;

    RequiredCheck(int column, FaultLog missing) {
        this.column = column;
        this.missing = missing;
    }

    @Override
    public int[] columns() {
        return new int[] {column};
    }

    @Override
    public void check(TypedBatch batch) {
        TypedColumn typed = batch.column(column);
        for (int row = 0; row < batch.size(); row++) {
            if (typed.state(row) == TypedColumn.NULL) {
                missing.add(batch.ref(row));
            }
        }
    }
}
