package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charters.ddl.SqlTokens.Kind;
import taxiomet.charters.ddl.SqlTokens.Token;

/** The tokens of one statement, with a place among them. */
final class Statement {
    private static final Token NOTHING = new Token(Kind.END, "", 0, 0);

    private final List<Token> tokens;
    private int at;

    /** Something in a statement that cannot be read. */
    static final class Unreadable extends Exception {
        private static final long serialVersionUID = 1;
        private final transient Token token;

        Unreadable(Token token, String message) {
            super(message);
            this.token = token;
        }

        Token token() {
            return token;
        }
    }

    Statement(List<Token> tokens) {
        this.tokens = List.copyOf(tokens);
    }

    boolean isAtEnd() {
        return at >= tokens.size();
    }

    /** The token at hand; one that is nothing at the end. */
    Token peek() {
        return peek(0);
    }

    Token peek(int ahead) {
        return at + ahead < tokens.size() ? tokens.get(at + ahead) : NOTHING;
    }

    Token next() {
        Token token = peek();
        at++;
        return token;
    }

    /** Whether these words come next. */
    boolean isNext(String... words) {
        for (int i = 0; i < words.length; i++) {
            if (!peek(i).is(words[i])) {
                return false;
            }
        }
        return true;
    }

    /** Takes these words if they come next. */
    boolean take(String... words) {
        boolean isNext = isNext(words);
        at += isNext ? words.length : 0;
        return isNext;
    }

    /** Takes one of several phrases, if one comes next. */
    boolean takeOne(String... phrases) {
        for (String phrase : phrases) {
            if (take(phrase.split(" ", -1))) {
                return true;
            }
        }
        return false;
    }

    /** Takes any number of some phrases, in any order. */
    void skip(String... phrases) {
        int before;
        do {
            before = at;
            takeOne(phrases);
        } while (at > before);
    }

    boolean takeSymbol(String symbol) {
        boolean isNext = peek().isSymbol(symbol);
        at += isNext ? 1 : 0;
        return isNext;
    }

    void require(String word) throws Unreadable {
        if (!take(word)) {
            throw unexpected(word);
        }
    }

    void requireSymbol(String symbol) throws Unreadable {
        if (!takeSymbol(symbol)) {
            throw unexpected("`" + symbol + "`");
        }
    }

    Unreadable unexpected(String wanted) {
        Token here = isAtEnd() ? tokens.get(tokens.size() - 1) : peek();
        return new Unreadable(
                here,
                isAtEnd()
                        ? "the statement ends where " + wanted + " should follow"
                        : "`" + here.text() + "` stands where " + wanted + " should");
    }

    /** A name, of which only the last part counts: schema and catalogue before it are passed over. */
    Token name() throws Unreadable {
        if (!peek().isName()) {
            throw unexpected("a name");
        }
        Token name = next();
        while (peek().isSymbol(".") && peek(1).isName()) {
            next();
            name = next();
        }
        return name;
    }

    /** Names in parentheses, without what dialects put behind them (ASC, DESC, a length). */
    List<Token> names() throws Unreadable {
        requireSymbol("(");
        List<Token> names = new ArrayList<>();
        do {
            names.add(name());
            while (!peek().isSymbol(",") && !peek().isSymbol(")") && !isAtEnd()) {
                if (peek().isSymbol("(")) {
                    skipParentheses();
                } else {
                    next();
                }
            }
        } while (takeSymbol(","));
        requireSymbol(")");
        return names;
    }

    /** Passes over a parenthesis with all in it. */
    List<Token> skipParentheses() throws Unreadable {
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
