package taxiomet.check;

import taxiomet.charter.IntRange;
import taxiomet.rows.TypedColumn;

/** Texts with too few or too many characters (Unicode code points). */
final class LengthCheck implements RowCheck {
    private final int column;
    private final IntRange range;
    private final FaultLog faults;

    LengthCheck(int column, IntRange range, FaultLog faults) {
        this.column = column;
        this.range = range;
        this.faults = faults;
    }

    @Override
    public int[] columns() {
        return new int[] {column};
    }

    @Override
    public void check(TypedBatch batch) {
        TypedColumn typed = batch.column(column);
        for (int row = 0; row < batch.size(); row++) {
            if (typed.isValue(row)) {
                long length = typed.codePoints(row);
                if (!range.contains(length)) {
                    faults.add(batch.ref(row), length + (length == 1 ? " character" : " characters"));
                }
            }
        }
    }
}
