package taxiomet.expression;

import java.util.Arrays;

/** A pattern of SQL's LIKE (ISO/IEC 9075-2, 8.5): percent for any characters, underscore for one; case counts. */
final class LikePattern {
    private static final int ANY = -1;
    private static final int ONE = -2;
    /** The pattern has ended. */
    private static final int NONE = -3;

    /** Code points, or {@link #ANY} or {@link #ONE}. */
    private final int[] elements;

    private LikePattern(int[] elements) {
        this.elements = elements;
    }

    /** @param escape one character that makes the next one literal; empty for none */
    static LikePattern of(String pattern, String escape) {
        int escapeWith = escape.isEmpty() ? Integer.MIN_VALUE : escape.codePointAt(0);
        int[] points = pattern.codePoints().toArray();
        int[] elements = new int[points.length];
        int count = 0;
        for (int i = 0; i < points.length; i++) {
            if (points[i] == escapeWith && i + 1 < points.length) {
                elements[count++] = points[++i];
            } else {
                elements[count++] = points[i] == '%' ? ANY : points[i] == '_' ? ONE : points[i];
            }
        }
        return new LikePattern(Arrays.copyOf(elements, count));
    }

    /** Whether a text matches, given as UTF-8; as {@link #matches(String)}, without taking it apart. */
    boolean matches(byte[] bytes, int start, int length) {
        int end = start + length;
        int at = start;
        int element = 0;
        int lastAny = -1;
        int resumeAt = 0;
        while (at < end) {
            int wanted = element < elements.length ? elements[element] : NONE;
            int next = wanted == ONE ? behind(bytes, at, end) : wanted >= 0 ? behind(bytes, at, end, wanted) : -1;
            if (next >= 0) {
                at = next;
                element++;
            } else if (wanted == ANY) {
                lastAny = element++;
                resumeAt = at;
            } else if (lastAny >= 0) {
                element = lastAny + 1;
                resumeAt = behind(bytes, resumeAt, end);
                at = resumeAt;
            } else {
                return false;
            }
        }
        while (element < elements.length && elements[element] == ANY) {
            element++;
        }
        return element == elements.length;
    }

    /** The place behind the code point that begins at one. */
    private static int behind(byte[] bytes, int at, int end) {
        int next = at + 1;
        while (next < end && TextNode.isContinuation(bytes[next])) {
            next++;
        }
        return next;
    }

    /** The same if it is the one wanted; otherwise -1. */
    private static int behind(byte[] bytes, int at, int end, int wanted) {
        if (wanted < 0x80) {
            return bytes[at] == wanted ? at + 1 : -1;
        }
        int next = behind(bytes, at, end);
        int first = bytes[at] & 0xFF;
        int point = next - at == 1 ? first : first & 0xFF >> next - at + 1;
        for (int i = at + 1; i < next; i++) {
            point = point << 6 | bytes[i] & 0x3F;
        }
        return point == wanted ? next : -1;
    }

    /** Goes back to the last percent only, so that no pattern takes more than pattern times text. */
    boolean matches(String text) {
        int[] points = text.codePoints().toArray();
        int at = 0;
        int element = 0;
        int lastAny = -1;
        int resumeAt = 0;
        while (at < points.length) {
            if (element < elements.length && (elements[element] == ONE || elements[element] == points[at])) {
                at++;
                element++;
            } else if (element < elements.length && elements[element] == ANY) {
                lastAny = element++;
                resumeAt = at;
            } else if (lastAny >= 0) {
                element = lastAny + 1;
                at = ++resumeAt;
            } else {
                return false;
            }
        }
        while (element < elements.length && elements[element] == ANY) {
            element++;
        }
        return element == elements.length;
    }
}
