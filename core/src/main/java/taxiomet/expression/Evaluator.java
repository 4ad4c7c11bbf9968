package taxiomet.expression;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.List;
import java.util.Locale;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Arithmetic;
import taxiomet.charter.Expression.Between;
import taxiomet.charter.Expression.Call;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.InQuery;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Joined;
import taxiomet.charter.Expression.Like;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Negation;
import taxiomet.charter.Expression.Not;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.RowFile;
import taxiomet.charter.Expression.RowNumber;
import taxiomet.charter.Expression.Type;
import taxiomet.values.SqlText;

/**
 * Evaluates an expression for one row at a time, with SQL's three-valued logic. Values are those of {@link
 * Expression.Literal}; null is null, and unknown.
 */
public final class Evaluator {
    private static final int LEAST_PRECISION = 60;
    private static final int MORE_DIGITS = 20;

    private Leaves leaves;

    /** Gives the values of an expression's leaves: columns of a row or its parents, what its children and queries in it come to. */
    public interface Leaves {
        Object value(Expression leaf);
    }

    /**
     * The value of an expression.
     *
     * @throws DivisionByZero when a division by zero is evaluated
     */
    public Object evaluate(Expression expression, Leaves from) {
        leaves = from;
        return value(expression);
    }

    /** The number that an expression comes to, to be added up; zero where it is null, no finite number, or divides by zero. */
    public BigDecimal numberToAdd(Expression expression, Leaves from) {
        try {
            Object value = evaluate(expression, from);
            if (value instanceof BigDecimal number) {
                return number;
            }
            return value instanceof Double number && Double.isFinite(number)
                    ? BigDecimal.valueOf(number)
                    : BigDecimal.ZERO;
        } catch (DivisionByZero e) {
            return BigDecimal.ZERO;
        }
    }

    private Object value(Expression expression) {
        if (expression instanceof ColumnValue
                || expression instanceof ParentValue
                || expression instanceof ChildrenValue
                || expression instanceof InQuery
                || expression instanceof RowNumber
                || expression instanceof RowFile) {
            return leaves.value(expression);
        } else if (expression instanceof Literal e) {
            return e.value();
        } else if (expression instanceof Compared e) {
            return compared(e);
        } else if (expression instanceof And e) {
            return joined(e.all(), false);
        } else if (expression instanceof Or e) {
            return joined(e.any(), true);
        } else if (expression instanceof Not e) {
            return not((Boolean) value(e.condition()));
        } else if (expression instanceof IsNull e) {
            return value(e.operand()) == null;
        } else if (expression instanceof In e) {
            return in(e);
        } else if (expression instanceof Between e) {
            return between(e);
        } else if (expression instanceof Like e) {
            return like(e);
        } else if (expression instanceof Arithmetic e) {
            return arithmetic(e);
        } else if (expression instanceof Negation e) {
            return negated(value(e.operand()));
        } else if (expression instanceof Call e) {
            return call(e);
        } else if (expression instanceof Joined e) {
            return joined(e);
        }
        throw new IllegalStateException("no way to evaluate " + expression);
    }

    private static Boolean not(Boolean value) {
        return value == null ? null : !value;
    }

    /** AND is false, and OR true, as soon as one operand is; unknown when one is unknown otherwise. */
    private Boolean joined(List<Expression> operands, boolean deciding) {
        boolean isUnknown = false;
        for (Expression operand : operands) {
            Boolean value = (Boolean) value(operand);
            if (value == null) {
                isUnknown = true;
            } else if (value == deciding) {
                return deciding;
            }
        }
        return isUnknown ? null : !deciding;
    }

    private Boolean compared(Compared e) {
        Object left = value(e.left());
        Object right = value(e.right());
        if (left == null || right == null) {
            return null;
        }
        int order = compare(left, right);
        return switch (e.comparator()) {
            case EQUAL -> order == 0;
            case NOT_EQUAL -> order != 0;
            case LESS -> order < 0;
            case LESS_OR_EQUAL -> order <= 0;
            case GREATER -> order > 0;
            case GREATER_OR_EQUAL -> order >= 0;
        };
    }

