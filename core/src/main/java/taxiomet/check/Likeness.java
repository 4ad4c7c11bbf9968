package taxiomet.check;

import java.math.BigDecimal;
import java.text.Normalizer;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.finding.Hint;

/** In what way two texts that are not equal may still mean the same. */
final class Likeness {
    private static final Pattern NUMBER = Pattern.compile("[+-]?(\\d{1,40}(\\.\\d{0,40})?|\\.\\d{1,40})");
    private static final Pattern DAY_FIRST = Pattern.compile("(\\d{1,2})[./-](\\d{1,2})[./-](\\d{4})");
    private static final Pattern YEAR_FIRST =
            Pattern.compile("(\\d{4})[./-]?(\\d{2})[./-]?(\\d{2})(?:[t ]00:00(?::00(?:\\.0+)?)?)?");
    private static final int MOST_DIGITS = 18;
    private static final int LONGEST_PLAIN_NUMBER = 20;
    private static final int LEAST_FOR_EDITS = 4;
    private static final int LEAST_DIGITS_FOR_EDITS = 6;

    private Likeness() {}

    /** Without white space at the ends, no-break and zero-width blanks too. */
    static String trim(String text) {
        int from = 0;
        int to = text.length();
        while (from < to && isBlank(text.charAt(from))) {
            from++;
        }
        while (to > from && isBlank(text.charAt(to - 1))) {
            to--;
        }
        return text.substring(from, to);
    }

    private static boolean isBlank(char c) {
        return c <= ' '
                || Character.isWhitespace(c)
                || Character.isSpaceChar(c)
                || (c >= '\u200B' && c <= '\u200D')
                || c == '\uFEFF';
    }

    private static String fold(String text) {
        return ColumnKeys.fold(trim(text));
    }

    private static String withoutZeros(String text) {
        String folded = fold(text);
        int from = 0;
        while (from < folded.length() - 1 && folded.charAt(from) == '0' && folded.charAt(from + 1) != '.') {
            from++;
        }
        return folded.substring(from);
    }

    /** One text for all texts that differ in nothing but spelling. */
    static String skeleton(String text) {
        String plain = fold(normalized(text));
        if (plain.isEmpty() || plain.charAt(0) > '9') {
            // Neither a number nor a date: the patterns need not be tried.
            return plain;
        }
        if (NUMBER.matcher(plain).matches()) {
            BigDecimal number = new BigDecimal(plain.startsWith("+") ? plain.substring(1) : plain);
            return number.stripTrailingZeros().toPlainString();
        }
        Matcher day = DAY_FIRST.matcher(plain);
        if (day.matches()) {
            return day.group(3) + "-" + twoDigits(day.group(2)) + "-" + twoDigits(day.group(1));
        }
        Matcher year = YEAR_FIRST.matcher(plain);
        if (year.matches()) {
            return year.group(1) + "-" + year.group(2) + "-" + year.group(3);
        }
        return withoutZeros(plain);
    }

    /** The text in normal form KC, in which a text of ASCII characters always is. */
    private static String normalized(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) >= 0x80) {
                return Normalizer.normalize(text, Normalizer.Form.NFKC);
            }
        }
        return text;
    }

    private static String twoDigits(String digits) {
        return digits.length() == 1 ? "0" + digits : digits;
    }

    /** How two keys with the same skeletons differ; empty when they do not differ at all. */
    static Optional<Hint.Kind> difference(List<String> one, List<String> other) {
        Optional<Hint.Kind> most = Optional.empty();
        for (int i = 0; i < one.size(); i++) {
            Optional<Hint.Kind> here = difference(one.get(i), other.get(i));
            if (here.isPresent() && (most.isEmpty() || here.get().compareTo(most.get()) > 0)) {
                most = here;
            }
        }
        return most;
    }

    private static Optional<Hint.Kind> difference(String one, String other) {
        if (one.equals(other)) {
            return Optional.empty();
        } else if (trim(one).equals(trim(other))) {
            return Optional.of(Hint.Kind.TRIMMED);
        } else if (fold(one).equals(fold(other))) {
            return Optional.of(Hint.Kind.OTHER_CASE);
        } else if (withoutZeros(one).equals(withoutZeros(other))) {
            return Optional.of(Hint.Kind.LEADING_ZEROS);
        }
        return Optional.of(
                normalized(fold(one)).equals(normalized(fold(other))) ? Hint.Kind.UNICODE_FORM : Hint.Kind.OTHER_TYPE);
    }

    /**
     * Whether two keys differ by one keystroke: a character more, less, another one, or two that changed places. Short
     * numbers never do: among dense numbers every one has such neighbours.
     */
    static boolean isOneEditApart(List<String> one, List<String> other) {
        int differing = -1;
        for (int i = 0; i < one.size(); i++) {
            if (!one.get(i).equals(other.get(i))) {
                if (differing >= 0) {
                    return false;
                }
                differing = i;
            }
        }
        if (differing < 0) {
            return false;
        }
        String a = one.get(differing);
        String b = other.get(differing);
        int shorter = Math.min(a.length(), b.length());
        boolean areNumbers = NUMBER.matcher(a).matches() && NUMBER.matcher(b).matches();
        return shorter >= (areNumbers ? LEAST_DIGITS_FOR_EDITS : LEAST_FOR_EDITS) && isOneEditApart(a, b);
    }

    /** Whether a text is a whole number as it is usually written, and fits into a long. */
    static boolean isPlainNumber(String text) {
        int start = text.startsWith("-") ? 1 : 0;
        int digits = text.length() - start;
        if (digits < 1 || digits > MOST_DIGITS || text.charAt(start) == '0') {
            return text.equals("0");
        }
        for (int i = start; i < text.length(); i++) {
            if (text.charAt(i) < '0' || text.charAt(i) > '9') {
                return false;
            }
        }
        return true;
    }

    /** All texts one keystroke away from a text that may be whole numbers. */
    static Set<String> numbersOneEditFrom(String text) {
        Set<String> all = new LinkedHashSet<>();
        if (text.length() > LONGEST_PLAIN_NUMBER) {
            return all;
        }
        for (int i = 0; i <= text.length(); i++) {
            String before = text.substring(0, i);
            String from = text.substring(i);
            for (char c : "-0123456789".toCharArray()) {
                all.add(before + c + from);
                if (!from.isEmpty()) {
                    all.add(before + c + from.substring(1));
                }
            }
            if (!from.isEmpty()) {
                all.add(before + from.substring(1));
            }
            if (from.length() > 1) {
                all.add(before + from.charAt(1) + from.charAt(0) + from.substring(2));
            }
        }
        all.remove(text);
        return all;
    }

    private static boolean isOneEditApart(String a, String b) {
        int start = 0;
        int shorter = Math.min(a.length(), b.length());
        while (start < shorter && a.charAt(start) == b.charAt(start)) {
            start++;
        }
        int end = 0;
        while (end < shorter - start && a.charAt(a.length() - 1 - end) == b.charAt(b.length() - 1 - end)) {
            end++;
        }
        int restOfA = a.length() - start - end;
        int restOfB = b.length() - start - end;
        if (restOfA <= 1 && restOfB <= 1) {
            return true;
        }
        return restOfA == 2
                && restOfB == 2
                && a.charAt(start) == b.charAt(start + 1)
                && a.charAt(start + 1) == b.charAt(start);
    }
}
