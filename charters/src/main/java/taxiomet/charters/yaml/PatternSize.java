package taxiomet.charters.yaml;

/**
 * How large a regular expression gets once its repetitions are written out: <code>((a{1000}){1000}){1000}</code> stands for a milliard of
 * letters, and a compiler of patterns would try to make them.
 */
public final class PatternSize {
    /** Patterns larger than this are not compiled. */
    public static final long MOST = 100_000;

    private final String pattern;
    private int at;
    private int depth;
    private boolean isTooDeep;

    private static final int DEEPEST = 200;

    private PatternSize(String pattern) {
        this.pattern = pattern;
    }

    /** About how many elements a pattern has when its repetitions are written out; more than {@link #MOST} for one that is too large. */
    public static long of(String pattern) {
        PatternSize size = new PatternSize(pattern);
        long elements = 0;
        while (size.at < pattern.length() && !size.isTooDeep) {
            elements = capped(elements + size.sequence());
            // A parenthesis that is not open: the compiler will say so.
            size.at++;
        }
        return size.isTooDeep ? MOST + 1 : elements;
    }

    private static long capped(long size) {
        return Math.min(size, MOST + 1);
    }

    /** A sequence up to the parenthesis that closes it. */
    private long sequence() {
        long size = 0;
        while (at < pattern.length() && pattern.charAt(at) != ')' && !isTooDeep) {
            size = capped(size + repeated(element()));
        }
        return size;
    }

    private long element() {
        char c = pattern.charAt(at++);
        if (c == '(') {
            if (++depth > DEEPEST) {
                isTooDeep = true;
                return 1;
            }
            long inside = sequence();
            depth--;
            at++;
            return inside + 1;
        } else if (c == '[') {
            skipClass();
        } else if (c == '\\') {
            if (at < pattern.length() && pattern.charAt(at) == 'Q') {
                int end = pattern.indexOf("\\E", at);
                int from = at;
                at = end < 0 ? pattern.length() : end + 2;
                return at - from;
            }
            at++;
        }
        return 1;
    }

    private void skipClass() {
        boolean isFirst = true;
        while (at < pattern.length()) {
            char c = pattern.charAt(at++);
            if (c == '\\') {
                at++;
            } else if (c == ']' && !isFirst) {
                return;
            }
            isFirst &= c == '^';
        }
    }

    private long repeated(long size) {
        long times = 1;
        while (at < pattern.length()) {
            char c = pattern.charAt(at);
            if (c == '*' || c == '+' || c == '?') {
                at++;
            } else if (c == '{' && pattern.substring(at).matches("(?s)\\{[0-9]+(,[0-9]*)?}.*")) {
                int end = pattern.indexOf('}', at);
                for (String count : pattern.substring(at + 1, end).split(",", -1)) {
                    times = Math.max(times, count.isEmpty() ? 1 : count.length() > 6 ? MOST : Long.parseLong(count));
                }
                at = end + 1;
            } else {
                break;
            }
        }
        return capped(Math.max(1, size) * times);
    }
}
