package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.TokenCursor;
import taxiomet.charters.sql.TokenCursor.Unreadable;

/**
 * The columns of a key or index, in parentheses.
 *
 * @param names as far as they are names
 * @param problem why the key is another one than that of whole columns, such as the first characters of a text; empty where it is not
 */
record KeyColumns(List<Token> names, Optional<String> problem) {
    private static final Set<String> ORDER = Set.of("asc", "desc", "nulls", "first", "last");
    private static final Set<String> FOLDING = Set.of("nocase", "rtrim");

    KeyColumns {
        names = List.copyOf(names);
    }

    /** @param allowsClass whether a class of operators may stand behind a column, as in an index */
    static KeyColumns read(TokenCursor statement, boolean allowsClass) throws Unreadable {
        Token open = statement.peek();
        List<Token> inside = statement.skipParentheses();
        if (inside.isEmpty()) {
            throw new Unreadable(open, "a key without columns");
        }
        List<Token> names = new ArrayList<>();
        Optional<String> problem = Optional.empty();
        TokenCursor cursor = new TokenCursor(inside);
        while (!cursor.isAtEnd()) {
            boolean isName = cursor.peek().isName() && !isCall(cursor);
            if (isName) {
                names.add(cursor.name());
            }
            while (!cursor.isAtEnd() && !cursor.peek().isSymbol(",")) {
                Optional<String> here = isName ? behindName(cursor, allowsClass) : expression(cursor);
                problem = problem.isPresent() ? problem : here;
            }
            if (cursor.takeSymbol(",") && cursor.isAtEnd()) {
                throw cursor.unexpected("a column");
            }
        }
        return new KeyColumns(names, problem);
    }

    /** Whether a function is called, and not so many characters of a column taken. */
    private static boolean isCall(TokenCursor cursor) {
        return cursor.peek(1).isSymbol("(")
                && !(cursor.peek(2).kind() == Kind.NUMBER && cursor.peek(3).isSymbol(")"));
    }

    private static Optional<String> expression(TokenCursor cursor) throws Unreadable {
        if (cursor.peek().isSymbol("(")) {
            cursor.skipParentheses();
        } else {
            cursor.next();
        }
        return Optional.of("it is over an expression");
    }

    private static Optional<String> behindName(TokenCursor cursor, boolean allowsClass) throws Unreadable {
        if (cursor.peek().isSymbol("(")) {
            List<Token> size = cursor.skipParentheses();
            return Optional.of("it is over the first "
                    + String.join(" ", size.stream().map(Token::text).toList()) + " characters alone");
        }
        Token word = cursor.next();
        String text = word.text().toLowerCase(Locale.ROOT);
        if (text.equals("collate") && word.kind() == Kind.WORD) {
            String collation = cursor.name().text();
            return FOLDING.contains(collation.toLowerCase(Locale.ROOT))
                    ? Optional.of("it compares texts by " + collation)
                    : Optional.empty();
        }
        if (ORDER.contains(text)) {
            return Optional.empty();
        }
        boolean isClass = allowsClass && word.kind() == Kind.WORD && text.endsWith("_ops");
        return isClass ? Optional.empty() : Optional.of("`" + word.text() + "` in it is not known");
    }
}
