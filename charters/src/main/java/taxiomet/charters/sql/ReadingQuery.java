package taxiomet.charters.sql;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;

/**
 * Whether a query that stands in a file is one statement that reads. Servers do not agree where a text, a name or a comment ends; whatever
 * they would take apart otherwise than it is done here is refused.
 */
public final class ReadingQuery {
    private static final Set<String> FIRST = Set.of("select", "with", "values", "(");
    private static final Set<String> CHANGING = Set.of("insert", "update", "delete", "merge");
    private static final Set<String> LOCKS = Set.of("update", "share", "no", "key");

    private final String query;
    private final boolean isOfPostgres;
    private final List<Token> tokens;

    private ReadingQuery(String query, boolean isOfPostgres, List<Token> tokens) {
        this.query = query;
        this.isOfPostgres = isOfPostgres;
        this.tokens = tokens;
    }

    /**
     * What is wrong with it, as a clause; empty for a query that reads.
     *
     * @param isOfPostgres whether PostgreSQL reads it, where a hash is an operator and texts may stand between dollar signs
     */
    public static Optional<String> fault(String query, boolean isOfPostgres) {
        try {
            return new ReadingQuery(query, isOfPostgres, SqlTokens.of(query)).fault();
        } catch (SqlTokens.Unfinished e) {
            return Optional.of(e.getMessage());
        }
    }

    private Optional<String> fault() {
        List<Token> all = withoutLastEnd();
        if (all.isEmpty() || !FIRST.contains(lower(all.get(0)))) {
            return Optional.of("it begins with none of SELECT, WITH and VALUES");
        }
        int depth = 0;
        int end = 0;
        for (int i = 0; i < all.size(); i++) {
            Token token = all.get(i);
            Optional<String> fault = between(end, token.start()).or(() -> inside(token));
            if (fault.isPresent()) {
                return fault;
            }
            end = token.end();
            depth += token.isSymbol("(") ? 1 : token.isSymbol(")") ? -1 : 0;
            if (depth < 0) {
                return Optional.of("a bracket is closed that was not opened");
            } else if (token.kind() == Kind.END) {
                return Optional.of("it is more than one statement");
            } else if (token.is("into")) {
                return Optional.of("INTO writes what it reads");
            } else if (isChanging(all, i)) {
                return Optional.of(token.text().toUpperCase(Locale.ROOT) + " changes rows");
            } else if (isLocking(all, i)) {
                return Optional.of("it locks rows");
            }
        }
        return depth > 0 ? Optional.of("a bracket is left open") : between(end, query.length());
    }

    private List<Token> withoutLastEnd() {
        int last = tokens.size() - 1;
        return last >= 0 && tokens.get(last).kind() == Kind.END ? tokens.subList(0, last) : tokens;
    }

    /** Between tokens stands nothing but blanks: what is a comment here need not be one there. */
    private Optional<String> between(int from, int to) {
        String gap = query.substring(from, to).replace('\uFEFF', ' ');
        return gap.isBlank() || gap.strip().equals(";") ? Optional.empty() : Optional.of("it has a comment");
    }

    private Optional<String> inside(Token token) {
        String written = query.substring(token.start(), token.end());
        boolean isQuoted = token.kind() == Kind.TEXT || token.kind() == Kind.QUOTED_NAME;
        if (isQuoted && written.indexOf('\\') >= 0) {
            return Optional.of("a backslash between quotes means one thing here and another there");
        } else if (isQuoted && written.startsWith("[") && written.matches("(?s).*['\";`$#-].*")) {
            return Optional.of("quotes stand between square brackets");
        } else if (isOfPostgres && written.startsWith("`")) {
            return Optional.of("a name stands between backticks");
        } else if (!isOfPostgres && (token.isSymbol("#") || written.startsWith("$"))) {
            return Optional.of("a " + written.charAt(0) + " stands outside quotes");
        }
        return Optional.empty();
    }

    private static boolean isChanging(List<Token> all, int i) {
        boolean isFirst =
                i > 0 && (all.get(i - 1).isSymbol("(") || all.get(i - 1).isSymbol(")"));
        boolean isCalled = i + 1 < all.size() && all.get(i + 1).isSymbol("(");
        return isFirst && !isCalled && all.get(i).kind() == Kind.WORD && CHANGING.contains(lower(all.get(i)));
    }

    private static boolean isLocking(List<Token> all, int i) {
        boolean isFor = all.get(i).is("for")
                && i + 1 < all.size()
                && all.get(i + 1).kind() == Kind.WORD
                && LOCKS.contains(lower(all.get(i + 1)));
        return isFor
                || (all.get(i).is("lock")
                        && i + 1 < all.size()
                        && all.get(i + 1).is("in"));
    }

    private static String lower(Token token) {
        return token.text().toLowerCase(Locale.ROOT);
    }
}
