package taxiomet.charters.sql;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.FunctionName;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Joined;
import taxiomet.charter.Expression.Like;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Negation;
import taxiomet.charter.Expression.Not;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Expression.Type;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;

/**
 * Reads an expression by descent, the whole grammar in one file, since each rule calls the next: one method for each level of precedence, in the order of ISO/IEC 9075-2, 6.28 and 8.21. Each token is
 * either understood or ends the reading: there is no part of an expression that can be read and dropped. Where servers differ about
 * what binds closer (one comparison beside another), parentheses are asked for.
 *
 * <p>Equal spellings: parentheses round a whole operand, {@code !=} and {@code <>}, {@code CAST(x AS t)} and {@code x::t}, {@code
 * ISNULL} and {@code IS NULL}, {@code NOTNULL} and {@code IS NOT NULL}, {@code = ANY (ARRAY[..])} and {@code IN (..)}, {@code <> ALL
 * (ARRAY[..])} and {@code NOT IN (..)}, {@code char_length} and {@code length}, {@code TRIM(BOTH FROM x)} and {@code trim(x)}.
 */
final class ExpressionParser {
    /** A tree may be so deep: what walks over it does so by recursion. */
    private static final int DEEPEST = 40;

    private static final int LONGEST_CHAIN = 2_000;
    private static final Set<String> COMPARING = Set.of("=", "<>", "!=", "<", "<=", ">", ">=");

    private final TokenCursor tokens;
    private final Names names;
    private int depth;

    /** Knows what the names in an expression mean. */
    interface Names {
        /** The column that one or several names, with dots between them, mean. */
        Expression column(List<Token> parts) throws ExpressionException;

        /** What the children that names with dots between them mean come to: a table, its link, and perhaps a column. */
        public Expression children(Aggregate aggregate, List<Token> parts) throws ExpressionException;

        /** Whether an expression is a column of type char(n). */
        boolean isPadded(Expression expression);

        /** Whether a text that stands beside a number is read as one. */
        boolean readsNumbers();

        /** Whether two bars join texts: they do in a charter, and mean OR on some servers. */
        boolean joinsTexts();

        /** The current moment by its word, where there is one. */
        Optional<Expression> current(String word);

        /** What a query behind IN comes to, where there can be one; the words SELECT come next. */
        Expression inQuery(Expression operand, TokenCursor tokens) throws ExpressionException;
    }

    ExpressionParser(TokenCursor tokens, Names names) {
        this.tokens = tokens;
        this.names = names;
    }

    /** An expression as far as it goes; what comes behind it is left. */
    Expression read() throws ExpressionException {
        return or();
    }

    /** What is left of a text that should have ended. */
    static ExpressionException notRead(TokenCursor tokens) {
        StringBuilder rest = new StringBuilder();
        int last = -1;
        for (int ahead = 0; tokens.peek(ahead).end() > 0 && rest.length() < 40; ahead++) {
            Token token = tokens.peek(ahead);
            rest.append(last >= 0 && token.start() > last ? " " : "").append(token.sql());
            last = token.end();
        }
        return ExpressionException.of("this part is not read: `" + rest + "`");
    }

    private void descend() throws ExpressionException {
        if (++depth > DEEPEST) {
            throw ExpressionException.of(
                    "this condition is nested deeper than can be read (" + DEEPEST + " parentheses)");
        }
    }

    private Expression or() throws ExpressionException {
        List<Expression> any = new ArrayList<>(List.of(and()));
        while (tokens.take("or")) {
            any.add(and());
        }
        return any.size() == 1 ? any.get(0) : new Or(truths(any));
    }

    private Expression and() throws ExpressionException {
        List<Expression> all = new ArrayList<>(List.of(not()));
        while (tokens.take("and")) {
            all.add(not());
        }
        return all.size() == 1 ? all.get(0) : new And(truths(all));
    }

    private static List<Expression> truths(List<Expression> operands) throws ExpressionException {
        for (Expression operand : operands) {
            Typing.requireTruth(operand);
        }
        return operands;
    }

