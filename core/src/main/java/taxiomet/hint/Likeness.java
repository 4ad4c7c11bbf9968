package taxiomet.hint;

import java.math.BigDecimal;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.finding.Hint;
import taxiomet.values.SqlText;

/** In what way two texts that are not equal may still mean the same. */
final class Likeness {
    private static final Pattern NUMBER = Pattern.compile("[+-]?(\\d{1,40}(\\.\\d{0,40})?|\\.\\d{1,40})");
    private static final Pattern DAY_FIRST = Pattern.compile("(\\d{1,2})[./-](\\d{1,2})[./-](\\d{4})");
    private static final Pattern YEAR_FIRST =
            Pattern.compile("(\\d{4})[./-]?(\\d{2})[./-]?(\\d{2})(?:[t ]00:00(?::00(?:\\.0+)?)?)?");
    private static final Pattern PADDING = Pattern.compile("(?<!\\d)0+(?=\\d)");
    /** Of a long. */
    private static final int MOST_DIGITS = 19;

    private static final int LEAST_FOR_EDITS = 2;
    private static final int LEAST_DIGITS_FOR_EDITS = 6;

    /** How a text may be spelled otherwise, the likeliest first. */
    private static final List<Hint.Kind> SPELLINGS = List.of(
            Hint.Kind.TRIMMED,
            Hint.Kind.OTHER_CASE,
            Hint.Kind.LEADING_ZEROS,
            Hint.Kind.UNICODE_FORM,
            Hint.Kind.OTHER_TYPE);

    /** How unlikely each keystroke is: a text of so many characters times three allows it. */
    private static final double DOUBLED = 0.6;

    private static final double TURNED = 0.8;
    private static final double CHARACTER_TOO_MANY = 1.0;
    private static final double OTHER_CHARACTER = 1.1;
    private static final double DIGIT_TOO_MANY = 1.2;
    private static final double OTHER_DIGIT = 1.6;

    private static final double SWAPPED_PARTS = 0.18;

    private Likeness() {}

