package taxiomet.check.rule;

import java.math.BigDecimal;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.Type;
import taxiomet.expression.Evaluator;

/**
 * What the children of one row come to, as they are added one by one (ISO/IEC 9075-2, 10.9). Sums are exact, those of floating-point
 * numbers too, and rounded at the end alone, so that the order of the children does not matter.
 */
final class Figure {
    private final ChildrenValue wanted;
    private long count;
    private BigDecimal sum = BigDecimal.ZERO;
    /** What infinities and NaN among the values add up to, which has no exact sum; 0 without any. */
    private double beyond;

    private Object extreme;
    private boolean isIllTyped;

    Figure(ChildrenValue wanted) {
        this.wanted = wanted;
    }

    /** A child is there, whatever its values. */
    void addRow() {
        count++;
    }

    /** Adds the value of a child: as {@link Evaluator} has it, null, or {@link StoredValues#ILL_TYPED}. */
    void add(Object value) {
        if (value == null) {
            return;
        }
        if (StoredValues.ILL_TYPED.equals(value)) {
            isIllTyped = true;
            return;
        }
        count++;
        switch (wanted.aggregate()) {
            case COUNT -> {}
            case SUM, AVG -> addNumber(value);
            case MIN -> extreme = extreme == null || Evaluator.compare(value, extreme) < 0 ? value : extreme;
            case MAX -> extreme = extreme == null || Evaluator.compare(value, extreme) > 0 ? value : extreme;
        }
    }

    private void addNumber(Object value) {
        if (value instanceof BigDecimal number) {
            sum = sum.add(number);
            return;
        }
        double number = (Double) value;
        if (Double.isNaN(number) || Double.isInfinite(number)) {
            beyond += number;
        } else {
            sum = sum.add(new BigDecimal(number));
        }
    }

    /** What it has come to; {@link StoredValues#ILL_TYPED} where a child's value is not of its type. */
    Object value() {
        if (isIllTyped) {
            return StoredValues.ILL_TYPED;
        }
        return switch (wanted.aggregate()) {
            case COUNT -> BigDecimal.valueOf(count);
            case SUM -> count == 0 ? null : total();
            case AVG -> count == 0 ? null : average();
            case MIN, MAX -> extreme;
        };
    }

    private boolean isApproximate() {
        return wanted.type() == Type.APPROXIMATE;
    }

    private Object total() {
        return isApproximate() ? (Object) approximate(sum) : sum;
    }

    private Object average() {
        BigDecimal mean = Evaluator.quotient(sum, BigDecimal.valueOf(count));
        return isApproximate() ? (Object) approximate(mean) : mean;
    }

    private double approximate(BigDecimal exact) {
        return beyond == 0 ? exact.doubleValue() : beyond;
    }

    /** Whether a column is read for it, and not rows alone. */
    static boolean readsColumn(ChildrenValue wanted) {
        return wanted.aggregate() != Aggregate.COUNT || wanted.column().isPresent();
    }
}
