package taxiomet.charters.sql;

import java.math.BigDecimal;
import java.util.UUID;
import net.sf.jsqlparser.expression.BooleanValue;
import net.sf.jsqlparser.expression.DateTimeLiteralExpression;
import net.sf.jsqlparser.expression.DoubleValue;
import net.sf.jsqlparser.expression.LongValue;
import net.sf.jsqlparser.expression.NullValue;
import net.sf.jsqlparser.expression.StringValue;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Type;
import taxiomet.rows.ValueReader;

/** Constants in expressions. */
final class Literals {
    private Literals() {}

    /** The constant that an expression is. */
    static Expression of(net.sf.jsqlparser.expression.Expression e) throws ExpressionException {
        if (e instanceof LongValue number) {
            return new Literal(new BigDecimal(number.getBigIntegerValue()), Type.INTEGER);
        } else if (e instanceof DoubleValue number) {
            try {
                BigDecimal value = new BigDecimal(number.toString());
                if (Math.abs((long) value.scale()) > 20_000) {
                    throw ExpressionException.of("`" + number + "` is out of range");
                }
                return new Literal(value, Type.DECIMAL);
            } catch (NumberFormatException x) {
                throw ExpressionException.of("`" + number + "` is no number");
            }
        } else if (e instanceof StringValue text) {
            return new Literal(text.getNotExcapedValue(), Type.TEXT);
        } else if (e instanceof BooleanValue truth) {
            return new Literal(truth.getValue(), Type.BOOLEAN);
        } else if (e instanceof NullValue) {
            return new Literal(null, Type.NULL);
        } else if (e instanceof DateTimeLiteralExpression moment) {
            return moment(moment);
        }
        throw ExpressionException.notKnown(e.toString());
    }

    private static Expression moment(DateTimeLiteralExpression literal) throws ExpressionException {
        String quoted = literal.getValue();
        String text = quoted.startsWith("'") ? quoted.substring(1, quoted.length() - 1) : quoted;
        return switch (literal.getType()) {
            case DATE -> read(text, ColumnType.Name.DATE, Type.MOMENT);
            case TIME -> read(text, ColumnType.Name.TIME, Type.TIME);
            case TIMESTAMP -> read(text, ColumnType.Name.TIMESTAMP, Type.MOMENT);
            case TIMESTAMPTZ -> read(text, ColumnType.Name.TIMESTAMP_WITH_TIME_ZONE, Type.INSTANT);
            default -> throw ExpressionException.notKnown(literal.toString());
        };
    }

    /** A text as a number, as servers take one that stands beside a number. */
    static Literal number(String text) throws ExpressionException {
        try {
            BigDecimal value = new BigDecimal(text.strip());
            return new Literal(value, value.scale() <= 0 ? Type.INTEGER : Type.DECIMAL);
        } catch (NumberFormatException e) {
            throw ExpressionException.of("'" + text + "' is no number");
        }
    }

    /** A text as a value of a type. */
    static Literal read(String text, ColumnType.Name name, Type type) throws ExpressionException {
        ValueReader reader = ValueReader.of(Column.of("literal", ColumnType.of(name)));
        if (!reader.accepts(text)) {
            throw ExpressionException.of("'" + text + "' is " + reader.refusal().words());
        }
        return new Literal(
                type == Type.UUID
                        ? new UUID(reader.high(), reader.low()).toString()
                        : type == Type.BOOLEAN ? (Object) (reader.high() == 1) : (Object) reader.high(),
                type);
    }
}
