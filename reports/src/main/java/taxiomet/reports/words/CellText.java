package taxiomet.reports.words;

/** Makes cells fit to be shown: nothing in them can move the cursor, hide, or turn the line round. */
public final class CellText {
    /** Longer texts are shown by their ends. */
    private static final int LONGEST_WHOLE = 200;

    private static final int ZERO_WIDTH_SPACE = 0x200B;

    /** What stands before and behind the numbers of a colour on a terminal. */
    public static final String CODE_START = "\u001B[";

    /** See {@link #CODE_START}. */
    public static final char CODE_END = 'm';

    private CellText() {}

    /** A cell of a table: null is told from the texts {@code null} and empty, and blanks at the ends can be seen. */
    public static String of(String cell) {
        if (cell == null) {
            return "null";
        }
        String escaped = shortened(cell);
        boolean needsQuotes = cell.isEmpty()
                || cell.equals("null")
                || Character.isWhitespace(cell.charAt(0))
                || Character.isSpaceChar(cell.charAt(0))
                || Character.isWhitespace(cell.charAt(cell.length() - 1))
                || Character.isSpaceChar(cell.charAt(cell.length() - 1));
        return needsQuotes ? '"' + escaped + '"' : escaped;
    }

    /** The text with everything escaped that is not a visible character or a blank. */
    public static String escaped(String text) {
        StringBuilder escaped = null;
        for (int i = 0; i < text.length(); ) {
            int point = text.codePointAt(i);
            if (!isVisible(point)) {
                if (escaped == null) {
                    escaped = new StringBuilder(text.substring(0, i));
                }
                switch (point) {
                    case '\n' -> escaped.append("\\n");
                    case '\r' -> escaped.append("\\r");
                    case '\t' -> escaped.append("\\t");
                    default ->
                        escaped.append("\\u{")
                                .append(Integer.toHexString(point))
                                .append('}');
                }
            } else if (escaped != null) {
                escaped.appendCodePoint(point);
            }
            i += Character.charCount(point);
        }
        return escaped == null ? text : escaped.toString();
    }

    /** A text as it is shown; of a long one both ends, and how long it is. */
    public static String shortened(String text) {
        int length = text.codePointCount(0, text.length());
        if (length <= LONGEST_WHOLE) {
            return escaped(text);
        }
        String start = text.substring(0, text.offsetByCodePoints(0, LONGEST_WHOLE / 2));
        String end = text.substring(text.offsetByCodePoints(text.length(), -LONGEST_WHOLE / 4));
        return escaped(start) + " ... " + escaped(end) + " (" + Counted.grouped(length) + " characters)";
    }

    private static boolean isVisible(int point) {
        return switch (Character.getType(point)) {
            case Character.CONTROL,
                    Character.FORMAT,
                    Character.SURROGATE,
                    Character.UNASSIGNED,
                    Character.PRIVATE_USE,
                    Character.LINE_SEPARATOR,
                    Character.PARAGRAPH_SEPARATOR -> false;
            case Character.SPACE_SEPARATOR -> point == ' ';
            default -> point != ZERO_WIDTH_SPACE;
        };
    }

    /** How many columns of a terminal a text takes; codes of colours take none. */
    public static int width(String text) {
        int width = 0;
        for (int i = behindColours(text, 0); i < text.length(); ) {
            int point = text.codePointAt(i);
            width += width(point);
            i = behindColours(text, i + Character.charCount(point));
        }
        return width;
    }

    /** The first place from one on at which no code of a colour begins. */
    private static int behindColours(String text, int from) {
        int at = from;
        while (text.startsWith(CODE_START, at)) {
            int end = at + CODE_START.length();
            while (end < text.length() && (Character.isDigit(text.charAt(end)) || text.charAt(end) == ';')) {
                end++;
            }
            if (end == text.length() || text.charAt(end) != CODE_END) {
                return at;
            }
            at = end + 1;
        }
        return at;
    }

    /** As much of the beginning of a text as takes so many columns, one character at least; codes of colours stay whole. */
    public static String start(String text, int width) {
        int taken = 0;
        int at = behindColours(text, 0);
        while (at < text.length()) {
            int point = text.codePointAt(at);
            if (taken > 0 && taken + width(point) > width) {
                break;
            }
            taken += width(point);
            at = behindColours(text, at + Character.charCount(point));
        }
        return text.substring(0, at);
    }

    private static int width(int point) {
        int type = Character.getType(point);
        if (type == Character.NON_SPACING_MARK || type == Character.ENCLOSING_MARK) {
            return 0;
        }
        boolean isWide = (point >= 0x1100 && point <= 0x115F)
                || (point >= 0x2E80 && point <= 0xA4CF)
                || (point >= 0xAC00 && point <= 0xD7A3)
                || (point >= 0xF900 && point <= 0xFAFF)
                || (point >= 0xFE30 && point <= 0xFE6F)
                || (point >= 0xFF00 && point <= 0xFF60)
                || (point >= 0xFFE0 && point <= 0xFFE6)
                || (point >= 0x1F300 && point <= 0x1FAFF)
                || (point >= 0x20000 && point <= 0x3FFFD);
        return isWide ? 2 : 1;
    }

    /** The text, cut to a width, with an ellipsis where something is left out. */
    public static String cut(String text, int width) {
        if (text.length() <= width && width(text) <= width) {
            return text;
        }
        StringBuilder cut = new StringBuilder();
        int taken = 0;
        for (int i = 0; i < text.length(); ) {
            int point = text.codePointAt(i);
            if (taken + width(point) > width - 1) {
                break;
            }
            taken += width(point);
            cut.appendCodePoint(point);
            i += Character.charCount(point);
        }
        return cut.append('…').toString();
    }
}
