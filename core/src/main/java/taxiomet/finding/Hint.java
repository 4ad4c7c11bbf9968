package taxiomet.finding;

import java.util.List;
import java.util.stream.Collectors;

/**
 * Why an orphan may be one.
 *
 * @param kind what was noticed; of several parents what was noticed about the first
 * @param parents the keys of the parents that may have been meant, the likeliest first; three at most
 */
public record Hint(Kind kind, List<List<String>> parents) {
    public Hint {
        parents = parents.stream().map(List::copyOf).toList();
    }

    /** What can be noticed about a value without a parent; the surest first. */
    public enum Kind {
        TRIMMED("but for blanks at an end"),
        OTHER_CASE("in another case"),
        LEADING_ZEROS("but for leading zeros"),
        UNICODE_FORM("in another Unicode form"),
        OTHER_TYPE("written otherwise"),
        SEPARATORS("but for marks between or around"),
        LOOK_ALIKE("but for characters that look alike"),
        STANDS_FOR_NOTHING("probably stands for nothing"),
        ONE_EDIT("one keystroke away"),
        NOT_OF_ITS_TYPE("not of its column's type");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A hint that names no parent. */
    public static Hint of(Kind kind) {
        return new Hint(kind, List.of());
    }

    /** The hint as a clause. */
    public String words() {
        return parents.isEmpty()
                ? kind.words()
                : "perhaps " + parents.stream().map(Hint::written).collect(Collectors.joining(" or ")) + ", "
                        + kind.words();
    }

    private static String written(List<String> key) {
        return key.size() == 1 ? key.get(0) : "(" + String.join(", ", key) + ")";
    }
}
