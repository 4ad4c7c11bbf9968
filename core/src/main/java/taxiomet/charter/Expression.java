package taxiomet.charter;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Stream;

/**
 * A SQL value expression or search condition over the columns of one row, with its type (ISO/IEC 9075-2, 6.28 and 8.1 to
 * 8.8). Operands fit one another: whoever builds an expression has checked that.
 */
public sealed interface Expression {
    /** What an expression gives. */
    enum Type {
        /** A whole number of any size; division of two truncates. */
        INTEGER("number"),
        /** An exact number with a fraction. */
        DECIMAL("number"),
        /** A floating-point number. */
        APPROXIMATE("number"),
        TEXT("text"),
        BOOLEAN("truth value"),
        /** Date or timestamp. */
        MOMENT("date or timestamp"),
        INSTANT("timestamp with time zone"),
        TIME("time"),
        UUID("uuid"),
        /** The literal NULL, which fits every other type. */
        NULL("null");

        private final String words;

        Type(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public boolean isNumber() {
            return this == INTEGER || this == DECIMAL || this == APPROXIMATE;
        }

        /** Whether values of both types can be compared with each other. */
        public boolean isComparableWith(Type other) {
            return this == other || this == NULL || other == NULL || (isNumber() && other.isNumber());
        }

        /** What values of a column's type give. */
        public static Type of(ColumnType column) {
            return switch (column.family()) {
                case EXACT_NUMBER -> column.isInteger() ? INTEGER : DECIMAL;
                case APPROXIMATE_NUMBER -> APPROXIMATE;
                case BOOLEAN -> BOOLEAN;
                case TEXT -> TEXT;
                case MOMENT -> MOMENT;
                case INSTANT -> INSTANT;
                case TIME -> TIME;
                case UUID -> UUID;
            };
        }
    }

    /** The six comparisons of SQL. */
    enum Comparator {
        EQUAL,
        NOT_EQUAL,
        LESS,
        LESS_OR_EQUAL,
        GREATER,
        GREATER_OR_EQUAL
    }

    /** The four operations on numbers. */
    enum Operator {
        PLUS,
        MINUS,
        TIMES,
        DIVIDED_BY
    }

    /** The functions that a rule may call. */
    enum FunctionName {
        LENGTH,
        LOWER,
        UPPER,
        TRIM,
        COALESCE;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }

        /** The words of all functions. */
        public static List<String> words() {
            return Stream.of(values()).map(FunctionName::word).toList();
        }
    }

    Type type();

    /**
     * A constant.
     *
     * @param value a BigDecimal, Double, String (text, or a uuid in lower case with hyphens), Boolean, or a Long of
     *     microseconds (of the day for a time, since 1970-01-01 otherwise); null for NULL
     */
    record Literal(Object value, Type type) implements Expression {}

    /** @param column the place of the column in its table, 0 for the first */
    record ColumnValue(int column, Type type) implements Expression {}

    /**
     * A column of a parent.
     *
     * @param links names of the links that lead there, the row's own first
     * @param column the place of the column in the last parent's table
     */
    record ParentValue(List<String> links, int column, Type type) implements Expression {
        public ParentValue {
            links = List.copyOf(links);
        }
    }

    /** What can be made of the children of a row. */
    enum Aggregate {
        COUNT,
        SUM,
        AVG,
        MIN,
        MAX;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * What the children of a row come to over one link: how many there are, or what is made of a column of theirs that is not null
     * (ISO/IEC 9075-2, 10.9). Without children a count is 0, everything else null.
     *
     * @param child the table whose rows are the children
     * @param link the name of its link that leads to the row
     * @param column the place of the column in the child's table; empty where rows are counted
     * @param text as it is written: {@code sum(harvest.harvest_lot.weight_kg)}
     */
    record ChildrenValue(
            Aggregate aggregate, String child, String link, Optional<Integer> column, String text, Type type)
            implements Expression {}

    /** The number of the row in its file, 1 for the first, as evidence has it; only in a change, where rows are being named. */
    record RowNumber() implements Expression {
        @Override
        public Type type() {
            return Type.INTEGER;
        }
    }

    /** The name of the file that the row stands in, without its folders; only in a change, where rows are being named. */
    record RowFile() implements Expression {
        @Override
        public Type type() {
            return Type.TEXT;
        }
    }

    record Negation(Expression operand) implements Expression {
        @Override
        public Type type() {
            return operand.type();
        }
    }

    record Arithmetic(Operator operator, Expression left, Expression right, Type type) implements Expression {}

    /** Texts one behind the other; null when one of them is. */
    record Joined(List<Expression> parts) implements Expression {
        public Joined {
            parts = List.copyOf(parts);
        }

