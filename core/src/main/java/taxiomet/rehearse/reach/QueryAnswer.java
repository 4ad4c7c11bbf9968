package taxiomet.rehearse.reach;

import java.math.BigDecimal;
import java.util.Set;

/**
 * What a query of one column gave.
 *
 * @param values as expressions have them, numbers without zeros at the end
 * @param hasNull whether a null was among them
 */
public record QueryAnswer(Set<Object> values, boolean hasNull) {
    public QueryAnswer {
        values = Set.copyOf(values);
    }

    /** A value as it is compared. */
    public static Object plain(Object value) {
        if (value instanceof BigDecimal number) {
            return number.signum() == 0 ? BigDecimal.ZERO : number.stripTrailingZeros();
        }
        return value instanceof Double number ? (Object) (number + 0.0) : value;
    }

    /** IN, with SQL's three-valued logic. */
    Boolean contains(Object operand) {
        if (values.isEmpty() && !hasNull) {
            return false;
        }
        if (operand == null) {
            return null;
        }
        return values.contains(plain(operand)) ? (Boolean) true : hasNull ? null : (Boolean) false;
    }
}
