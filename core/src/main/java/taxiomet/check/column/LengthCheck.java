package taxiomet.check.column;

import java.util.Optional;
import taxiomet.charter.IntRange;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.Suspicion;
import taxiomet.values.TypedColumn;

/** Texts with too few or too many characters (Unicode code points). */
public final class LengthCheck extends ColumnCheck {
    private final IntRange range;

    /** @param range how many code points a text may have */
    public LengthCheck(int column, IntRange range, FaultLog faults) {
        super(column, faults);
        this.range = range;
    }

    @Override
    Optional<Suspicion> suspicion(int place) {
        return Optional.of(new Suspicion.LengthOutside(place, range));
    }

    @Override
    void find(TypedColumn values, TypedBatch batch, Faults faults) {
        for (int row = 0; row < batch.size(); row++) {
            if (values.isValue(row)) {
                long length = values.codePoints(row);
                if (!range.contains(length)) {
                    faults.add(batch.ref(row), length + (length == 1 ? " character" : " characters"));
                }
            }
        }
    }
}
