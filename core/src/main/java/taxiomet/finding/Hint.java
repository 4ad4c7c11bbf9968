package taxiomet.finding;

import java.util.Optional;

/**
 * Why an orphan may be one.
 *
 * @param kind what was noticed
 * @param parent the key of the parent that was probably meant, its columns divided by a comma and a blank
 */
public record Hint(Kind kind, Optional<String> parent) {
    /** What can be noticed about a value without a parent; the surest first. */
    public enum Kind {
        TRIMMED("but for blanks at an end"),
        OTHER_CASE("in another case"),
        LEADING_ZEROS("but for leading zeros"),
        UNICODE_FORM("in another Unicode form"),
        OTHER_TYPE("written otherwise"),
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

    /** The hint as a clause. */
    public String words() {
        return switch (kind) {
            case STANDS_FOR_NOTHING, NOT_OF_ITS_TYPE -> kind.words();
            default -> "perhaps " + parent.orElse("a parent") + ", " + kind.words();
        };
    }
}
