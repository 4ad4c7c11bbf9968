package taxiomet.charters.sql;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;

/** The tokens of one statement, with a place among them. */
public final class TokenCursor {
    private static final Token NOTHING = new Token(Kind.END, "", 0, 0, 0, 0);

    private final List<Token> tokens;
    private int at;

    /** Something in a statement that cannot be read. */
    public static final class Unreadable extends Exception {
        private static final long serialVersionUID = 1;
        private final transient Token token;

        public Unreadable(Token token, String message) {
            super(message);
            this.token = token;
        }

        public Token token() {
            return token;
        }
    }

    public TokenCursor(List<Token> tokens) {
        this.tokens = List.copyOf(tokens);
    }

    /** Another place among the same tokens, which begins here. */
    public TokenCursor copy() {
        TokenCursor copy = new TokenCursor(tokens);
        copy.at = at;
        return copy;
    }

    public boolean isAtEnd() {
        return at >= tokens.size();
    }

    /** The token at hand; one that is nothing at the end. */
    public Token peek() {
        return peek(0);
    }

    public Token peek(int ahead) {
        return at + ahead < tokens.size() ? tokens.get(at + ahead) : NOTHING;
    }

    public Token next() {
        Token token = peek();
        at++;
        return token;
    }

    /** Where something ends. */
    public interface End {
        boolean isHere();
    }

    /** The value that comes next: one token at least, parentheses whole, up to an end. */
    public List<Token> value(End end) throws Unreadable {
        int from = at;
        while (!isAtEnd() && (at == from || !end.isHere())) {
            if (peek().isSymbol("(")) {
                skipParentheses();
            } else {
                next();
            }
        }
        if (at == from) {
            throw unexpected("a value");
        }
        return since(from);
    }

    /** How many tokens have been taken. */
    public int place() {
        return at;
    }

    /** The tokens taken since a place. */
    public List<Token> since(int place) {
        return tokens.subList(Math.min(place, tokens.size()), Math.min(at, tokens.size()));
    }

    /** The token taken last. */
    public Token last() {
        return at > 0 && at <= tokens.size() ? tokens.get(at - 1) : NOTHING;
    }

    /** Whether these words come next. */
    public boolean isNext(String... words) {
        for (int i = 0; i < words.length; i++) {
            if (!peek(i).is(words[i])) {
                return false;
            }
        }
        return true;
    }

    /** Takes these words if they come next. */
    public boolean take(String... words) {
        boolean isNext = isNext(words);
        at += isNext ? words.length : 0;
        return isNext;
    }

    /** Takes one of several phrases, if one comes next. */
    public boolean takeOne(String... phrases) {
        for (String phrase : phrases) {
            if (take(phrase.split(" ", -1))) {
                return true;
            }
        }
        return false;
    }

    /** Takes any number of some phrases, in any order. */
    public void skip(String... phrases) {
        int before;
        do {
            before = at;
            takeOne(phrases);
        } while (at > before);
    }

    public boolean takeSymbol(String symbol) {
        boolean isNext = peek().isSymbol(symbol);
        at += isNext ? 1 : 0;
        return isNext;
    }

    public void require(String word) throws Unreadable {
        if (!take(word)) {
            throw unexpected(word);
        }
    }

    public void requireSymbol(String symbol) throws Unreadable {
        if (!takeSymbol(symbol)) {
            throw unexpected("`" + symbol + "`");
        }
    }

    public Unreadable unexpected(String wanted) {
        Token here = isAtEnd() ? tokens.isEmpty() ? NOTHING : tokens.get(tokens.size() - 1) : peek();
        return new Unreadable(
                here,
                isAtEnd()
                        ? "the statement ends where " + wanted + " should follow"
                        : "`" + here.text() + "` stands where " + wanted + " should");
    }

    /** A name, of which only the last part counts: schema and catalogue before it are passed over. */
    public Token name() throws Unreadable {
        List<Token> path = path();
        return path.get(path.size() - 1);
    }

    /** A name with catalogue and schema before it, as far as they are given. */
    public List<Token> path() throws Unreadable {
        if (!peek().isName()) {
            throw unexpected("a name");
        }
        List<Token> path = new ArrayList<>(List.of(next()));
        while (peek().isSymbol(".") && peek(1).isName()) {
            next();
            path.add(next());
        }
        return path;
    }

    /** Names in parentheses. */
    public List<Token> names() throws Unreadable {
        requireSymbol("(");
        List<Token> names = new ArrayList<>();
        do {
            names.add(name());
        } while (takeSymbol(","));
        requireSymbol(")");
        return names;
    }

    /** Passes over a parenthesis with all in it. */
    public List<Token> skipParentheses() throws Unreadable {
        Token open = peek();
        requireSymbol("(");
        List<Token> inside = new ArrayList<>();
        int depth = 1;
        while (depth > 0) {
            if (isAtEnd()) {
                throw new Unreadable(open, "this parenthesis is never closed");
            }
            Token token = next();
            depth += token.isSymbol("(") ? 1 : token.isSymbol(")") ? -1 : 0;
            if (depth > 0) {
                inside.add(token);
            }
        }
        return inside;
    }
}
