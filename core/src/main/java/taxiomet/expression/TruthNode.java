package taxiomet.expression;

import taxiomet.charter.Expression.Comparator;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** True, false or, where it is null, unknown. */
abstract class TruthNode extends Node {
    boolean isTrue;

    TruthNode(Node... operands) {
        super(operands);
    }

    static final class Column extends TruthNode {
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
            isTrue = !isNull && column.high(row) == 1;
        }
    }

    static final class Constant extends TruthNode {
        Constant(boolean isTrue) {
            this.isTrue = isTrue;
        }

        @Override
        void evaluate(int row) {
            // It is always the same.
        }
    }

    static final class Compared extends TruthNode {
        private final Comparator comparator;
        private final Node left;
        private final Node right;

        Compared(Comparator comparator, Node left, Node right) {
            super(left, right);
            this.comparator = comparator;
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
            int order = compare(left, right);
            isTrue = switch (comparator) {
                case EQUAL -> order == 0;
                case NOT_EQUAL -> order != 0;
                case LESS -> order < 0;
                case LESS_OR_EQUAL -> order <= 0;
                case GREATER -> order > 0;
                case GREATER_OR_EQUAL -> order >= 0;
            };
        }
    }

    /** AND, which one false operand decides, and OR, which one true operand does. */
    static final class Several extends TruthNode {
        private final TruthNode[] all;
        private final boolean deciding;

        Several(boolean deciding, TruthNode... all) {
            super(all);
            this.all = all.clone();
            this.deciding = deciding;
        }

        @Override
        void evaluate(int row) {
            boolean isUnknown = false;
            for (TruthNode each : all) {
                each.evaluate(row);
                if (each.isNull) {
                    isUnknown = true;
                } else if (each.isTrue == deciding) {
                    isNull = false;
                    isTrue = deciding;
                    return;
                }
            }
            isNull = isUnknown;
            isTrue = !deciding;
        }
    }

    static final class Not extends TruthNode {
        private final TruthNode operand;

        Not(TruthNode operand) {
            super(operand);
            this.operand = operand;
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            isNull = operand.isNull;
            isTrue = !operand.isTrue;
        }
    }

    static final class IsNull extends TruthNode {
        private final Node operand;

        IsNull(Node operand) {
            super(operand);
            this.operand = operand;
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            isTrue = operand.isNull;
        }
    }

    static final class In extends TruthNode {
        private final Node operand;
        private final Node[] list;

        In(Node operand, Node... list) {
            super(list);
            this.operand = operand;
            this.list = list.clone();
        }

        @Override
        void start(TypedBatch batch) {
            super.start(batch);
            operand.start(batch);
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            boolean isUnknown = operand.isNull;
            isTrue = false;
            for (Node element : list) {
                element.evaluate(row);
                if (element.isNull) {
                    isUnknown = true;
                } else if (!operand.isNull && compare(operand, element) == 0) {
                    isNull = false;
                    isTrue = true;
                    return;
                }
            }
            isNull = isUnknown;
        }
    }

    static final class Between extends TruthNode {
        private final Node operand;
        private final Node low;
        private final Node high;

        Between(Node operand, Node low, Node high) {
            super(operand, low, high);
            this.operand = operand;
            this.low = low;
            this.high = high;
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            low.evaluate(row);
            high.evaluate(row);
            boolean knowsLow = !operand.isNull && !low.isNull;
            boolean knowsHigh = !operand.isNull && !high.isNull;
            boolean isBelow = knowsLow && compare(operand, low) < 0;
            boolean isAbove = knowsHigh && compare(operand, high) > 0;
            isTrue = !isBelow && !isAbove;
            isNull = isTrue && !(knowsLow && knowsHigh);
        }
    }

    static final class Like extends TruthNode {
        private final TextNode text;
        private final LikePattern pattern;

        Like(TextNode text, LikePattern pattern) {
            super(text);
            this.text = text;
            this.pattern = pattern;
        }

        @Override
        void evaluate(int row) {
            text.evaluate(row);
            isNull = text.isNull;
            isTrue = !isNull && pattern.matches(text.bytes, text.start, text.length);
        }
    }

    /** The first of some that is not null. */
    static final class FirstOf extends TruthNode {
        FirstOf(Node... some) {
            super(some);
        }

        @Override
        void evaluate(int row) {
            Node first = firstNotNull(row);
            isNull = first.isNull;
            if (!isNull) {
                isTrue = ((TruthNode) first).isTrue;
            }
        }
    }
}
