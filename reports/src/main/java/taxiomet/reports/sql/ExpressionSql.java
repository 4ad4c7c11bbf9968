package taxiomet.reports.sql;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Arithmetic;
import taxiomet.charter.Expression.Between;
import taxiomet.charter.Expression.Call;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Joined;
import taxiomet.charter.Expression.Like;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Negation;
import taxiomet.charter.Expression.Not;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.Table;

/** Expressions over a row's own columns as a server reads them: names and texts quoted, and nothing that it would read otherwise. */
final class ExpressionSql {
    private static final long MICROS_PER_SECOND = 1_000_000;
    private static final long NANOS_PER_MICRO = 1_000;
    private static final long MICROS_PER_DAY = 86_400 * MICROS_PER_SECOND;
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss.SSSSSS");
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("uuuu-MM-dd");
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss.SSSSSS");

    private final Dialect dialect;
    private final Table table;

    /** An expression that cannot be said to a server so that it means the same. */
    static final class Unsaid extends Exception {
        private static final long serialVersionUID = 1;

        Unsaid(String why) {
            super(why);
        }
    }

    ExpressionSql(Dialect dialect, Table table) {
        this.dialect = dialect;
        this.table = table;
    }

    /**
     * The expression as SQL, in parentheses where it is made of several.
     *
     * @throws Unsaid with the reason, as a clause
     */
    String of(Expression expression) throws Unsaid {
        if (expression instanceof Literal literal) {
            return literal(literal);
        } else if (expression instanceof ColumnValue column) {
            return dialect.name(table.columns().get(column.column()).name());
        } else if (expression instanceof Negation e) {
            return "(- " + of(e.operand()) + ")";
        } else if (expression instanceof Arithmetic e) {
            return "(" + of(e.left()) + " " + operator(e) + " " + of(e.right()) + ")";
        } else if (expression instanceof Joined e) {
            return dialect == Dialect.MARIADB
                    ? "concat(" + all(e.parts(), ", ") + ")"
                    : "(" + all(e.parts(), " || ") + ")";
        } else if (expression instanceof Call e) {
            return call(e);
        } else if (expression instanceof Compared e) {
            return "(" + of(e.left()) + " " + comparator(e) + " " + of(e.right()) + ")";
        } else if (expression instanceof And e) {
            return "(" + all(e.all(), " AND ") + ")";
        } else if (expression instanceof Or e) {
            return "(" + all(e.any(), " OR ") + ")";
        } else if (expression instanceof Not e) {
            return "(NOT " + of(e.condition()) + ")";
        } else if (expression instanceof IsNull e) {
            return "(" + of(e.operand()) + " IS NULL)";
        } else if (expression instanceof In e) {
            return "(" + of(e.operand()) + " IN (" + all(e.list(), ", ") + "))";
        } else if (expression instanceof Between e) {
            return "(" + of(e.operand()) + " BETWEEN " + of(e.low()) + " AND " + of(e.high()) + ")";
        } else if (expression instanceof Like e) {
            return like(e);
        }
        throw new Unsaid("it asks for other rows, which no CHECK can");
    }

    /** What the expression divides by, those within others first. */
    List<String> divisors(Expression expression) throws Unsaid {
        List<String> divisors = new ArrayList<>();
        for (Expression operand : expression.operands()) {
            divisors.addAll(divisors(operand));
        }
        if (expression instanceof Arithmetic e && e.operator() == Expression.Operator.DIVIDED_BY) {
            divisors.add(of(e.right()));
        }
        return divisors;
    }

    private String all(List<Expression> some, String between) throws Unsaid {
        StringBuilder all = new StringBuilder();
        for (Expression each : some) {
            all.append(all.isEmpty() ? "" : between).append(of(each));
        }
        return all.toString();
    }