        @Override
        public Type type() {
            return Type.TEXT;
        }
    }

    record Call(FunctionName function, List<Expression> arguments, Type type) implements Expression {
        public Call {
            arguments = List.copyOf(arguments);
        }
    }

    /** An expression whose value is true, false or unknown (null). */
    sealed interface Condition extends Expression {
        @Override
        default Type type() {
            return Type.BOOLEAN;
        }
    }

    record Compared(Comparator comparator, Expression left, Expression right) implements Condition {}

    record And(List<Expression> all) implements Condition {
        public And {
            all = List.copyOf(all);
        }
    }

    record Or(List<Expression> any) implements Condition {
        public Or {
            any = List.copyOf(any);
        }
    }

    record Not(Expression condition) implements Condition {}

    record IsNull(Expression operand) implements Condition {}

    record In(Expression operand, List<Expression> list) implements Condition {
        public In {
            list = List.copyOf(list);
        }
    }

    /**
     * IN over what a query of one table gives.
     *
     * @param column the place of the column selected, in the table queried
     * @param where which of its rows; empty for all
     */
    record InQuery(Expression operand, String table, int column, Optional<Expression> where) implements Condition {}

    record Between(Expression operand, Expression low, Expression high) implements Condition {}

    record Like(Expression operand, Expression pattern, Optional<Expression> escape) implements Condition {}

    /** The expressions directly inside this one. */
    default List<Expression> operands() {
        if (this instanceof Negation e) {
            return List.of(e.operand());
        } else if (this instanceof Arithmetic e) {
            return List.of(e.left(), e.right());
        } else if (this instanceof Joined e) {
            return e.parts();
        } else if (this instanceof Call e) {
            return e.arguments();
        } else if (this instanceof Compared e) {
            return List.of(e.left(), e.right());
        } else if (this instanceof And e) {
            return e.all();
        } else if (this instanceof Or e) {
            return e.any();
        } else if (this instanceof Not e) {
            return List.of(e.condition());
        } else if (this instanceof IsNull e) {
            return List.of(e.operand());
        } else if (this instanceof In e) {
            return Stream.concat(Stream.of(e.operand()), e.list().stream()).toList();
        } else if (this instanceof InQuery e) {
            return List.of(e.operand());
        } else if (this instanceof Between e) {
            return List.of(e.operand(), e.low(), e.high());
        } else if (this instanceof Like e) {
            return e.escape().isPresent()
                    ? List.of(e.operand(), e.pattern(), e.escape().get())
                    : List.of(e.operand(), e.pattern());
        }
        return List.of();
    }

    /** All that an expression reads of a row, its parents or its children, as often as it stands there. */
    default List<Expression> leaves() {
        List<Expression> leaves = all();
        leaves.removeIf(part -> !(part instanceof ColumnValue)
                && !(part instanceof ParentValue)
                && !(part instanceof ChildrenValue)
                && !(part instanceof RowNumber)
                && !(part instanceof RowFile));
        return leaves;
    }

    /** All queries in the expression. */
    default List<InQuery> queries() {
        return all().stream()
                .filter(InQuery.class::isInstance)
                .map(InQuery.class::cast)
                .toList();
    }

    private List<Expression> all() {
        List<Expression> all = new ArrayList<>();
        ArrayDeque<Expression> open = new ArrayDeque<>(List.of(this));
        while (!open.isEmpty()) {
            Expression next = open.pop();
            all.add(next);
            next.operands().forEach(open::push);
        }
        return all;
    }

    /** The places of all columns of the row itself that the expression reads, ascending, each once. */
    default int[] columnsRead() {
        TreeSet<Integer> columns = new TreeSet<>();
        for (Expression leaf : leaves()) {
            if (leaf instanceof ColumnValue c) {
                columns.add(c.column());
            }
        }
        return columns.stream().mapToInt(Integer::intValue).toArray();
    }

    /** The parents' columns that the expression reads. */
    default List<ParentValue> parentsRead() {
        return leaves().stream()
                .filter(ParentValue.class::isInstance)
                .map(ParentValue.class::cast)
                .toList();
    }

    /** What the expression makes of children, in the order in which it is written. */
    default List<ChildrenValue> childrenRead() {
        List<ChildrenValue> figures = new ArrayList<>();
        for (Expression leaf : leaves()) {
            if (leaf instanceof ChildrenValue figure) {
                // The walk over the tree comes to the last first.
                figures.add(0, figure);
            }
        }
        return figures;
    }

    /** Whether the expression reads rows of other tables: parents or children. */
    default boolean readsRelatives() {
        return !parentsRead().isEmpty() || !childrenRead().isEmpty();
    }
}