    private Expression not() throws ExpressionException {
        if (!tokens.take("not")) {
            return is();
        }
        descend();
        Expression operand = not();
        depth--;
        Typing.requireTruth(operand);
        return new Not(operand);
    }

    private Expression is() throws ExpressionException {
        Expression operand = comparison();
        for (int chain = 0; ; chain++) {
            requireShort(chain);
            if (tokens.take("isnull")) {
                operand = new IsNull(operand);
            } else if (tokens.take("notnull")) {
                operand = new Not(new IsNull(operand));
            } else if (tokens.take("is")) {
                boolean isNegated = tokens.take("not");
                Expression condition = isWhat(operand);
                operand = isNegated ? new Not(condition) : condition;
            } else {
                return operand;
            }
        }
    }

    private Expression isWhat(Expression operand) throws ExpressionException {
        if (tokens.take("null")) {
            return new IsNull(operand);
        } else if (tokens.take("distinct", "from")) {
            Expression other = joined();
            Expression left = fitted(operand, other);
            Expression right = fitted(other, operand);
            Typing.requireComparable(left, right);
            Expression bothThere = new And(List.of(
                    new Not(new IsNull(left)),
                    new Not(new IsNull(right)),
                    new Compared(Comparator.EQUAL, left, right)));
            return new Not(new Or(List.of(new And(List.of(new IsNull(left), new IsNull(right))), bothThere)));
        }
        boolean isUnknown = tokens.isNext("unknown");
        if (!isUnknown && !tokens.isNext("true") && !tokens.isNext("false")) {
            throw notRead(tokens);
        }
        Typing.requireTruth(operand);
        boolean isTrue = tokens.next().is("true");
        return isUnknown
                ? new IsNull(operand)
                : new And(List.of(new Not(new IsNull(operand)), isTrue ? operand : new Not(operand)));
    }

    private boolean isComparing() {
        return (tokens.peek().kind() == Kind.SYMBOL
                        && COMPARING.contains(tokens.peek().text()))
                || isListing(0)
                || (tokens.isNext("not") && isListing(1));
    }

    private boolean isListing(int ahead) {
        Token word = tokens.peek(ahead);
        return word.is("between") || word.is("in") || word.is("like");
    }

    private Expression comparison() throws ExpressionException {
        Expression left = joined();
        if (!isComparing()) {
            return left;
        }
        Expression compared;
        if (tokens.peek().kind() == Kind.SYMBOL) {
            compared = compared(left, tokens.next().text());
        } else {
            boolean isNegated = tokens.take("not");
            Expression condition =
                    tokens.take("between") ? between(left) : tokens.take("in") ? in(left) : like(left, tokens.next());
            compared = isNegated ? new Not(condition) : condition;
        }
        if (isComparing()) {
            throw ExpressionException.of("one comparison stands beside another at `"
                    + tokens.peek().text() + "`, and servers differ about which comes first: put one in parentheses");
        }
        return compared;
    }

    private Expression compared(Expression left, String sign) throws ExpressionException {
        Comparator comparator = switch (sign) {
            case "=" -> Comparator.EQUAL;
            case "<" -> Comparator.LESS;
            case "<=" -> Comparator.LESS_OR_EQUAL;
            case ">" -> Comparator.GREATER;
            case ">=" -> Comparator.GREATER_OR_EQUAL;
            default -> Comparator.NOT_EQUAL;
        };
        boolean isAny = comparator == Comparator.EQUAL && (tokens.isNext("any") || tokens.isNext("some"));
        if (isAny || (comparator == Comparator.NOT_EQUAL && tokens.isNext("all"))) {
            tokens.next();
            Expression in = inList(left, array());
            return isAny ? in : new Not(in);
        }
        Expression right = joined();
        Expression fittedLeft = fitted(left, right);
        Expression fittedRight = fitted(right, left);
        Typing.requireComparable(fittedLeft, fittedRight);
        return new Compared(comparator, fittedLeft, fittedRight);
    }

