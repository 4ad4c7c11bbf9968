package taxiomet.charters.sql;

import java.util.Collection;
import java.util.List;

/** An expression that cannot be used. */
public final class ExpressionException extends Exception {
    private static final long serialVersionUID = 1;

    private final String unknownWord;
    private final transient List<String> knownWords;

    private ExpressionException(String problem, String unknownWord, Collection<String> knownWords) {
        super(problem);
        this.unknownWord = unknownWord;
        this.knownWords = List.copyOf(knownWords);
    }

    static ExpressionException of(String problem) {
        return new ExpressionException(problem, null, List.of());
    }

    static ExpressionException unknown(String what, String word, Collection<String> known) {
        return new ExpressionException(what, word, known);
    }

    /** A word in it that is none of {@link #knownWords}; null when that is not the problem. */
    public String unknownWord() {
        return unknownWord;
    }

    public List<String> knownWords() {
        return knownWords;
    }

    /** The problem with the unknown word in it, if there is one. */
    public String words() {
        return unknownWord == null ? getMessage() : getMessage() + " `" + unknownWord + "`";
    }
}
