package taxiomet.charter.place;

import java.nio.file.Path;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Rows in files of text in which each column has its positions in a line.
 *
 * @param path a path or, for a table in parts, a glob
 * @param encoding name of the character encoding
 * @param hasHeader whether the first line of each file is a heading, and no row
 * @param nullWords words that mean null, besides blanks
 * @param positions the first and the last character of each column, 1 for the first of a line
 */
public record FixedWidth(
        Path folder,
        String path,
        String encoding,
        boolean hasHeader,
        List<String> nullWords,
        Map<String, Positions> positions)
        implements RowsPlace {
    public FixedWidth {
        nullWords = List.copyOf(nullWords);
        positions = Collections.unmodifiableMap(new LinkedHashMap<>(positions));
    }

    /**
     * Where a column stands in a line.
     *
     * @param first its first character, 1 for that of the line
     * @param last its last one, inclusive; {@link #END} for the line's
     */
    public record Positions(int first, int last) {
        /** The end of the line, wherever it is. */
        public static final int END = Integer.MAX_VALUE;

        private static final Pattern SPELLING = Pattern.compile("([1-9][0-9]{0,8})(?:(\\.\\.)([0-9]{1,9})?)?");

        /** Positions such as {@code 1..6}, {@code 7..} or {@code 5}; empty when a text is none. */
        public static Optional<Positions> parse(String text) {
            Matcher parts = SPELLING.matcher(text.replace(" ", ""));
            if (!parts.matches()) {
                return Optional.empty();
            }
            int first = Integer.parseInt(parts.group(1));
            int end = parts.group(3) == null ? END : Integer.parseInt(parts.group(3));
            int last = parts.group(2) == null ? first : end;
            return last < first ? Optional.empty() : Optional.of(new Positions(first, last));
        }

        @Override
        public String toString() {
            return first + ".." + (last == END ? "" : last);
        }
    }
}
