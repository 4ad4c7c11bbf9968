package taxiomet.charters.sql;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.Arithmetic;
import taxiomet.charter.Expression.Call;
import taxiomet.charter.Expression.FunctionName;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Type;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.Evaluator;
import taxiomet.values.ValueReader;

/** What types the parts of an expression need and give. */
final class Typing {
    private static final long MICROS_PER_DAY = 86_400_000_000L;

    private Typing() {}

    static void requireTruth(Expression expression) throws ExpressionException {
        if (expression.type() != Type.BOOLEAN && expression.type() != Type.NULL) {
            throw ExpressionException.of(
                    "a " + expression.type().words() + " stands where something true or false is needed");
        }
    }

    static void requireText(Expression expression) throws ExpressionException {
        if (expression.type() != Type.TEXT && expression.type() != Type.NULL) {
            throw ExpressionException.of("a " + expression.type().words() + " stands where a text is needed");
        }
    }

    static void requireComparable(Expression left, Expression right) throws ExpressionException {
        if (!left.type().isComparableWith(right.type())) {
            throw ExpressionException.of("a " + left.type().words() + " cannot be compared with a "
                    + right.type().words());
        }
    }

    static Expression reckoned(Operator operator, String sign, Expression left, Expression right)
            throws ExpressionException {
        for (Expression operand : List.of(left, right)) {
            if (!operand.type().isNumber() && operand.type() != Type.NULL) {
                throw ExpressionException.of(
                        "a " + operand.type().words() + " cannot be reckoned with (`" + sign + "` needs numbers)");
            }
        }
        return new Arithmetic(operator, left, right, wider(left.type(), right.type()));
    }

    private static Type wider(Type a, Type b) {
        if (a == Type.NULL || b == Type.NULL) {
            return a == Type.NULL ? b : a;
        } else if (a == Type.APPROXIMATE || b == Type.APPROXIMATE) {
            return Type.APPROXIMATE;
        }
        return a == Type.INTEGER && b == Type.INTEGER ? Type.INTEGER : Type.DECIMAL;
    }

    /** What an aggregate of values of a type gives. */
    static Type ofAggregate(Aggregate aggregate, Type column) throws ExpressionException {
        boolean isOrdered = column != Type.BOOLEAN && column != Type.UUID;
        return switch (aggregate) {
            case COUNT -> Type.INTEGER;
            case MIN, MAX -> {
                if (!isOrdered) {
                    throw ExpressionException.of(
                            "there is no least and no greatest " + column.words() + " for `" + aggregate.word() + "`");
                }
                yield column;
            }
            case SUM, AVG -> {
                if (!column.isNumber()) {
                    throw ExpressionException.of(
                            "a " + column.words() + " cannot be added up (`" + aggregate.word() + "` needs numbers)");
                }
                yield aggregate == Aggregate.AVG && column == Type.INTEGER ? Type.DECIMAL : column;
            }
        };
    }

    static Expression called(FunctionName function, List<Expression> arguments, boolean readsNumbers)
            throws ExpressionException {
        if (function == FunctionName.COALESCE) {
            return coalesced(arguments, readsNumbers);
        }
        if (arguments.size() != 1) {
            throw ExpressionException.of("`" + function.word() + "` takes one text");
        }
        requireText(arguments.get(0));
        return new Call(function, arguments, function == FunctionName.LENGTH ? Type.INTEGER : Type.TEXT);
    }

    private static Expression coalesced(List<Expression> arguments, boolean readsNumbers) throws ExpressionException {
        if (arguments.isEmpty()) {
            throw ExpressionException.of("`coalesce` needs values");
        }
        Expression example = arguments.stream()
                .filter(a -> !(a instanceof Literal))
                .findFirst()
                .orElse(arguments.get(0));
        List<Expression> fitted = new ArrayList<>();
        Type type = Type.NULL;
        for (Expression argument : arguments) {
            Expression value = fitted(argument, example, false, readsNumbers);
            requireComparable(value, example);
            fitted.add(value);
            type = value.type().isNumber() && type.isNumber()
                    ? wider(type, value.type())
                    : type == Type.NULL ? value.type() : type;
        }
        return new Call(FunctionName.COALESCE, fitted, type);
    }

    /**
     * A text that stands beside something else than a text is read as such a value, as SQL does with its literals.
     *
     * @param isPadded whether what it stands beside is of type char(n), whose trailing blanks do not count
     * @param readsNumbers whether a text beside a number is one
     */
    static Expression fitted(Expression value, Expression beside, boolean isPadded, boolean readsNumbers)
            throws ExpressionException {
        if (!(value instanceof Literal literal) || literal.type() != Type.TEXT) {
            return value;
        }
        String text = (String) literal.value();
        return switch (beside.type()) {
            case MOMENT -> read(text, ColumnType.of(ColumnType.Name.TIMESTAMP));
            case INSTANT -> read(text, ColumnType.of(ColumnType.Name.TIMESTAMP_WITH_TIME_ZONE));
            case TIME -> read(text, ColumnType.of(ColumnType.Name.TIME));
            case UUID -> read(text, ColumnType.of(ColumnType.Name.UUID));
            case BOOLEAN -> read(text, ColumnType.of(ColumnType.Name.BOOLEAN));
            case TEXT -> isPadded ? new Literal(text.replaceAll(" +$", ""), Type.TEXT) : value;
            case INTEGER, DECIMAL, APPROXIMATE -> readsNumbers ? number(text) : value;
            default -> value;
        };
    }

