package taxiomet.values;

/** What SQL does with texts: comparing, folding and trimming them. */
public final class SqlText {
    private SqlText() {}

    /** The text without blanks at its ends, as TRIM gives it; other white space stays. */
    public static String trim(String text) {
        int from = 0;
        int to = text.length();
        while (from < to && text.charAt(from) == ' ') {
            from++;
        }
        while (to > from && text.charAt(to - 1) == ' ') {
            to--;
        }
        return text.substring(from, to);
    }

    /** The text without the blanks behind it, which count for nothing in a char(n). */
    public static String withoutTrailingBlanks(String text) {
        int to = text.length();
        while (to > 0 && text.charAt(to - 1) == ' ') {
            to--;
        }
        return text.substring(0, to);
    }

    /** Simple case folding, code point by code point: to upper case, then to lower case. */
    public static String fold(String text) {
        StringBuilder folded = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); ) {
            int point = text.codePointAt(i);
            folded.appendCodePoint(Character.toLowerCase(Character.toUpperCase(point)));
            i += Character.charCount(point);
        }
        return folded.toString();
    }

    /** Order by code point; UTF-16 puts the supplementary planes before U+E000. */
    public static int compare(String left, String right) {
        int length = Math.min(left.length(), right.length());
        for (int i = 0; i < length; i++) {
            char a = left.charAt(i);
            char b = right.charAt(i);
            if (a != b) {
                boolean isSupplementary = Character.isSurrogate(a);
                return isSupplementary == Character.isSurrogate(b) ? Character.compare(a, b) : isSupplementary ? 1 : -1;
            }
        }
        return Integer.compare(left.length(), right.length());
    }
}
