package taxiomet.expression;

import java.util.Optional;
import java.util.function.ToIntFunction;
import taxiomet.charter.Expression;
import taxiomet.keys.TypedBatch;

/**
 * A condition made ready for the rows of many batches, without an object for a cell (see {@link NodeCompiler} for the few exceptions). It comes to what the {@link Evaluator} says. It serves one thread.
 */
public final class CompiledCondition {
    /** What a condition comes to for a row. */
    public enum Truth {
        TRUE,
        FALSE,
        UNKNOWN
    }

    private final Expression condition;
    private final Optional<TruthNode> compiled;
    private final BatchEvaluator evaluator;

    /** @param condition an expression of type boolean over a row's own columns */
    public CompiledCondition(Expression condition) {
        this(condition, BatchEvaluator::placeInTable);
    }

    /**
     * A condition over rows of any kind.
     *
     * @param places gives the column of the batch in which the value of a leaf stands: one object of the condition's tree each
     */
    public CompiledCondition(Expression condition, ToIntFunction<Expression> places) {
        this.condition = condition;
        this.compiled = NodeCompiler.condition(condition, places);
        this.evaluator = new BatchEvaluator(places);
    }

    /** The batch whose rows come next; it holds all columns that the condition reads. */
    public void start(TypedBatch batch) {
        if (compiled.isPresent()) {
            compiled.get().start(batch);
        } else {
            evaluator.start(batch);
        }
    }

    /**
     * What the condition comes to for a row of the batch.
     *
     * @throws DivisionByZero when a division by zero is evaluated
     */
    public Truth at(int row) {
        if (compiled.isPresent()) {
            TruthNode node = compiled.get();
            node.evaluate(row);
            return node.isNull ? Truth.UNKNOWN : node.isTrue ? Truth.TRUE : Truth.FALSE;
        }
        Object value = evaluator.evaluate(condition, row);
        return value == null ? Truth.UNKNOWN : (Boolean) value ? Truth.TRUE : Truth.FALSE;
    }

    /** Whether no part of it was left to the evaluator. */
    boolean isCompiled() {
        return compiled.isPresent();
    }
}
