package taxiomet.expression;

import java.util.Optional;
import java.util.stream.IntStream;
import taxiomet.charter.Condition;
import taxiomet.charter.Expression;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** Tells for which rows of a batch a key or link is declared: those for which its condition is true. It serves one thread. */
public final class RowFilter {
    private final Expression condition;
    private final int[] columns;
    private final CompiledCondition compiled;
    private TypedBatch batch;

    private RowFilter(Expression condition) {
        this.condition = condition;
        this.columns = condition.columnsRead();
        this.compiled = new CompiledCondition(condition);
    }

    /** The filter for a condition; null, which stands for all rows and costs nothing, where there is none. */
    public static RowFilter of(Optional<Condition> condition) {
        return condition.map(c -> new RowFilter(c.value())).orElse(null);
    }

    /** Another one for the same condition, to be used on another thread; null for null. */
    public static RowFilter copyOf(RowFilter filter) {
        return filter == null ? null : new RowFilter(filter.condition);
    }

    /** Places of the columns that a check of keys reads, and of those that its filter does, each once. */
    public static int[] columnsOf(int[] own, RowFilter filter) {
        return filter == null
                ? own
                : IntStream.concat(IntStream.of(own), IntStream.of(filter.columns))
                        .distinct()
                        .toArray();
    }

    /** The batch whose rows come next. */
    public void start(TypedBatch toRead) {
        batch = toRead;
        compiled.start(toRead);
    }

    /** Whether the condition is true for a row; not where one of its operands is not of its type, or it divides by zero. */
    public boolean holds(int row) {
        for (int column : columns) {
            if (batch.column(column).state(row) == TypedColumn.BAD) {
                return false;
            }
        }
        try {
            return compiled.at(row) == CompiledCondition.Truth.TRUE;
        } catch (DivisionByZero e) {
            return false;
        }
    }
}
