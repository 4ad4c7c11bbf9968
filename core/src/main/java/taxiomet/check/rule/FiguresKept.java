package taxiomet.check.rule;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;

/**
 * What the children of the rows at fault come to, for those who read the evidence: for each figure of a rule the digits and the
 * scale of a number, by row. Figures of other types are not kept: there the condition says enough.
 */
final class FiguresKept implements AutoCloseable {
    /** In the place of a scale: there is no figure. */
    private static final long IS_NULL = Long.MIN_VALUE;

    /** Added to the scale of a number that was rounded; a multiple of what an int holds, which takes it off again. */
    private static final long ROUNDED = 1L << 40;

    /** Longer numbers are rounded to so many digits. */
    private static final MathContext DIGITS = new MathContext(18);

    private final List<ChildrenValue> figures;
    private final List<SortedSpool> digits = new ArrayList<>();
    private final List<SortedSpool> scales = new ArrayList<>();
    private final List<SortedSpool.Reader> readers = new ArrayList<>();
    private long last = Long.MAX_VALUE;

    /** @param figures of one rule; those that are no numbers are left out */
    FiguresKept(List<ChildrenValue> figures, SpillFolder spill) {
        this.figures =
                figures.stream().filter(figure -> figure.type().isNumber()).toList();
        this.figures.forEach(figure -> {
            digits.add(new SortedSpool(spill));
            scales.add(new SortedSpool(spill));
        });
    }

    /** The figures that are kept. */
    List<ChildrenValue> figures() {
        return figures;
    }

    /** Keeps the figures of a row, in the order of {@link #figures}: numbers as expressions have them, or null. */
    void add(long ref, List<Object> values) {
        for (int i = 0; i < figures.size(); i++) {
            Object value = values.get(i);
            BigDecimal number = value instanceof BigDecimal exact
                    ? exact
                    : value instanceof Double real && Double.isFinite(real) ? new BigDecimal(real.toString()) : null;
            boolean isLong = number != null && number.unscaledValue().bitLength() >= Long.SIZE;
            BigDecimal kept = isLong ? number.round(DIGITS) : number;
            digits.get(i).add(ref, kept == null ? 0 : kept.unscaledValue().longValueExact());
            scales.get(i).add(ref, kept == null ? IS_NULL : isLong ? kept.scale() + ROUNDED : kept.scale());
        }
    }

    /** The figures of a row as a clause; rows are asked for in ascending order, and from the first on again. */
    String wordsFor(long ref) {
        if (ref <= last) {
            readers.clear();
            for (int i = 0; i < figures.size(); i++) {
                readers.add(digits.get(i).read());
                readers.add(scales.get(i).read());
            }
        }
        last = ref;
        List<String> clauses = new ArrayList<>();
        for (int i = 0; i < figures.size(); i++) {
            SortedSpool.Reader digit = readers.get(2 * i);
            SortedSpool.Reader scale = readers.get(2 * i + 1);
            do {
                if (!digit.next() || !scale.next()) {
                    return "";
                }
            } while (digit.first() < ref);
            boolean isRounded = scale.second() > ROUNDED / 2;
            clauses.add(figures.get(i).text() + " is " + (isRounded ? "about " : "")
                    + (scale.second() == IS_NULL ? "null" : plain(digit.second(), (int) scale.second())));
        }
        return String.join(", ", clauses);
    }

    private static String plain(long digits, int scale) {
        BigDecimal number = new BigDecimal(BigInteger.valueOf(digits), scale);
        BigDecimal shortest = number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
        return Math.abs(shortest.scale()) > 40 ? shortest.toString() : shortest.toPlainString();
    }

    @Override
    public void close() {
        digits.forEach(SortedSpool::close);
        scales.forEach(SortedSpool::close);
    }
}
