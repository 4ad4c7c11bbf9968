package taxiomet.cli.option;

import java.util.ArrayList;
import java.util.List;

/**
 * Reads a key as a user types it, or as results print it: {@code 7}, {@code 127, 2024-09-02}, {@code (127, 2024-09-02)}, {@code "K-008 "}
 * in quotes where blanks stand at its ends.
 */
public final class KeyText {
    private KeyText() {}

    /**
     * What a text can mean, the nearest to the letter first; none when it has another number of parts.
     *
     * @param columns how many the key has
     */
    public static List<List<String>> readings(String text, int columns) {
        List<List<String>> readings = new ArrayList<>();
        String bare = text.strip();
        boolean isInParentheses = bare.length() > 1 && bare.startsWith("(") && bare.endsWith(")");
        if (columns == 1) {
            add(readings, List.of(text));
            add(readings, parts(text));
        } else {
            add(readings, parts(text));
        }
        if (isInParentheses) {
            add(readings, parts(bare.substring(1, bare.length() - 1)));
        }
        readings.removeIf(reading -> reading.size() != columns);
        return readings;
    }

    private static void add(List<List<String>> readings, List<String> reading) {
        if (!readings.contains(reading)) {
            readings.add(reading);
        }
    }

    /** The parts between commas; a part in quotes is what stands in them. */
    static List<String> parts(String text) {
        List<String> parts = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        boolean isQuoted = false;
        boolean wasQuoted = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '"' && (isQuoted || part.toString().isBlank())) {
                isQuoted = !isQuoted;
                wasQuoted = true;
                part.setLength(isQuoted ? 0 : part.length());
            } else if (c == ',' && !isQuoted) {
                parts.add(wasQuoted ? part.toString() : part.toString().strip());
                part.setLength(0);
                wasQuoted = false;
            } else if (isQuoted || !wasQuoted || !Character.isWhitespace(c)) {
                part.append(c);
            }
        }
        parts.add(wasQuoted ? part.toString() : part.toString().strip());
        return parts;
    }
}
