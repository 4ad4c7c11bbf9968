package taxiomet.reports.words;

import java.math.BigDecimal;
import java.util.List;

/** Counts with their nouns, for people. */
public final class Counted {
    private Counted() {}

    /** A count and its noun, in the plural where it needs one. */
    public static String of(long count, String what) {
        return grouped(count) + " " + what + (count == 1 ? "" : "s");
    }

    /** A count with a comma between thousands. */
    public static String grouped(long number) {
        StringBuilder digits = new StringBuilder(Long.toString(number));
        for (int i = digits.length() - 3; i > 0; i -= 3) {
            digits.insert(i, ',');
        }
        return digits.toString();
    }

    /** A number with a comma between thousands. */
    public static String amount(BigDecimal number) {
        String plain = number.abs().toPlainString();
        int point = plain.indexOf('.') < 0 ? plain.length() : plain.indexOf('.');
        StringBuilder grouped = new StringBuilder(plain);
        for (int i = point - 3; i > 0; i -= 3) {
            grouped.insert(i, ',');
        }
        return (number.signum() < 0 ? "-" : "") + grouped;
    }

    /** Some things one after the other: a, b and c. */
    public static String listed(List<String> things) {
        int last = things.size() - 1;
        return last == 0 ? things.get(0) : String.join(", ", things.subList(0, last)) + " and " + things.get(last);
    }
}
