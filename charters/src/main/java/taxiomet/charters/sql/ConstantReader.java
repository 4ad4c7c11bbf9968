package taxiomet.charters.sql;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.Literal;
import taxiomet.charters.sql.SqlTokens.Token;

/** Reads expressions that give the same value always, as they stand behind DEFAULT. */
public final class ConstantReader implements ExpressionParser.Names {
    private ConstantReader() {}

    /**
     * The value of a constant expression.
     *
     * @throws ExpressionException when it is none, or is not read
     */
    public static Literal read(List<Token> tokens) throws ExpressionException {
        TokenCursor cursor = new TokenCursor(tokens);
        Expression expression = new ExpressionParser(cursor, new ConstantReader()).read();
        ExpressionReader.requireEnd(cursor);
        return (Literal) Typing.folded(expression);
    }

    /** Tokens as SQL in one line. */
    public static String written(List<Token> tokens) {
        StringBuilder sql = new StringBuilder();
        int last = -1;
        for (Token token : tokens) {
            sql.append(last >= 0 && token.start() > last ? " " : "").append(token.sql());
            last = token.end();
        }
        return sql.toString();
    }

    @Override
    public Expression column(List<Token> parts) throws ExpressionException {
        throw ExpressionException.of("`" + parts.get(0).text() + "` is no constant");
    }

    @Override
    public Expression children(Aggregate aggregate, List<Token> parts) throws ExpressionException {
        throw ExpressionException.of("`" + aggregate.word() + "` of children is no constant");
    }

    @Override
    public boolean isPadded(Expression expression) {
        return false;
    }

    @Override
    public boolean readsNumbers() {
        return true;
    }

    @Override
    public boolean joinsTexts() {
        return true;
    }

    @Override
    public Optional<Expression> current(String word) {
        return Optional.empty();
    }

    @Override
    public Expression inQuery(Expression operand, TokenCursor tokens) throws ExpressionException {
        throw ExpressionException.of("a query is no constant");
    }
}
