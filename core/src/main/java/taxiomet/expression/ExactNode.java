package taxiomet.expression;

import java.math.BigDecimal;
import taxiomet.charter.Expression.Operator;
import taxiomet.keys.ColumnKeys;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/**
 * An exact number: digits and scale, which is not negative, as two longs while they fit. What does not fit is reckoned with as a {@link
 * BigDecimal}, so that every result is exact.
 */
abstract class ExactNode extends Node {
    private static final int MOST_TENS = 18;
    private static final long[] TENS = new long[MOST_TENS + 1];
    /** Up to here a long and a power of ten are exact as doubles, so that their quotient is the nearest one. */
    private static final long EXACT_DIGITS = 1L << 52;

    private static final int EXACT_TENS = 22;

    static {
        TENS[0] = 1;
        for (int i = 1; i < TENS.length; i++) {
            TENS[i] = 10 * TENS[i - 1];
        }
    }

    long digits;
    int scale;
    /** The number, where two longs do not hold it; otherwise null. */
    BigDecimal wide;

    ExactNode(Node... operands) {
        super(operands);
    }

    final BigDecimal number() {
        return wide != null ? wide : BigDecimal.valueOf(digits, scale);
    }

    final void set(long newDigits, int newScale) {
        digits = newDigits;
        scale = newScale;
        wide = null;
    }

    final void set(BigDecimal number) {
        if (number.scale() >= 0 && number.unscaledValue().bitLength() < Long.SIZE) {
            set(number.unscaledValue().longValue(), number.scale());
        } else {
            wide = number;
        }
    }

    final void set(ExactNode other) {
        digits = other.digits;
        scale = other.scale;
        wide = other.wide;
    }

    /** Sets it to the sum of two numbers, each digits and scale; false, and it stays as it is, where the sum is not. */
    final boolean setSum(long oneDigits, int oneScale, long otherDigits, int otherScale) {
        long a = oneDigits;
        long b = otherDigits;
        int difference = oneScale - otherScale;
        if (difference > 0 && canScale(b, difference)) {
            b *= TENS[difference];
        } else if (difference < 0 && canScale(a, -difference)) {
            a *= TENS[-difference];
        } else if (difference != 0) {
            return false;
        }
        long sum = a + b;
        if (((a ^ sum) & (b ^ sum)) < 0) {
            return false;
        }
        set(sum, Math.max(oneScale, otherScale));
        return true;
    }

    final double asDouble() {
        if (wide == null && scale == 0) {
            return digits;
        } else if (wide == null && Math.abs(digits) < EXACT_DIGITS && scale <= Math.min(EXACT_TENS, MOST_TENS)) {
            return (double) digits / TENS[scale];
        }
        return number().doubleValue();
    }

    static int compare(ExactNode a, ExactNode b) {
        if (a.wide != null || b.wide != null) {
            return a.number().compareTo(b.number());
        } else if (a.scale == b.scale) {
            return Long.compare(a.digits, b.digits);
        }
        int difference = a.scale - b.scale;
        long small = difference > 0 ? b.digits : a.digits;
        if (!canScale(small, Math.abs(difference))) {
            return a.number().compareTo(b.number());
        }
        long scaled = small * TENS[Math.abs(difference)];
        return difference > 0 ? Long.compare(a.digits, scaled) : Long.compare(scaled, b.digits);
    }

    /** Whether a long times a power of ten is a long. */
    private static boolean canScale(long value, int tens) {
        if (tens > MOST_TENS) {
            return false;
        }
        long high = Math.multiplyHigh(value, TENS[tens]);
        long low = value * TENS[tens];
        return (high == 0 && low >= 0) || (high == -1 && low < 0);
    }