    /** The elements of ARRAY[..], with parentheses and casts round it. */
    private List<Expression> array() throws ExpressionException {
        descend();
        List<Expression> elements;
        if (tokens.takeSymbol("(")) {
            elements = array();
            requireSymbol(")");
        } else if (tokens.take("array")) {
            requireSymbol("[");
            elements = list();
            requireSymbol("]");
        } else {
            throw notRead(tokens);
        }
        depth--;
        while (tokens.takeSymbol("::")) {
            type();
            if (tokens.peek().kind() != Kind.QUOTED_NAME
                    || !tokens.next().text().isEmpty()) {
                throw notRead(tokens);
            }
        }
        return elements;
    }

    private List<Expression> list() throws ExpressionException {
        List<Expression> list = new ArrayList<>();
        do {
            list.add(or());
        } while (tokens.takeSymbol(","));
        return list;
    }

    private Expression between(Expression left) throws ExpressionException {
        Expression low = joined();
        if (!tokens.take("and")) {
            throw notRead(tokens);
        }
        Expression operand = fitted(left, low);
        Expression fittedLow = fitted(low, operand);
        Expression high = fitted(joined(), operand);
        Typing.requireComparable(operand, fittedLow);
        Typing.requireComparable(operand, high);
        return new Expression.Between(operand, fittedLow, high);
    }

    private Expression in(Expression operand) throws ExpressionException {
        if (!tokens.takeSymbol("(")) {
            throw ExpressionException.of("IN needs a list in parentheses");
        }
        Expression in = tokens.isNext("select") ? names.inQuery(operand, tokens) : inList(operand, list());
        requireSymbol(")");
        return in;
    }

    private Expression inList(Expression left, List<Expression> elements) throws ExpressionException {
        Expression operand = left instanceof Literal ? fitted(left, elements.get(0)) : left;
        List<Expression> fitted = new ArrayList<>();
        for (Expression element : elements) {
            Expression value = fitted(element, operand);
            Typing.requireComparable(operand, value);
            fitted.add(value);
        }
        return new In(operand, fitted);
    }

    private Expression like(Expression operand, Token like) throws ExpressionException {
        if (!like.is("like")) {
            throw new IllegalStateException("LIKE was seen before " + like);
        }
        Expression pattern = joined();
        Typing.requireText(operand);
        Typing.requireText(pattern);
        Optional<Expression> escape = Optional.empty();
        if (tokens.take("escape")) {
            Token character = tokens.next();
            String text = character.text();
            if (character.kind() != Kind.TEXT || text.codePointCount(0, text.length()) != 1) {
                throw ExpressionException.of("ESCAPE needs one character in quotes");
            }
            escape = Optional.of(new Literal(text, Type.TEXT));
        }
        return new Like(operand, pattern, escape);
    }

    private Expression joined() throws ExpressionException {
        Expression first = sum();
        if (!tokens.peek().isSymbol("||")) {
            return first;
        }
        if (!names.joinsTexts()) {
            throw ExpressionException.of(
                    "`||` joins texts on some servers and means OR on others, and is not read in a change");
        }
        List<Expression> parts = new ArrayList<>(List.of(first));
        while (tokens.takeSymbol("||")) {
            parts.add(sum());
        }
        for (Expression part : parts) {
            Typing.requireText(part);
        }
        return new Joined(parts);
    }

    private Expression sum() throws ExpressionException {
        Expression left = product();
        int chain = 0;
        while (tokens.peek().isSymbol("+") || tokens.peek().isSymbol("-")) {
            requireShort(++chain);
            String sign = tokens.next().text();
            left = Typing.reckoned(sign.equals("+") ? Operator.PLUS : Operator.MINUS, sign, left, product());
        }
        return left;
    }

    private Expression product() throws ExpressionException {
        Expression left = signed();
        int chain = 0;
        while (tokens.peek().isSymbol("*") || tokens.peek().isSymbol("/")) {
            requireShort(++chain);
            String sign = tokens.next().text();
            left = Typing.reckoned(sign.equals("*") ? Operator.TIMES : Operator.DIVIDED_BY, sign, left, signed());
        }
        return left;
    }

