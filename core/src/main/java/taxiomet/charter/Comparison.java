package taxiomet.charter;

/** How the texts of a column are compared when they are part of a key. */
public enum Comparison {
    /** Code point by code point. */
    EXACT("exact"),
    /** Letters that differ only in case are the same (simple case folding of Unicode, code point by code point). */
    IGNORE_CASE("ignore case"),
    /** Blanks (U+0020) at both ends do not count, as with SQL's TRIM. */
    TRIMMED("trimmed");

    private final String word;

    Comparison(String word) {
        this.word = word;
    }

    /** The word that a charter uses. */
    public String word() {
        return word;
    }
}