    private String operator(Arithmetic e) throws Unsaid {
        return switch (e.operator()) {
            case PLUS -> "+";
            case MINUS -> "-";
            case TIMES -> "*";
            case DIVIDED_BY -> {
                if (dialect != Dialect.POSTGRESQL) {
                    throw new Unsaid("the server divides in another way");
                }
                yield "/";
            }
        };
    }

    private static String comparator(Compared e) {
        return switch (e.comparator()) {
            case EQUAL -> "=";
            case NOT_EQUAL -> "<>";
            case LESS -> "<";
            case LESS_OR_EQUAL -> "<=";
            case GREATER -> ">";
            case GREATER_OR_EQUAL -> ">=";
        };
    }

    private String call(Call e) throws Unsaid {
        String arguments = all(e.arguments(), ", ");
        return switch (e.function()) {
            case LENGTH -> (dialect == Dialect.SQLITE ? "length(" : "char_length(") + arguments + ")";
            case LOWER, UPPER -> {
                if (dialect == Dialect.SQLITE) {
                    throw new Unsaid("the server folds the letters of ASCII alone");
                }
                yield e.function().word() + "(" + arguments + ")";
            }
            case TRIM -> "trim(" + arguments + ")";
            case COALESCE -> "coalesce(" + arguments + ")";
        };
    }

    private String like(Like e) throws Unsaid {
        if (dialect == Dialect.SQLITE) {
            throw new Unsaid("the server's LIKE does not tell cases apart");
        }
        String escape = e.escape().isPresent()
                ? " ESCAPE " + of(e.escape().get())
                // Without a word there is no escape in SQL, and these take the backslash for one.
                : " ESCAPE ''";
        if (dialect == Dialect.MARIADB && e.escape().isEmpty()) {
            throw new Unsaid("the server takes a backslash in a pattern for an escape");
        }
        return "(" + of(e.operand()) + " LIKE " + of(e.pattern()) + escape + ")";
    }

    private String literal(Literal literal) {
        Object value = literal.value();
        if (value == null) {
            return "NULL";
        } else if (value instanceof BigDecimal number) {
            return number.signum() < 0 ? "(" + number.toPlainString() + ")" : number.toPlainString();
        } else if (value instanceof Boolean truth) {
            return truth ? "TRUE" : "FALSE";
        } else if (value instanceof Long micros) {
            return moment(literal.type(), micros);
        }
        String text = text(value.toString());
        return literal.type() == Type.UUID && dialect == Dialect.POSTGRESQL ? "CAST(" + text + " AS uuid)" : text;
    }

    private String text(String value) {
        return dialect.literal(Column.of("value", ColumnType.of(ColumnType.Name.TEXT)), value);
    }

    private String moment(Type type, long micros) {
        String word;
        String text;
        if (type == Type.TIME) {
            word = "TIME ";
            text = LocalTime.ofNanoOfDay(micros * NANOS_PER_MICRO).format(TIME);
        } else {
            LocalDateTime at = LocalDateTime.ofInstant(
                    Instant.ofEpochSecond(
                            Math.floorDiv(micros, MICROS_PER_SECOND),
                            Math.floorMod(micros, MICROS_PER_SECOND) * NANOS_PER_MICRO),
                    ZoneOffset.UTC);
            boolean isDay = type == Type.MOMENT && Math.floorMod(micros, MICROS_PER_DAY) == 0;
            word = isDay
                    ? "DATE "
                    : type == Type.INSTANT && dialect == Dialect.POSTGRESQL
                            ? "TIMESTAMP WITH TIME ZONE "
                            : "TIMESTAMP ";
            text = at.format(isDay ? DATE : MOMENT)
                    + (type == Type.INSTANT && dialect == Dialect.POSTGRESQL ? "+00" : "");
        }
        return (dialect == Dialect.SQLITE ? "" : word) + "'" + text + "'";
    }

    /** Names with commas between them. */
    static String names(Dialect dialect, List<String> names) {
        return names.stream().map(dialect::name).collect(Collectors.joining(", "));
    }
}