    private static void requireShort(int chain) throws ExpressionException {
        if (chain > LONGEST_CHAIN) {
            throw ExpressionException.of("this reckons with more than " + LONGEST_CHAIN + " values in a row");
        }
    }

    private Expression signed() throws ExpressionException {
        if (!tokens.peek().isSymbol("-") && !tokens.peek().isSymbol("+")) {
            return castable();
        }
        descend();
        boolean isNegative = tokens.next().text().equals("-");
        Expression operand = signed();
        depth--;
        if (!operand.type().isNumber()) {
            throw ExpressionException.of("a " + operand.type().words() + " has no sign");
        }
        return isNegative ? new Negation(operand) : operand;
    }

    private Expression castable() throws ExpressionException {
        Token first = tokens.peek();
        Expression value = primary();
        int chain = 0;
        while (tokens.takeSymbol("::")) {
            requireShort(++chain);
            value = Typing.cast(value, type(), first.text());
        }
        return value;
    }

    private Expression primary() throws ExpressionException {
        Token token = tokens.peek();
        switch (token.kind()) {
            case NUMBER -> {
                return Typing.numeral(tokens.next().text());
            }
            case TEXT -> {
                return new Literal(tokens.next().text(), Type.TEXT);
            }
            case WORD -> {
                return word(token);
            }
            case QUOTED_NAME -> {
                return names.column(path());
            }
            default -> {
                if (!tokens.takeSymbol("(")) {
                    throw tokens.isAtEnd()
                            ? ExpressionException.of("this is no SQL condition: it ends too early")
                            : notRead(tokens);
                }
                return parenthesis();
            }
        }
    }

    private Expression parenthesis() throws ExpressionException {
        if (tokens.isNext("select")) {
            throw notRead(tokens);
        }
        descend();
        Expression inside = or();
        depth--;
        if (tokens.peek().isSymbol(",")) {
            throw ExpressionException.of("a list in parentheses can only stand behind IN");
        }
        requireSymbol(")");
        return inside;
    }

    private void requireSymbol(String symbol) throws ExpressionException {
        if (!tokens.takeSymbol(symbol)) {
            throw tokens.isAtEnd()
                    ? ExpressionException.of("this is no SQL condition: `" + symbol + "` is missing at its end")
                    : notRead(tokens);
        }
    }

    private Expression word(Token token) throws ExpressionException {
        String word = token.text().toLowerCase(Locale.ROOT);
        Optional<ColumnType> literal = typeOfLiteral();
        if (literal.isPresent()) {
            while (tokens.peek().kind() != Kind.TEXT) {
                tokens.next();
            }
            return Typing.read(tokens.next().text(), literal.get());
        } else if (tokens.take("null")) {
            return new Literal(null, Type.NULL);
        } else if (word.equals("true") || word.equals("false")) {
            tokens.next();
            return new Literal(word.equals("true"), Type.BOOLEAN);
        }
        Optional<Expression> current = names.current(word);
        if (current.isPresent()) {
            tokens.next();
            if (tokens.peek().isSymbol("(") && tokens.peek(1).isSymbol(")")) {
                tokens.next();
                tokens.next();
            }
            return current.get();
        }
        if (tokens.peek(1).isSymbol("(")) {
            if (tokens.peek(2).is("select")) {
                throw notRead(tokens);
            }
            return call(tokens.next());
        }
        if (SqlWords.isReserved(word)) {
            if (word.equals("not") || SqlWords.isSpeaking(word)) {
                throw notRead(tokens);
            }
            throw ExpressionException.of(
                    "`" + token.text() + "` is a word of SQL: a column of that name stands in double quotes");
        }
        return names.column(path());
    }

