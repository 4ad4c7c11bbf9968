package taxiomet.expression;

import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** A date, a timestamp or a time, in microseconds. */
abstract class LongNode extends Node {
    long value;

    LongNode(Node... operands) {
        super(operands);
    }

    static final class Column extends LongNode {
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
            value = isNull ? 0 : column.high(row);
        }
    }

    static final class Constant extends LongNode {
        Constant(long value) {
            this.value = value;
        }

        @Override
        void evaluate(int row) {
            // It is always the same.
        }
    }

    /** The first of some that is not null. */
    static final class FirstOf extends LongNode {
        FirstOf(Node... some) {
            super(some);
        }

        @Override
        void evaluate(int row) {
            Node first = firstNotNull(row);
            isNull = first.isNull;
            if (!isNull) {
                value = ((LongNode) first).value;
            }
        }
    }
}