    /** A column of exact numbers. */
    static final class Column extends ExactNode {
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
            if (isNull) {
                return;
            }
            long low = column.low(row);
            if (low == TypedColumn.WIDE) {
                set(ColumnKeys.number(column, row));
            } else {
                set(column.high(row), (int) low);
            }
        }
    }

    static final class Constant extends ExactNode {
        /** @param number null for null */
        Constant(BigDecimal number) {
            isNull = number == null;
            if (number != null) {
                set(number.scale() < 0 ? number.setScale(0) : number);
            }
        }

        @Override
        void evaluate(int row) {
            // It is always the same.
        }
    }

    static final class Negated extends ExactNode {
        private final ExactNode operand;

        Negated(ExactNode operand) {
            super(operand);
            this.operand = operand;
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            isNull = operand.isNull;
            if (!isNull) {
                if (operand.wide == null && operand.digits != Long.MIN_VALUE) {
                    set(-operand.digits, operand.scale);
                } else {
                    set(operand.number().negate());
                }
            }
        }
    }

    static final class Reckoned extends ExactNode {
        private final Operator operator;
        private final ExactNode left;
        private final ExactNode right;
        private final boolean isWhole;

        /** @param isWhole whether a division gives a whole number, without the rest */
        Reckoned(Operator operator, ExactNode left, ExactNode right, boolean isWhole) {
            super(left, right);
            this.operator = operator;
            this.left = left;
            this.right = right;
            this.isWhole = isWhole;
        }

        @Override
        void evaluate(int row) {
            left.evaluate(row);
            right.evaluate(row);
            isNull = left.isNull || right.isNull;
            if (isNull) {
                return;
            }
            boolean isDone = left.wide == null
                    && right.wide == null
                    && switch (operator) {
                        case PLUS -> add(right.digits);
                        case MINUS -> right.digits != Long.MIN_VALUE && add(-right.digits);
                        case TIMES -> multiply();
                        case DIVIDED_BY -> divide();
                    };
            if (!isDone) {
                set(reckoned(left.number(), right.number()));
            }
        }

        private boolean add(long addend) {
            return setSum(left.digits, left.scale, addend, right.scale);
        }

        private boolean multiply() {
            long high = Math.multiplyHigh(left.digits, right.digits);
            long low = left.digits * right.digits;
            if (!((high == 0 && low >= 0) || (high == -1 && low < 0))) {
                return false;
            }
            set(low, left.scale + right.scale);
            return true;
        }

        private boolean divide() {
            if (right.digits == 0) {
                throw new DivisionByZero();
            }
            if (!isWhole || left.scale != 0 || right.scale != 0 || right.digits == -1) {
                return false;
            }
            set(left.digits / right.digits, 0);
            return true;
        }

        private BigDecimal reckoned(BigDecimal a, BigDecimal b) {
            return switch (operator) {
                case PLUS -> a.add(b);
                case MINUS -> a.subtract(b);
                case TIMES -> a.multiply(b);
                case DIVIDED_BY -> {
                    if (b.signum() == 0) {
                        throw new DivisionByZero();
                    }
                    yield isWhole ? a.divideToIntegralValue(b) : Evaluator.quotient(a, b);
                }
            };
        }
    }

    /** The first of some that is not null. */
    static final class FirstOf extends ExactNode {
        FirstOf(Node... some) {
            super(some);
        }

        @Override
        void evaluate(int row) {
            Node first = firstNotNull(row);
            isNull = first.isNull;
            if (!isNull) {
                set((ExactNode) first);
            }
        }
    }

    /** How many code points a text has. */
    static final class Length extends ExactNode {
        private final TextNode text;

        Length(TextNode text) {
            super(text);
            this.text = text;
        }

        @Override
        void evaluate(int row) {
            text.evaluate(row);
            isNull = text.isNull;
            if (!isNull) {
                int points = 0;
                for (int i = text.start; i < text.start + text.length; i++) {
                    points += TextNode.isContinuation(text.bytes[i]) ? 0 : 1;
                }
                set(points, 0);
            }
        }
    }
}