    /** A text as a number, as servers take one that stands beside a number. */
    static Literal number(String text) throws ExpressionException {
        try {
            BigDecimal value = new BigDecimal(text.strip());
            requireModest(value, text);
            return new Literal(value, value.scale() <= 0 ? Type.INTEGER : Type.DECIMAL);
        } catch (NumberFormatException e) {
            throw ExpressionException.of("'" + text + "' is no number");
        }
    }

    /** A number as SQL writes it without quotes. */
    static Literal numeral(String text) throws ExpressionException {
        try {
            BigDecimal value = new BigDecimal(text);
            requireModest(value, text);
            boolean isWhole = text.chars().allMatch(c -> c >= '0' && c <= '9');
            return new Literal(value, isWhole ? Type.INTEGER : Type.DECIMAL);
        } catch (NumberFormatException e) {
            throw ExpressionException.of("`" + text + "` is no number");
        }
    }

    private static void requireModest(BigDecimal value, String text) throws ExpressionException {
        if (Math.abs((long) value.scale()) > 20_000) {
            throw ExpressionException.of("`" + text + "` is out of range");
        }
    }

    /** A text as a value of a type. */
    static Literal read(String text, ColumnType type) throws ExpressionException {
        ValueReader reader = ValueReader.of(Column.of("literal", type));
        if (!reader.accepts(text)) {
            throw ExpressionException.of("'" + text + "' is " + reader.refusal().words());
        }
        Type gives = Type.of(type);
        return switch (gives) {
            case UUID -> new Literal(new UUID(reader.high(), reader.low()).toString(), gives);
            case BOOLEAN -> new Literal(reader.high() == 1, gives);
            case APPROXIMATE -> new Literal(Double.longBitsToDouble(reader.high()), gives);
            case INTEGER, DECIMAL -> new Literal(new BigDecimal(text.strip()), gives);
            case TEXT ->
                new Literal(type.name() == ColumnType.Name.CHAR ? text.replaceAll(" +$", "") : text, Type.TEXT);
            default -> new Literal(reader.high(), gives);
        };
    }

    /** The value of an expression that reads no column; the expression itself where it reads one. */
    static Expression folded(Expression expression) throws ExpressionException {
        if (expression instanceof Literal
                || !expression.leaves().isEmpty()
                || !expression.queries().isEmpty()) {
            return expression;
        }
        try {
            Object value = new Evaluator().evaluate(expression, leaf -> {
                throw new IllegalStateException("no leaf was left: " + leaf);
            });
            return new Literal(value, value == null ? Type.NULL : expression.type());
        } catch (DivisionByZero e) {
            throw ExpressionException.of("this divides by zero");
        }
    }

    /** CAST of a value to a type, where no value is changed by it. */
    static Expression cast(Expression operand, ColumnType type, String written) throws ExpressionException {
        Expression value = folded(operand);
        Type gives = Type.of(type);
        if (value.type() == Type.NULL) {
            return value;
        }
        if (!(value instanceof Literal literal)) {
            boolean isUnbounded = type.length() == ColumnType.UNBOUNDED && type.precision() == ColumnType.UNBOUNDED;
            if (value.type() == gives && gives == Type.TEXT && isUnbounded && type.name() != ColumnType.Name.CHAR) {
                return value;
            }
            throw notCast(written, type);
        }
        Object constant = literal.value();
        if (constant instanceof String text && literal.type() == Type.TEXT) {
            return read(text, type);
        } else if (constant instanceof BigDecimal number) {
            return castNumber(number, literal, type, written);
        } else if (constant instanceof Long micros && literal.type() == Type.MOMENT && gives == Type.MOMENT) {
            boolean isDate = type.name() == ColumnType.Name.DATE;
            return new Literal(isDate ? Math.floorDiv(micros, MICROS_PER_DAY) * MICROS_PER_DAY : micros, gives);
        } else if (literal.type() == gives && gives != Type.TEXT) {
            return literal;
        }
        throw notCast(written, type);
    }

    private static Expression castNumber(BigDecimal number, Literal literal, ColumnType type, String written)
            throws ExpressionException {
        boolean isWhole = number.stripTrailingZeros().scale() <= 0;
        if (type.isText() && literal.type() == Type.INTEGER) {
            return read(number.toBigInteger().toString(), type);
        } else if (type.isInteger() && isWhole) {
            return read(number.toBigInteger().toString(), type);
        } else if (type.family().isNumber() && !type.isInteger()) {
            return read(number.toPlainString(), type);
        }
        throw notCast(written, type);
    }

    private static ExpressionException notCast(String written, ColumnType type) {
        return ExpressionException.of("`" + written + "` as " + type + " is not read: only what keeps its value is");
    }
}
