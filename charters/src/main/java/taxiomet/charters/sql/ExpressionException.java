package taxiomet.charters.sql;

import java.util.Collection;
import java.util.List;
import taxiomet.charter.Expression.FunctionName;

/** An expression that cannot be used. */
public final class ExpressionException extends Exception {
    private static final long serialVersionUID = 1;

    private final boolean isNotYet;
    private final String unknownWord;
    private final transient List<String> knownWords;

    private ExpressionException(String problem, boolean isNotYet, String unknownWord, Collection<String> knownWords) {
        super(problem);
        this.isNotYet = isNotYet;
        this.unknownWord = unknownWord;
        this.knownWords = List.copyOf(knownWords);
    }

    static ExpressionException of(String problem) {
        return new ExpressionException(problem, false, null, List.of());
    }

    /** Something of SQL that rules do not have. */
    static ExpressionException notKnown(String what) {
        return of("`" + what
                + "` is not known in rules, which have comparisons, AND, OR, NOT, IS NULL, IN, BETWEEN, LIKE, + - * / and the"
                + " functions " + String.join(", ", FunctionName.words()));
    }

    static ExpressionException notYet(String problem) {
        return new ExpressionException(problem, true, null, List.of());
    }

    static ExpressionException unknown(String what, String word, Collection<String> known) {
        return new ExpressionException(what, false, word, known);
    }

    /** Whether the expression is sound, but not built yet. */
    public boolean isNotYet() {
        return isNotYet;
    }

    /** A word in it that is none of {@link #knownWords}; null when that is not the problem. */
    public String unknownWord() {
        return unknownWord;
    }

    public List<String> knownWords() {
        return knownWords;
    }
}
