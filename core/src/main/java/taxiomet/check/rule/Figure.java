package taxiomet.check.rule;

import java.math.BigDecimal;
import java.util.Arrays;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.Type;
import taxiomet.expression.Evaluator;
import taxiomet.expression.ExactSum;
import taxiomet.expression.StoredValues;
import taxiomet.expression.StoredValues.Kind;

/**
 * What the children of one row come to, as they are added one by one (ISO/IEC 9075-2, 10.9). Sums are exact, those of floating-point
 * numbers too, and rounded at the end alone, so that the order of the children does not matter.
 */
final class Figure {
    private final ChildrenValue wanted;
    private final ExactSum sum = new ExactSum();
    private long count;
    /** What infinities and NaN among the values add up to, which has no exact sum; 0 without any. */
    private double beyond;

    /** The least or greatest value so far, and its longs; null without any. */
    private Object extreme;

    private long[] extremeLongs;
    private boolean isIllTyped;

    Figure(ChildrenValue wanted) {
        this.wanted = wanted;
    }

    /** A child is there, whatever its values. */
    void addRow() {
        count++;
    }

    /** Adds the value of a child, the next of a record, which is passed over. */
    void addNext(StoredValues from) {
        Kind kind = from.kind();
        int start = from.place();
        if (kind == Kind.ILL_TYPED) {
            isIllTyped = true;
        } else if (kind != Kind.NULL) {
            count++;
            switch (wanted.aggregate()) {
                case COUNT -> {}
                case SUM, AVG -> addNumber(kind, from);
                case MIN, MAX -> addExtreme(from);
            }
        }
        from.goTo(start);
        from.skip();
    }

    private void addNumber(Kind kind, StoredValues from) {
        if (kind == Kind.NUMBER) {
            sum.add(from.second(), from.scale());
            return;
        } else if (kind == Kind.WIDE) {
            sum.add(from.wide());
            return;
        }
        double number = Double.longBitsToDouble(from.second());
        if (Double.isNaN(number) || Double.isInfinite(number)) {
            beyond += number;
        } else {
            sum.add(new BigDecimal(number));
        }
    }

    private void addExtreme(StoredValues from) {
        Object value = from.value();
        int order = extreme == null ? 0 : Evaluator.compare(value, extreme);
        boolean isBeyond = wanted.aggregate() == Aggregate.MIN ? order < 0 : order > 0;
        if (extreme == null || isBeyond) {
            int start = from.place();
            from.skip();
            extreme = value;
            extremeLongs = Arrays.copyOfRange(from.longs(), start, from.place());
        }
    }

    /** Adds what it has come to to a record; of the wrong type where a child's value is. */
    void addTo(StoredValues record) {
        if (isIllTyped) {
            record.addIllTyped();
            return;
        }
        switch (wanted.aggregate()) {
            case COUNT -> record.addNumber(count, 0);
            case SUM -> addTotal(record, sum.total());
            case AVG ->
                addTotal(record, count == 0 ? null : Evaluator.quotient(sum.total(), BigDecimal.valueOf(count)));
            case MIN, MAX -> {
                if (extreme == null) {
                    record.addNull();
                } else {
                    record.addAll(extremeLongs, 0, extremeLongs.length);
                }
            }
        }
    }

    private void addTotal(StoredValues record, BigDecimal total) {
        if (count == 0) {
            record.addNull();
        } else if (wanted.type() == Type.APPROXIMATE) {
            record.addDouble(beyond == 0 ? total.doubleValue() : beyond);
        } else {
            record.addNumber(total);
        }
    }
}