    private Boolean in(In e) {
        Object operand = value(e.operand());
        boolean isUnknown = operand == null;
        for (Expression element : e.list()) {
            Object value = value(element);
            if (value == null) {
                isUnknown = true;
            } else if (operand != null && compare(operand, value) == 0) {
                return true;
            }
        }
        return isUnknown ? null : false;
    }

    private Boolean between(Between e) {
        Object operand = value(e.operand());
        Object low = value(e.low());
        Object high = value(e.high());
        Boolean isAbove = operand == null || low == null ? null : (Boolean) (compare(operand, low) >= 0);
        Boolean isBelow = operand == null || high == null ? null : (Boolean) (compare(operand, high) <= 0);
        if (Boolean.FALSE.equals(isAbove) || Boolean.FALSE.equals(isBelow)) {
            return false;
        }
        return isAbove == null || isBelow == null ? null : true;
    }

    private Boolean like(Like e) {
        String text = (String) value(e.operand());
        String pattern = (String) value(e.pattern());
        String escape = e.escape().map(x -> (String) value(x)).orElse("");
        return text == null || pattern == null
                ? null
                : LikePattern.of(pattern, escape).matches(text);
    }

    private Object arithmetic(Arithmetic e) {
        Object left = value(e.left());
        Object right = value(e.right());
        if (left == null || right == null) {
            return null;
        }
        if (e.type() == Type.APPROXIMATE) {
            double a = ((Number) left).doubleValue();
            double b = ((Number) right).doubleValue();
            return switch (e.operator()) {
                case PLUS -> a + b;
                case MINUS -> a - b;
                case TIMES -> a * b;
                case DIVIDED_BY -> {
                    if (b == 0) {
                        throw new DivisionByZero();
                    }
                    yield a / b;
                }
            };
        }
        BigDecimal a = (BigDecimal) left;
        BigDecimal b = (BigDecimal) right;
        return switch (e.operator()) {
            case PLUS -> a.add(b);
            case MINUS -> a.subtract(b);
            case TIMES -> a.multiply(b);
            case DIVIDED_BY -> {
                if (b.signum() == 0) {
                    throw new DivisionByZero();
                }
                yield e.type() == Type.INTEGER ? a.divideToIntegralValue(b) : quotient(a, b);
            }
        };
    }

    /** One exact number by another, which is not zero, to at least {@value #LEAST_PRECISION} digits. */
    public static BigDecimal quotient(BigDecimal a, BigDecimal b) {
        return a.divide(
                b, new MathContext(Math.max(LEAST_PRECISION, a.precision() + MORE_DIGITS), RoundingMode.HALF_UP));
    }

    private static Object negated(Object value) {
        if (value == null) {
            return null;
        }
        return value instanceof Double d ? (Object) (-d + 0.0) : ((BigDecimal) value).negate();
    }

    private String joined(Joined e) {
        StringBuilder all = new StringBuilder();
        for (Expression part : e.parts()) {
            Object text = value(part);
            if (text == null) {
                return null;
            }
            all.append(text);
        }
        return all.toString();
    }

    private Object call(Call e) {
        if (e.function() == Expression.FunctionName.COALESCE) {
            for (Expression argument : e.arguments()) {
                Object value = value(argument);
                if (value != null) {
                    return value;
                }
            }
            return null;
        }
        String text = (String) value(e.arguments().get(0));
        if (text == null) {
            return null;
        }
        return switch (e.function()) {
            case LENGTH -> BigDecimal.valueOf(text.codePointCount(0, text.length()));
            case LOWER -> text.toLowerCase(Locale.ROOT);
            case UPPER -> text.toUpperCase(Locale.ROOT);
            case TRIM -> SqlText.trim(text);
            case COALESCE -> throw new IllegalStateException("handled above");
        };
    }

    /** The order of two values of comparable types, neither of them null: numbers by value, texts by code point. */
    public static int compare(Object left, Object right) {
        if (left instanceof BigDecimal a && right instanceof BigDecimal b) {
            return a.compareTo(b);
        } else if (left instanceof Number a && right instanceof Number b && !(left instanceof Long)) {
            return Double.compare(a.doubleValue() + 0.0, b.doubleValue() + 0.0);
        } else if (left instanceof Long a) {
            return a.compareTo((Long) right);
        } else if (left instanceof Boolean a) {
            return a.compareTo((Boolean) right);
        }
        return SqlText.compare((String) left, (String) right);
    }
}
