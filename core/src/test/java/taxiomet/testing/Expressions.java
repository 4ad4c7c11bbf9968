package taxiomet.testing;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.Arithmetic;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.Like;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;

/** Expressions for tests, in few words. */
public final class Expressions {
    public static final Expression UNKNOWN = new Literal(null, Type.NULL);
    public static final Expression TRUE = new Literal(true, Type.BOOLEAN);
    public static final Expression FALSE = new Literal(false, Type.BOOLEAN);

    private Expressions() {}

    public static Expression number(String digits) {
        BigDecimal number = new BigDecimal(digits);
        return new Literal(number, number.scale() <= 0 ? Type.INTEGER : Type.DECIMAL);
    }

    public static Expression text(String text) {
        return new Literal(text, Type.TEXT);
    }

    public static Expression column(int place, Type type) {
        return new ColumnValue(place, type);
    }

    public static Expression whole(int place) {
        return column(place, Type.INTEGER);
    }

    public static Expression parent(String link, int place, Type type) {
        return new ParentValue(List.of(link), place, type);
    }

    /** What children come to; the column is counted or read, by its place, or -1 for rows. */
    public static Expression children(Aggregate aggregate, String child, String link, int column, Type type) {
        String text = aggregate.word() + "(" + child + "." + link + (column < 0 ? "" : "." + column) + ")";
        return new ChildrenValue(
                aggregate, child, link, column < 0 ? Optional.empty() : Optional.of(column), text, type);
    }

    public static Expression is(Comparator comparator, Expression left, Expression right) {
        return new Compared(comparator, left, right);
    }

    public static Expression equal(Expression left, Expression right) {
        return is(Comparator.EQUAL, left, right);
    }

    public static Expression atLeast(Expression left, Expression right) {
        return is(Comparator.GREATER_OR_EQUAL, left, right);
    }

    public static Expression reckoned(Expression left, Operator operator, Expression right, Type type) {
        return new Arithmetic(operator, left, right, type);
    }

    public static Expression like(Expression text, String pattern) {
        return new Like(text, text(pattern), Optional.empty());
    }
}
