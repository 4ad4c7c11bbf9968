package taxiomet.check.rule;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.MathContext;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.personal.Pseudonyms;
import taxiomet.spill.LongSpool;
import taxiomet.spill.PackedBytes;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;
import taxiomet.values.ValueWriter;

/**
 * What the children of the rows at fault come to, for those who read the evidence.
 *
 * <p>For each figure of a rule there are two longs a row: of a number its digits and its scale; of a text where its bytes begin among all
 * texts, and how many there are; of any other value the long that it is.
 */
final class FiguresKept implements AutoCloseable {
    /** In the place of the second long: there is no figure. */
    private static final long IS_NULL = Long.MIN_VALUE;

    /** Added to the scale of a number that was rounded; a multiple of what an int holds, which takes it off again. */
    private static final long ROUNDED = 1L << 40;

    /** Longer numbers are rounded to so many digits. */
    private static final MathContext DIGITS = new MathContext(18);

    private static final int LONGEST_PLAIN = 40;
    /** In longs. */
    private static final int TEXTS_IN_MEMORY = 1 << 10;

    private final List<Kept> figures = new ArrayList<>();
    private final LongSpool texts;
    private long last = Long.MAX_VALUE;

    private static final class Kept {
        final Column figure;
        final ValueWriter writer;
        final SortedSpool firsts;
        final SortedSpool seconds;
        SortedSpool.Reader first;
        SortedSpool.Reader second;

        Kept(Column figure, SpillFolder spill) {
            this.figure = figure;
            this.writer = new ValueWriter(figure);
            this.firsts = new SortedSpool(spill);
            this.seconds = new SortedSpool(spill);
        }

        boolean isNumber() {
            Family family = figure.type().family();
            return family == Family.EXACT_NUMBER || family == Family.APPROXIMATE_NUMBER;
        }
    }

    /** @param figures of one rule, each as a column of its type, named as it is written */
    FiguresKept(List<Column> figures, SpillFolder spill) {
        figures.forEach(figure -> this.figures.add(new Kept(figure, spill)));
        texts = new LongSpool(spill, TEXTS_IN_MEMORY);
    }

    /** Keeps the figures of a row, in their order: as expressions have them, or null. */
    void add(long ref, List<Object> values) {
        for (int i = 0; i < values.size(); i++) {
            Kept kept = figures.get(i);
            Object value = values.get(i);
            if (value == null || (value instanceof Double real && !Double.isFinite(real))) {
                keep(kept, ref, 0, IS_NULL);
            } else if (kept.isNumber()) {
                keepNumber(kept, ref, value instanceof BigDecimal exact ? exact : new BigDecimal(value.toString()));
            } else if (value instanceof String text) {
                byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
                keep(kept, ref, texts.size(), utf8.length);
                PackedBytes.write(utf8, 0, utf8.length, texts::add);
            } else {
                keep(kept, ref, value instanceof Boolean truth ? (truth ? 1 : 0) : (Long) value, 0);
            }
        }
    }

    private static void keepNumber(Kept kept, long ref, BigDecimal number) {
        boolean isLong = number.unscaledValue().bitLength() >= Long.SIZE;
        BigDecimal rounded = isLong ? number.round(DIGITS) : number;
        keep(kept, ref, rounded.unscaledValue().longValueExact(), isLong ? rounded.scale() + ROUNDED : rounded.scale());
    }

    private static void keep(Kept kept, long ref, long first, long second) {
        kept.firsts.add(ref, first);
        kept.seconds.add(ref, second);
    }

    /** The figures of a row as a clause; rows are asked for in ascending order, and from the first on again. */
    String wordsFor(long ref) {
        if (ref <= last) {
            for (Kept kept : figures) {
                kept.first = kept.firsts.read();
                kept.second = kept.seconds.read();
            }
        }
        last = ref;
        List<String> clauses = new ArrayList<>();
        for (Kept kept : figures) {
            do {
                if (!kept.first.next() || !kept.second.next()) {
                    return "";
                }
            } while (kept.first.first() < ref);
            clauses.add(kept.figure.name() + " is " + words(kept, kept.first.second(), kept.second.second()));
        }
        return String.join(", ", clauses);
    }

    private String words(Kept kept, long first, long second) {
        if (second == IS_NULL) {
            return "null";
        } else if (kept.figure.isPersonal()) {
            return Pseudonyms.HIDDEN;
        } else if (kept.isNumber()) {
            return (second > ROUNDED / 2 ? "about " : "") + plain(first, (int) second);
        }
        return switch (kept.figure.type().family()) {
            case TEXT, UUID -> {
                LongSpool.Reader in = texts.read(first);
                yield new String(PackedBytes.read(in::next, (int) second), StandardCharsets.UTF_8);
            }
            case BOOLEAN -> Boolean.toString(first == 1);
            default -> kept.writer.write(first);
        };
    }

    private static String plain(long digits, int scale) {
        BigDecimal number = new BigDecimal(BigInteger.valueOf(digits), scale);
        BigDecimal shortest = number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
        return Math.abs(shortest.scale()) > LONGEST_PLAIN ? shortest.toString() : shortest.toPlainString();
    }

    @Override
    public void close() {
        figures.forEach(kept -> {
            kept.firsts.close();
            kept.seconds.close();
        });
        texts.close();
    }
}
