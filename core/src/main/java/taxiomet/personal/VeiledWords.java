package taxiomet.personal;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.values.SqlText;

/** A change as it was written, but for personal values of the rows that it touches, in whatever case it writes them. */
public final class VeiledWords {
    private final String words;
    private final String folded;
    private final Pseudonyms pseudonyms;
    /** From each of these values that the words hold to its pseudonym. */
    private final Map<String, String> names = new HashMap<>();

    public VeiledWords(String words, Pseudonyms pseudonyms) {
        this.words = words;
        this.folded = SqlText.fold(words);
        this.pseudonyms = pseudonyms;
    }

    /**
     * Adds a value of a row that is touched.
     *
     * @param value null for null
     */
    public void add(String table, String column, String value) {
        if (value != null && !value.isEmpty() && folded.contains(SqlText.fold(value))) {
            names.computeIfAbsent(value, v -> pseudonyms.of(table, column, v));
        }
    }

    /** The words, once all values have been added. */
    public String veiled() {
        String veiled = words;
        List<String> longestFirst = new ArrayList<>(names.keySet());
        longestFirst.sort(Comparator.comparing(String::length).reversed());
        for (String value : longestFirst) {
            veiled = Pattern.compile(Pattern.quote(value), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE)
                    .matcher(veiled)
                    .replaceAll(Matcher.quoteReplacement(names.get(value)));
        }
        return veiled;
    }
}
