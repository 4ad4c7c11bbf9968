package taxiomet.charter;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A range of counts, both ends inclusive.
 *
 * @param least 0 or more
 * @param most at least {@code least}; {@link #NO_LIMIT} without an upper end
 */
public record IntRange(long least, long most) {
    public static final long NO_LIMIT = Long.MAX_VALUE;

    private static final Pattern SPELLING = Pattern.compile("(\\d{1,18})|(\\d{1,18})?\\.\\.(\\d{1,18})?");

    /** A range such as {@code 1..40}, {@code 1..}, {@code ..40} or {@code 2}; empty when the text is not one. */
    public static Optional<IntRange> parse(String text) {
        Matcher parts = SPELLING.matcher(text.replace(" ", ""));
        if (!parts.matches() || text.strip().equals("..")) {
            return Optional.empty();
        }
        if (parts.group(1) != null) {
            long exactly = Long.parseLong(parts.group(1));
            return Optional.of(new IntRange(exactly, exactly));
        }
        long least = parts.group(2) == null ? 0 : Long.parseLong(parts.group(2));
        long most = parts.group(3) == null ? NO_LIMIT : Long.parseLong(parts.group(3));
        return most < least ? Optional.empty() : Optional.of(new IntRange(least, most));
    }

    /** Whether a count is in the range, both ends included. */
    public boolean contains(long count) {
        return count >= least && count <= most;
    }

    @Override
    public String toString() {
        return most == NO_LIMIT ? least + ".." : least + ".." + most;
    }
}