    /** The single characters that look like one. */
    static List<String> singlesAlike(String bone) {
        List<String> alike = new ArrayList<>();
        for (char c = '0'; c <= 'z'; c++) {
            if (BONES[c] == bone.charAt(0)) {
                alike.add(String.valueOf(c));
            }
        }
        return alike;
    }

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
        return SqlText.fold(trim(text));
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
        return isAscii(text) ? text : Normalizer.normalize(text, Normalizer.Form.NFKC);
    }

    private static boolean isAscii(String text) {
        return text.chars().allMatch(c -> c < 0x80);
    }

    private static String twoDigits(String digits) {
        return digits.length() == 1 ? "0" + digits : digits;
    }

    /** How two texts with the same skeleton differ; empty when they do not differ at all. */
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
     * How a key may mean another.
     *
     * @param weight the less, the likelier; those of one class are worth naming together
     */
    record Match(Hint.Kind kind, double weight) {
        private static final double LOOKS_ALIKE = 0.1;
        private static final double IS_EDITED = 0.3;

        /** Spelled otherwise, looking alike, or edited. */
        int kindOfWeight() {
            return weight < LOOKS_ALIKE ? 0 : weight < IS_EDITED ? 1 : 2;
        }
    }

    /** How a key means that of a parent which it is but for the order of two parts. */
    static Match swapped() {
        return new Match(Hint.Kind.SWAPPED, SWAPPED_PARTS);
    }

    /** How a key may mean that of a parent; empty when it is not like it, and when it is the same. */
    static Optional<Match> match(List<String> key, List<String> parent) {
        Hint.Kind kind = null;
        double weight = 0;
        for (int i = 0; i < key.size(); i++) {
            String one = key.get(i);
            String other = parent.get(i);
            if (one.equals(other)) {
                continue;
            }
            Match here = matchOf(one, other);
            if (here == null || (here.kind() == Hint.Kind.ONE_EDIT && weight >= Match.IS_EDITED)) {
                return Optional.empty();
            }
            kind = kind == null || here.kind().compareTo(kind) > 0 ? here.kind() : kind;
            weight += here.weight();
        }
        return kind == null ? Optional.empty() : Optional.of(new Match(kind, weight));
    }

    private static Match matchOf(String one, String other) {
        if (skeleton(one).equals(skeleton(other))) {
            Hint.Kind kind = difference(one, other).orElseThrow();
            return new Match(kind, SPELLINGS.indexOf(kind) * 0.01);
        }
        String a = bones(one);
        String b = bones(other);
        boolean areSingle = a.length() == 1 && one.length() == 1 && other.length() == 1;
        if (a.equals(b) && (a.length() > 1 || areSingle)) {
            return withoutMarks(one).equals(withoutMarks(other))
                    ? new Match(Hint.Kind.SEPARATORS, 0.1)
                    : isPadded(one, other)
                            ? new Match(Hint.Kind.LEADING_ZEROS, 0.12)
                            : new Match(Hint.Kind.LOOK_ALIKE, 0.15);
        }
        double edit = weightOfEdit(a, b);
        return edit > greatestEdit(a, b) ? null : new Match(Hint.Kind.ONE_EDIT, Match.IS_EDITED + edit);
    }

    /** In longer texts more may have gone wrong; among numbers every one has neighbours, and only long ones tell. */
    private static double greatestEdit(String a, String b) {
        int shorter = Math.min(a.length(), b.length());
        boolean areNumbers = areDigits(a) && areDigits(b);
        return shorter < (areNumbers ? LEAST_DIGITS_FOR_EDITS : LEAST_FOR_EDITS)
                ? -1
                : Math.max(a.length(), b.length()) / 3.0;
    }

    private static boolean areDigits(String text) {
        return text.chars().allMatch(c -> isDigit((char) c));
    }

    /**
     * What is left of a text when all is taken away that people and machines get wrong: case, accents, marks and blanks, zeros that
     * pad a number, and which of several characters that look alike stands there.
     */
    static String bones(String text) {
        String plain = isAscii(text) ? text : Normalizer.normalize(text, Normalizer.Form.NFKD);
        char[] bones = new char[plain.length()];
        int count = 0;
        for (int i = 0; i < plain.length(); i++) {
            count = addBone(bones, count, plain.charAt(i));
        }
        return new String(bones, 0, count);
    }

    /**
     * Adds what is left of a character to the bones before it.
     *
     * @return how many bones there are then
     */
    static int addBone(char[] bones, int count, char next) {
        char c = bone(next);
        if (c == NO_BONE) {
            return count;
        }
        boolean isPadded =
                isDigit(c) && count > 0 && bones[count - 1] == '0' && (count == 1 || !isDigit(bones[count - 2]));
        int place = isPadded ? count - 1 : count;
        bones[place] = c;
        return place + 1;
    }

    /** What a character comes to in {@link #bones}. */
    private static char bone(char c) {
        if (c < 0x80) {
            return BONES[c];
        }
        int type = Character.getType(c);
        boolean isMark = type == Character.NON_SPACING_MARK || type == Character.ENCLOSING_MARK || isBlank(c);
        return isMark ? NO_BONE : Character.toLowerCase(c);
    }

    /** Nothing is left of such a character. */
    private static final char NO_BONE = 0;

    private static final char[] BONES = new char[0x80];

    static {
        for (char c = 'a'; c <= 'z'; c++) {
            BONES[c] = c;
            BONES[c - 'a' + 'A'] = c;
        }
        for (char c = '0'; c <= '9'; c++) {
            BONES[c] = c;
        }
        String alike = "o0O0i1I1l1L1s5S5b8B8";
        for (int i = 0; i < alike.length(); i += 2) {
            BONES[alike.charAt(i)] = alike.charAt(i + 1);
        }
    }

    private static String withoutMarks(String text) {
        StringBuilder left = new StringBuilder();
        fold(text).chars().filter(Character::isLetterOrDigit).forEach(c -> left.append((char) c));
        return left.toString();
    }

    private static boolean isPadded(String one, String other) {
        return PADDING.matcher(withoutMarks(one))
                .replaceAll("")
                .equals(PADDING.matcher(withoutMarks(other)).replaceAll(""));
    }

    /** What one keystroke weighs by which two texts differ; more than any text allows where it is not one. */
    private static double weightOfEdit(String a, String b) {
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
        if (restOfA == 1 && restOfB == 1) {
            boolean areDigits = isDigit(a.charAt(start)) && isDigit(b.charAt(start));
            return areDigits ? OTHER_DIGIT : OTHER_CHARACTER;
        } else if (restOfA + restOfB == 1) {
            String longer = restOfA == 1 ? a : b;
            char c = longer.charAt(start);
            boolean isTwice = (start > 0 && longer.charAt(start - 1) == c)
                    || (start + 1 < longer.length() && longer.charAt(start + 1) == c);
            return isTwice ? DOUBLED : isDigit(c) ? DIGIT_TOO_MANY : CHARACTER_TOO_MANY;
        }
        boolean areTurned = restOfA == 2
                && restOfB == 2
                && a.charAt(start) == b.charAt(start + 1)
                && a.charAt(start + 1) == b.charAt(start);
        return areTurned ? TURNED : Double.MAX_VALUE;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    /** The whole number that a text is, as it is usually written; null for any other text. */
    static Long plainNumber(String text) {
        int start = text.startsWith("-") ? 1 : 0;
        int digits = text.length() - start;
        boolean isPlain = digits >= 1 && digits <= MOST_DIGITS && areDigits(text.substring(start));
        if (!isPlain || (text.charAt(start) == '0' && !text.equals("0"))) {
            return null;
        }
        try {
            return Long.valueOf(text);
        } catch (NumberFormatException e) {
            return null;
        }
    }

    /** All whole numbers with the skeleton or the bones of a text. */
    static Set<String> numbersAlike(String text) {
        Set<String> all = new LinkedHashSet<>();
        String skeleton = skeleton(text);
        if (plainNumber(skeleton) != null) {
            all.add(skeleton);
        }
        addNumbers(all, bones(text));
        return all;
    }

    /** All whole numbers whose bones are one keystroke away from those of a text. */
    static Set<String> numbersNear(String text) {
        String bones = bones(text);
        Set<String> all = new LinkedHashSet<>();
        if (bones.length() > MOST_DIGITS + 1) {
            return all;
        }
        for (int i = 0; i <= bones.length(); i++) {
            String before = bones.substring(0, i);
            String from = bones.substring(i);
            for (char c = '0'; c <= '9'; c++) {
                addNumbers(all, before + c + from);
                if (!from.isEmpty()) {
                    addNumbers(all, before + c + from.substring(1));
                }
            }
            if (!from.isEmpty()) {
                addNumbers(all, before + from.substring(1));
            }
            if (from.length() > 1) {
                addNumbers(all, before + from.charAt(1) + from.charAt(0) + from.substring(2));
            }
        }
        return all;
    }

    private static void addNumbers(Set<String> all, String digits) {
        if (plainNumber(digits) != null) {
            all.add(digits);
        }
        if (plainNumber("-" + digits) != null) {
            all.add("-" + digits);
        }
    }
}
