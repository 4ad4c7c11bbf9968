package taxiomet.expression;

import taxiomet.charter.Expression.Operator;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** A floating-point number. */
abstract class DoubleNode extends Node {
    double value;

    DoubleNode(Node... operands) {
        super(operands);
    }

    static final class Column extends DoubleNode {
        private final int place;
        private TypedColumn column;

        Column(int place) {
            this.place = place;
        }

        @Override
        void start(TypedBatch batch) {
            column = batch.column(place);
        }

        @Override
        void evaluate(int row) {
            isNull = !column.isValue(row);
            value = isNull ? 0 : Double.longBitsToDouble(column.high(row));
        }
    }

    static final class Constant extends DoubleNode {
        Constant(double value) {
            this.value = value;
        }

        @Override
        void evaluate(int row) {
            // It is always the same.
        }
    }

    static final class Negated extends DoubleNode {
        private final Node operand;

        Negated(Node operand) {
            super(operand);
            this.operand = operand;
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            isNull = operand.isNull;
            value = isNull ? 0 : -asDouble(operand) + 0.0;
        }
    }

    /** Numbers of which at least one is no exact one. */
    static final class Reckoned extends DoubleNode {
        private final Operator operator;
        private final Node left;
        private final Node right;

        Reckoned(Operator operator, Node left, Node right) {
            super(left, right);
            this.operator = operator;
            this.left = left;
            this.right = right;
        }

        @Override
        void evaluate(int row) {
            left.evaluate(row);
            right.evaluate(row);
            isNull = left.isNull || right.isNull;
            if (isNull) {
                return;
            }
            double a = asDouble(left);
            double b = asDouble(right);
            value = switch (operator) {
                case PLUS -> a + b;
                case MINUS -> a - b;
                case TIMES -> a * b;
                case DIVIDED_BY -> {
                    if (b == 0) {
                        throw new DivisionByZero();
                    }
                    yield a / b;
                }
            };
        }
    }
}