    /** The type of a literal that a type's name and a text make together, such as DATE '2024-01-07'. */
    private Optional<ColumnType> typeOfLiteral() {
        boolean isStamp = tokens.isNext("timestamp");
        int at = 1;
        String zone = "";
        if ((isStamp || tokens.isNext("time"))
                && (tokens.peek(1).is("with") || tokens.peek(1).is("without"))
                && tokens.peek(2).is("time")
                && tokens.peek(3).is("zone")) {
            zone = " " + tokens.peek(1).text() + " time zone";
            at = 4;
        }
        boolean isKnown = isStamp || tokens.isNext("time") || tokens.isNext("date") || tokens.isNext("timestamptz");
        return isKnown && tokens.peek(at).kind() == Kind.TEXT
                ? ColumnType.parse(tokens.peek().text() + zone)
                : Optional.empty();
    }

    private List<Token> path() throws ExpressionException {
        List<Token> parts = new ArrayList<>(List.of(tokens.next()));
        while (tokens.takeSymbol(".")) {
            if (!tokens.peek().isName()) {
                throw notRead(tokens);
            }
            parts.add(tokens.next());
        }
        return parts;
    }

    private Expression call(Token name) throws ExpressionException {
        descend();
        String word = name.text().toLowerCase(Locale.ROOT);
        requireSymbol("(");
        Expression value;
        if (word.equals("cast")) {
            Token first = tokens.peek();
            Expression operand = or();
            if (!tokens.take("as")) {
                throw notRead(tokens);
            }
            value = Typing.cast(operand, type(), first.text());
        } else if (aggregate(word).isPresent()) {
            if (!tokens.peek().isName()) {
                throw notRead(tokens);
            }
            value = names.children(aggregate(word).get(), path());
        } else {
            FunctionName function = function(word);
            if (function == FunctionName.TRIM && tokens.take("both")) {
                if (!tokens.take("from")) {
                    throw notRead(tokens);
                }
            }
            List<Expression> arguments = tokens.peek().isSymbol(")") ? List.of() : list();
            value = Typing.called(function, arguments, names.readsNumbers());
        }
        requireSymbol(")");
        depth--;
        return value;
    }

    private static Optional<Aggregate> aggregate(String word) {
        return Arrays.stream(Aggregate.values())
                .filter(aggregate -> aggregate.word().equals(word))
                .findFirst();
    }

    private static FunctionName function(String word) throws ExpressionException {
        String usual = switch (word) {
            case "char_length", "character_length" -> "length";
            case "btrim" -> "trim";
            default -> word;
        };
        for (FunctionName function : FunctionName.values()) {
            if (function.word().equals(usual)) {
                return function;
            }
        }
        throw ExpressionException.unknown(
                "there is no function",
                word,
                Stream.concat(
                                FunctionName.words().stream(),
                                Arrays.stream(Aggregate.values()).map(Aggregate::word))
                        .toList());
    }

    /** The type behind AS or two colons. */
    private ColumnType type() throws ExpressionException {
        StringBuilder written = new StringBuilder();
        Token first = tokens.peek();
        do {
            if (!tokens.peek().isName()) {
                throw notRead(tokens);
            }
            written.append(written.length() == 0 ? "" : " ")
                    .append(tokens.next().text());
        } while (tokens.isNext("varying") || tokens.isNext("precision"));
        if (tokens.peek().isSymbol("(")) {
            try {
                written.append(
                        tokens.skipParentheses().stream().map(Token::text).collect(Collectors.joining(" ", "(", ")")));
            } catch (TokenCursor.Unreadable e) {
                throw ExpressionException.of(e.getMessage());
            }
        }
        if (tokens.take("without", "time", "zone")) {
            written.append(" without time zone");
        } else if (tokens.take("with", "time", "zone")) {
            written.append(" with time zone");
        }
        return ColumnType.parse(written.toString().replace(" , ", ","))
                .orElseThrow(() -> ExpressionException.of(
                        "`" + (first.isName() ? written : first.text()) + "` is no type that is known"));
    }

    private Expression fitted(Expression value, Expression beside) throws ExpressionException {
        return Typing.fitted(value, beside, names.isPadded(beside), names.readsNumbers());
    }
}
