package taxiomet.expression;

import taxiomet.keys.TypedBatch;

/**
 * A part of a compiled expression: {@link #evaluate} puts the value of one row into its fields, without an object for it. It serves one
 * thread.
 */
abstract class Node {
    /** Whether the value last evaluated is null, or unknown. */
    boolean isNull;

    private final Node[] operands;

    Node(Node... operands) {
        this.operands = operands.clone();
    }

    /** The batch whose rows come next. */
    void start(TypedBatch batch) {
        for (Node operand : operands) {
            operand.start(batch);
        }
    }

    /** @throws DivisionByZero when a division by zero is evaluated */
    abstract void evaluate(int row);

    /** Evaluates the operands until one is not null: that one, or the last. There is at least one. */
    final Node firstNotNull(int row) {
        Node at = operands[0];
        for (Node each : operands) {
            at = each;
            at.evaluate(row);
            if (!at.isNull) {
                break;
            }
        }
        return at;
    }

    /** The order of the values last evaluated, neither of them null, as {@link Evaluator#compare} has it. */
    static int compare(Node left, Node right) {
        if (left instanceof ExactNode a && right instanceof ExactNode b) {
            return ExactNode.compare(a, b);
        } else if (left instanceof LongNode a) {
            return Long.compare(a.value, ((LongNode) right).value);
        } else if (left instanceof TextNode a) {
            return TextNode.compare(a, (TextNode) right);
        } else if (left instanceof TruthNode a) {
            return Boolean.compare(a.isTrue, ((TruthNode) right).isTrue);
        }
        return Double.compare(asDouble(left) + 0.0, asDouble(right) + 0.0);
    }

    /** A number last evaluated, exact or not, as a double. */
    static double asDouble(Node number) {
        return number instanceof DoubleNode real ? real.value : ((ExactNode) number).asDouble();
    }
}
