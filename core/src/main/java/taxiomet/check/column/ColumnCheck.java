package taxiomet.check.column;

import java.util.List;
import java.util.Optional;
import java.util.function.IntFunction;
import taxiomet.charter.Column;
import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.check.pass.RowCheck;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.Suspicion;
import taxiomet.values.TypedColumn;

/** A check of the values of one column. */
abstract class ColumnCheck implements RowCheck {
    private final int column;
    private final FaultLog log;

    /** @param log gets the rows at fault */
    ColumnCheck(int column, FaultLog log) {
        this.column = column;
        this.log = log;
    }

    /** Finds the rows of a batch that are at fault. Several threads do so at once. */
    abstract void find(TypedColumn values, TypedBatch batch, Faults faults);

    /** Whether all values are of a column's type, and spelled as it asks for: a format of its own is one that no type tells. */
    static boolean vouchesFor(Column column, ColumnFacts facts) {
        return column.format().isEmpty()
                && !column.decimalComma()
                && facts.type().isWithin(column.type());
    }

    /** Whether it would find nothing in a column of which so much is known. */
    boolean isNeedless(ColumnFacts facts) {
        return false;
    }

    @Override
    public boolean isNeedless(IntFunction<Optional<ColumnFacts>> facts) {
        return facts.apply(column).filter(this::isNeedless).isPresent();
    }

    /** @see RowCheck#suspicions */
    Optional<Suspicion> suspicion(int place) {
        return Optional.empty();
    }

    @Override
    public final Optional<List<Suspicion>> suspicions() {
        return suspicion(column).map(List::of);
    }

    @Override
    public int[] columns() {
        return new int[] {column};
    }

    @Override
    public BatchCheck onThread() {
        Faults faults = new Faults(log);
        return new BatchCheck() {
            @Override
            public void look(TypedBatch batch) {
                find(batch.column(column), batch, faults);
            }

            @Override
            public void settle() {
                faults.settle();
            }
        };
    }
}
