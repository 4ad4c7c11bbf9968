package taxiomet.expression;

import java.math.BigDecimal;

/** A sum of exact numbers, which makes no object as long as it is digits of a long and a scale. */
public final class ExactSum {
    private final ExactNode sum = new ExactNode.Constant(BigDecimal.ZERO);

    /** Adds a number: its digits without a point, and how many stand behind it, at least 0. */
    public void add(long digits, int scale) {
        boolean isDone = sum.wide == null && sum.setSum(sum.digits, sum.scale, digits, scale);
        if (!isDone) {
            add(BigDecimal.valueOf(digits, scale));
        }
    }

    public void add(BigDecimal number) {
        sum.set(sum.number().add(number));
    }

    public BigDecimal total() {
        return sum.number();
    }
}
