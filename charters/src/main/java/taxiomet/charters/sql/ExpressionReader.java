package taxiomet.charters.sql;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import net.sf.jsqlparser.JSQLParserException;
import net.sf.jsqlparser.expression.BinaryExpression;
import net.sf.jsqlparser.expression.Function;
import net.sf.jsqlparser.expression.NotExpression;
import net.sf.jsqlparser.expression.SignedExpression;
import net.sf.jsqlparser.expression.TimeKeyExpression;
import net.sf.jsqlparser.expression.TrimFunction;
import net.sf.jsqlparser.expression.operators.arithmetic.Addition;
import net.sf.jsqlparser.expression.operators.arithmetic.Division;
import net.sf.jsqlparser.expression.operators.arithmetic.Multiplication;
import net.sf.jsqlparser.expression.operators.arithmetic.Subtraction;
import net.sf.jsqlparser.expression.operators.conditional.AndExpression;
import net.sf.jsqlparser.expression.operators.conditional.OrExpression;
import net.sf.jsqlparser.expression.operators.relational.Between;
import net.sf.jsqlparser.expression.operators.relational.EqualsTo;
import net.sf.jsqlparser.expression.operators.relational.GreaterThan;
import net.sf.jsqlparser.expression.operators.relational.GreaterThanEquals;
import net.sf.jsqlparser.expression.operators.relational.InExpression;
import net.sf.jsqlparser.expression.operators.relational.IsNullExpression;
import net.sf.jsqlparser.expression.operators.relational.LikeExpression;
import net.sf.jsqlparser.expression.operators.relational.MinorThan;
import net.sf.jsqlparser.expression.operators.relational.MinorThanEquals;
import net.sf.jsqlparser.expression.operators.relational.NotEqualsTo;
import net.sf.jsqlparser.expression.operators.relational.ParenthesedExpressionList;
import net.sf.jsqlparser.parser.CCJSqlParserUtil;
import net.sf.jsqlparser.parser.ParseException;
import net.sf.jsqlparser.parser.Token;
import net.sf.jsqlparser.statement.select.ParenthesedSelect;
import net.sf.jsqlparser.statement.select.PlainSelect;
import net.sf.jsqlparser.statement.select.Select;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Arithmetic;
import taxiomet.charter.Expression.Call;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.FunctionName;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.InQuery;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Like;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Negation;
import taxiomet.charter.Expression.Not;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;

/** Reads the expressions of one table. */
public final class ExpressionReader {
    private static final int LONGEST = 4_000;
    private static final int LONGEST_IN_STATEMENT = 1_000_000;
    /** The parser's time grows steeply with parentheses inside one another. */
    private static final int DEEPEST = 40;

    private static final long MICROS_PER_DAY = 86_400_000_000L;

    private final String table;
    private final List<Column> columns;
    private final Map<String, Table> tables;
    private final Set<String> declaredLinks;
    private final Optional<Statement> statement;

    /**
     * What the expressions of a statement can hold beyond those of a rule: queries behind IN, the current moment, and numbers in
     * quotes.
     *
     * @param alias another name of the table in the statement; may be empty
     * @param now the moment that is current
     */
    public record Statement(String alias, Instant now) {}

    /**
     * @param tables all tables with their links, over which a rule may reach parents' columns
     * @param declaredLinks names of the table's links, those too that could not be read
     */
    public ExpressionReader(String table, Map<String, Table> tables, Set<String> declaredLinks) {
        this(table, tables, declaredLinks, Optional.empty());
    }

    /** A reader for the expressions of a statement about one table. */
    public ExpressionReader(String table, Map<String, Table> tables, Statement statement) {
        this(table, tables, Set.of(), Optional.of(statement));
    }

    private ExpressionReader(
            String table, Map<String, Table> tables, Set<String> declaredLinks, Optional<Statement> statement) {
        this.statement = statement;
        this.table = table;
        this.columns = tables.get(table).columns();
        this.tables = Map.copyOf(tables);
        this.declaredLinks = Set.copyOf(declaredLinks);
    }

    /** A search condition: an expression of type boolean. */
    public Expression readCondition(String sql) throws ExpressionException {
        Expression expression = read(sql);
        requireTruth(expression);
        return expression;
    }

    /** An expression of any type. */
    public Expression readValue(String sql) throws ExpressionException {
        return read(sql);
    }

    /** An expression that gives a number. */
    public Expression readNumber(String sql) throws ExpressionException {
        Expression expression = read(sql);
        if (!expression.parentsRead().isEmpty()) {
            throw ExpressionException.of(
                    "this asks for a parent's column, and is to be added up over the rows themselves");
        }
        if (!expression.type().isNumber()) {
            throw ExpressionException.of("this gives a " + expression.type().words() + ", not a number");
        }
        return expression;
    }

    private Expression read(String sql) throws ExpressionException {
        requireModest(sql);
        if (sql.isBlank()) {
            throw ExpressionException.of("this condition is empty");
        }
        try {
            return typed(CCJSqlParserUtil.parseCondExpression(sql, false));
        } catch (JSQLParserException e) {
            throw ExpressionException.of("this is no SQL condition" + near(sql, e));
        } catch (StackOverflowError e) {
            throw ExpressionException.of("this condition is nested too deep");
        }
    }

    private void requireModest(String sql) throws ExpressionException {
        int depth = 0;
        int deepest = 0;
        for (int i = 0; i < sql.length(); i++) {
            depth += sql.charAt(i) == '(' ? 1 : sql.charAt(i) == ')' ? -1 : 0;
            deepest = Math.max(deepest, depth);
        }
        int longest = statement.isPresent() ? LONGEST_IN_STATEMENT : LONGEST;
        if (sql.length() > longest || deepest > DEEPEST) {
            throw ExpressionException.of("this condition is longer or nested deeper than can be read (" + longest
                    + " characters, " + DEEPEST + " parentheses)");
        }
    }

    /** Where the parser stopped, if it says so. */
    private static String near(String sql, JSQLParserException e) {
        if (e.getCause() instanceof ParseException parse && parse.currentToken != null) {
            Token next = parse.currentToken.next;
            if (next == null || next.image.isEmpty()) {
                return ": it ends too early";
            }
            return " at `" + next.image + "` (character " + next.beginColumn + ")";
        }
        String message = e.getMessage() == null ? "" : e.getMessage();
        String partial = "could only parse partial expression ";
        int at = message.indexOf(partial);
        if (at >= 0) {
            String understood = message.substring(at + partial.length())
                    .lines()
                    .findFirst()
                    .orElse("")
                    .strip();
            return sql.length() > understood.length() ? ": only `" + understood + "` of it can be read" : "";
        }
        return "";
    }

    private Expression typed(net.sf.jsqlparser.expression.Expression e) throws ExpressionException {
        if (e instanceof ParenthesedExpressionList<?> list) {
            if (list.size() != 1) {
                throw ExpressionException.of("a list in parentheses can only stand behind IN");
            }
            return typed(list.get(0));
        } else if (e instanceof net.sf.jsqlparser.schema.Column column) {
            return column(column);
        } else if (e instanceof AndExpression and) {
            return new And(truths(flattened(and, AndExpression.class)));
        } else if (e instanceof OrExpression or) {
            return new Or(truths(flattened(or, OrExpression.class)));
        } else if (e instanceof NotExpression not) {
            Expression operand = typed(not.getExpression());
            requireTruth(operand);
            return new Not(operand);
        } else if (e instanceof IsNullExpression isNull) {
            return negatedIf(isNull.isNot(), new IsNull(typed(isNull.getLeftExpression())));
        } else if (e instanceof InExpression in) {
            return in(in);
        } else if (e instanceof Between between) {
            return between(between);
        } else if (e instanceof LikeExpression like) {
            return like(like);
        } else if (e instanceof BinaryExpression binary) {
            return binary(binary);
        } else if (e instanceof SignedExpression signed) {
            return signed(signed);
        } else if (e instanceof Function function) {
            return call(function);
        } else if (e instanceof TrimFunction trim) {
            if (trim.getFromExpression() != null || trim.getTrimSpecification() != null) {
                throw ExpressionException.of("TRIM takes a text and nothing else: it takes the blanks off both ends");
            }
            return call(FunctionName.TRIM, List.of(typed(trim.getExpression())));
        } else if (e instanceof TimeKeyExpression moment && statement.isPresent()) {
            return current(moment.getStringValue());
        }
        return Literals.of(e);
    }

    private Expression current(String words) throws ExpressionException {
        long micros =
                ChronoUnit.MICROS.between(Instant.EPOCH, statement.orElseThrow().now());
        long day = Math.floorDiv(micros, MICROS_PER_DAY) * MICROS_PER_DAY;
        return switch (words.toLowerCase(Locale.ROOT).replace("()", "").replace(' ', '_')) {
            case "current_date" -> new Literal(day, Type.MOMENT);
            case "current_time", "localtime" -> new Literal(micros - day, Type.TIME);
            case "current_timestamp", "localtimestamp" -> new Literal(micros, Type.MOMENT);
            default -> throw ExpressionException.notKnown(words);
        };
    }

    /** The operands of a chain of ANDs or ORs, without recursion along the chain. */
    private static List<net.sf.jsqlparser.expression.Expression> flattened(
            BinaryExpression chain, Class<? extends BinaryExpression> kind) {
        List<net.sf.jsqlparser.expression.Expression> operands = new ArrayList<>();
        net.sf.jsqlparser.expression.Expression left = chain;
        while (kind.isInstance(left)) {
            operands.add(0, ((BinaryExpression) left).getRightExpression());
            left = ((BinaryExpression) left).getLeftExpression();
        }
        operands.add(0, left);
        return operands;
    }

    private List<Expression> truths(List<net.sf.jsqlparser.expression.Expression> operands) throws ExpressionException {
        List<Expression> typed = new ArrayList<>();
        for (net.sf.jsqlparser.expression.Expression operand : operands) {
            Expression truth = typed(operand);
            requireTruth(truth);
            typed.add(truth);
        }
        return typed;
    }

    private static void requireTruth(Expression expression) throws ExpressionException {
        if (expression.type() != Type.BOOLEAN && expression.type() != Type.NULL) {
            throw ExpressionException.of(
                    "a " + expression.type().words() + " stands where something true or false is needed");
        }
    }

    private static Expression negatedIf(boolean isNegated, Expression condition) {
        return isNegated ? new Not(condition) : condition;
    }

    private Expression column(net.sf.jsqlparser.schema.Column column) throws ExpressionException {
        String name = column.getColumnName();
        String qualifier = column.getTable() == null ? null : column.getTable().getFullyQualifiedName();
        if (qualifier != null && !namesTheTable(unquoted(qualifier))) {
            return parentValue(qualifier, name);
        }
        if (qualifier == null && (name.equalsIgnoreCase("true") || name.equalsIgnoreCase("false"))) {
            return new Literal(name.equalsIgnoreCase("true"), Type.BOOLEAN);
        }
        int place = placeOf(name, columns);
        return new ColumnValue(place, Type.of(columns.get(place).type()));
    }

    private boolean namesTheTable(String qualifier) {
        return qualifier.equals(table)
                || statement
                        .filter(s -> qualifier.equalsIgnoreCase(table) || qualifier.equalsIgnoreCase(s.alias()))
                        .isPresent();
    }

    /** A column of a parent, the links that lead there before it. */
    private Expression parentValue(String qualifier, String name) throws ExpressionException {
        if (statement.isPresent()) {
            throw ExpressionException.of("`" + qualifier + "." + name
                    + "`: a change can ask for columns of its own table alone, and for IN (SELECT ...) of another");
        }
        Table from = tables.get(table);
        List<String> way = new ArrayList<>();
        for (String part : qualifier.split("\\.", -1)) {
            String wanted = unquoted(part);
            List<String> known = from.links().stream().map(ForeignKey::name).toList();
            Optional<ForeignKey> link =
                    from.links().stream().filter(l -> l.name().equals(wanted)).findFirst();
            if (link.isEmpty()) {
                if (way.isEmpty() && declaredLinks.contains(wanted)) {
                    throw ExpressionException.of("link `" + wanted + "` cannot be followed until it is corrected");
                }
                throw ExpressionException.unknown("there is no link", wanted, known);
            }
            way.add(wanted);
            from = tables.get(link.get().parent());
        }
        int place = placeOf(name, from.columns());
        return new ParentValue(way, place, Type.of(from.columns().get(place).type()));
    }

    private static String unquoted(String name) {
        boolean isQuoted = name.length() >= 2 && name.startsWith("\"") && name.endsWith("\"");
        boolean isOtherwiseQuoted = name.length() >= 2 && name.startsWith("`") && name.endsWith("`");
        if (isOtherwiseQuoted) {
            return name.substring(1, name.length() - 1);
        }
        return isQuoted ? name.substring(1, name.length() - 1).replace("\"\"", "\"") : name;
    }

    /** Quoted names are taken to the letter; others in any case, as SQL has it, where only one column answers. */
    private static int placeOf(String written, List<Column> columns) throws ExpressionException {
        String name = unquoted(written);
        List<Integer> inAnyCase = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).name().equals(name)) {
                return i;
            }
            if (columns.get(i).name().equalsIgnoreCase(name)) {
                inAnyCase.add(i);
            }
        }
        if (inAnyCase.size() == 1 && name.equals(written)) {
            return inAnyCase.get(0);
        }
        throw ExpressionException.unknown(
                "there is no column", name, columns.stream().map(Column::name).toList());
    }

    private Expression in(InExpression in) throws ExpressionException {
        Expression operand = typed(in.getLeftExpression());
        if (statement.isPresent() && in.getRightExpression() instanceof Select select) {
            return negatedIf(in.isNot(), inQuery(operand, select));
        }
        if (!(in.getRightExpression() instanceof ParenthesedExpressionList<?> list)) {
            throw ExpressionException.of("IN needs a list in parentheses");
        }
        List<Expression> elements = new ArrayList<>();
        for (net.sf.jsqlparser.expression.Expression element : list) {
            elements.add(typed(element));
        }
        if (operand instanceof Literal && !elements.isEmpty()) {
            operand = fitted(operand, elements.get(0));
        }
        List<Expression> fitted = new ArrayList<>();
        for (Expression element : elements) {
            Expression value = fitted(element, operand);
            requireComparable(operand, value);
            fitted.add(value);
        }
        return negatedIf(in.isNot(), new In(operand, fitted));
    }

    /** A query behind IN: one column of one table, and a condition over its rows. */
    private Expression inQuery(Expression operand, Select select) throws ExpressionException {
        Select inner = select instanceof ParenthesedSelect in ? in.getSelect() : select;
        boolean isSimple = inner instanceof PlainSelect plain
                && plain.getSelectItems().size() == 1
                && plain.getFromItem() instanceof net.sf.jsqlparser.schema.Table
                && (plain.getJoins() == null || plain.getJoins().isEmpty())
                && plain.getGroupBy() == null
                && plain.getHaving() == null
                && plain.getLimit() == null
                && plain.getOffset() == null
                && plain.getFetch() == null
                && plain.getWithItemsList() == null;
        if (!isSimple) {
            throw ExpressionException.of("the query behind IN can be `SELECT column FROM table WHERE condition` only");
        }
        PlainSelect plain = (PlainSelect) inner;
        net.sf.jsqlparser.schema.Table from = (net.sf.jsqlparser.schema.Table) plain.getFromItem();
        String queried = tableNamed(from.getName(), tables.keySet());
        String alias = from.getAlias() == null ? "" : from.getAlias().getName();
        Statement within = new Statement(alias, statement.orElseThrow().now());
        ExpressionReader reader = new ExpressionReader(queried, tables, within);
        if (!(reader.typed(plain.getSelectItems().get(0).getExpression()) instanceof ColumnValue selected)) {
            throw ExpressionException.of("the query behind IN selects a column");
        }
        requireComparable(operand, selected);
        Optional<Expression> where = Optional.empty();
        if (plain.getWhere() != null) {
            Expression condition = reader.typed(plain.getWhere());
            requireTruth(condition);
            if (!condition.queries().isEmpty()) {
                throw ExpressionException.of("a query inside the query behind IN is one level too deep");
            }
            where = Optional.of(condition);
        }
        return new InQuery(operand, queried, selected.column(), where);
    }

    /** A table by the name in a statement: to the letter, or in any case where only one answers. */
    public static String tableNamed(String written, Collection<String> known) throws ExpressionException {
        String name = unquoted(written);
        if (known.contains(name)) {
            return name;
        }
        List<String> inAnyCase =
                known.stream().filter(table -> table.equalsIgnoreCase(name)).toList();
        if (inAnyCase.size() == 1 && name.equals(written)) {
            return inAnyCase.get(0);
        }
        throw ExpressionException.unknown("there is no table", name, known);
    }

    private Expression between(Between between) throws ExpressionException {
        Expression low = typed(between.getBetweenExpressionStart());
        Expression operand = fitted(typed(between.getLeftExpression()), low);
        Expression fittedLow = fitted(low, operand);
        Expression high = fitted(typed(between.getBetweenExpressionEnd()), operand);
        requireComparable(operand, fittedLow);
        requireComparable(operand, high);
        return negatedIf(between.isNot(), new Expression.Between(operand, fittedLow, high));
    }

    private Expression like(LikeExpression like) throws ExpressionException {
        if (like.getLikeKeyWord() != LikeExpression.KeyWord.LIKE) {
            throw ExpressionException.of("`" + like.getLikeKeyWord() + "` is not known here; LIKE is, and lower()");
        }
        Expression operand = typed(like.getLeftExpression());
        Expression pattern = typed(like.getRightExpression());
        requireText(operand);
        requireText(pattern);
        Optional<Expression> escape = Optional.empty();
        if (like.getEscape() != null) {
            Expression character = typed(like.getEscape());
            if (!(character instanceof Literal literal)
                    || !(literal.value() instanceof String text)
                    || text.codePointCount(0, text.length()) != 1) {
                throw ExpressionException.of("ESCAPE needs one character in quotes");
            }
            escape = Optional.of(character);
        }
        return negatedIf(like.isNot(), new Like(operand, pattern, escape));
    }

    private static void requireText(Expression expression) throws ExpressionException {
        if (expression.type() != Type.TEXT && expression.type() != Type.NULL) {
            throw ExpressionException.of("a " + expression.type().words() + " stands where a text is needed");
        }
    }

    private Expression binary(BinaryExpression binary) throws ExpressionException {
        Optional<Comparator> comparator = comparator(binary);
        if (comparator.isPresent()) {
            Expression left = typed(binary.getLeftExpression());
            Expression right = typed(binary.getRightExpression());
            Expression fittedLeft = fitted(left, right);
            Expression fittedRight = fitted(right, left);
            requireComparable(fittedLeft, fittedRight);
            return new Compared(comparator.get(), fittedLeft, fittedRight);
        }
        Optional<Operator> operator = operator(binary);
        if (operator.isEmpty()) {
            throw ExpressionException.notKnown(binary.getStringExpression().strip());
        }
        Expression left = typed(binary.getLeftExpression());
        Expression right = typed(binary.getRightExpression());
        for (Expression operand : List.of(left, right)) {
            if (!operand.type().isNumber() && operand.type() != Type.NULL) {
                throw ExpressionException.of("a " + operand.type().words() + " cannot be reckoned with (`"
                        + binary.getStringExpression().strip() + "` needs numbers)");
            }
        }
        return new Arithmetic(operator.get(), left, right, wider(left.type(), right.type()));
    }

    private static Optional<Comparator> comparator(BinaryExpression e) {
        if (e instanceof EqualsTo) {
            return Optional.of(Comparator.EQUAL);
        } else if (e instanceof NotEqualsTo) {
            return Optional.of(Comparator.NOT_EQUAL);
        } else if (e instanceof MinorThan) {
            return Optional.of(Comparator.LESS);
        } else if (e instanceof MinorThanEquals) {
            return Optional.of(Comparator.LESS_OR_EQUAL);
        } else if (e instanceof GreaterThan) {
            return Optional.of(Comparator.GREATER);
        } else if (e instanceof GreaterThanEquals) {
            return Optional.of(Comparator.GREATER_OR_EQUAL);
        }
        return Optional.empty();
    }

    private static Optional<Operator> operator(BinaryExpression e) {
        if (e instanceof Addition) {
            return Optional.of(Operator.PLUS);
        } else if (e instanceof Subtraction) {
            return Optional.of(Operator.MINUS);
        } else if (e instanceof Multiplication) {
            return Optional.of(Operator.TIMES);
        } else if (e instanceof Division) {
            return Optional.of(Operator.DIVIDED_BY);
        }
        return Optional.empty();
    }

    private static Type wider(Type a, Type b) {
        if (a == Type.NULL || b == Type.NULL) {
            return a == Type.NULL ? b : a;
        } else if (a == Type.APPROXIMATE || b == Type.APPROXIMATE) {
            return Type.APPROXIMATE;
        }
        return a == Type.INTEGER && b == Type.INTEGER ? Type.INTEGER : Type.DECIMAL;
    }

    private Expression signed(SignedExpression signed) throws ExpressionException {
        Expression operand = typed(signed.getExpression());
        if (!operand.type().isNumber()) {
            throw ExpressionException.of("a " + operand.type().words() + " has no sign");
        }
        return switch (signed.getSign()) {
            case '-' -> new Negation(operand);
            case '+' -> operand;
            default -> throw ExpressionException.notKnown(String.valueOf(signed.getSign()));
        };
    }

    private Expression call(Function function) throws ExpressionException {
        String name = function.getName().toLowerCase(Locale.ROOT);
        Optional<FunctionName> known = Arrays.stream(FunctionName.values())
                .filter(f -> f.word().equals(name))
                .findFirst();
        if (known.isEmpty()) {
            throw ExpressionException.unknown("there is no function", name, FunctionName.words());
        }
        List<Expression> arguments = new ArrayList<>();
        if (function.getParameters() != null) {
            for (net.sf.jsqlparser.expression.Expression argument : function.getParameters()) {
                arguments.add(typed(argument));
            }
        }
        return call(known.get(), arguments);
    }

    private Expression call(FunctionName function, List<Expression> arguments) throws ExpressionException {
        if (function == FunctionName.COALESCE) {
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
                Expression value = fitted(argument, example);
                requireComparable(value, example);
                fitted.add(value);
                type = value.type().isNumber() && type.isNumber()
                        ? wider(type, value.type())
                        : type == Type.NULL ? value.type() : type;
            }
            return new Call(function, fitted, type);
        }
        if (arguments.size() != 1) {
            throw ExpressionException.of("`" + function.word() + "` takes one text");
        }
        requireText(arguments.get(0));
        return new Call(function, arguments, function == FunctionName.LENGTH ? Type.INTEGER : Type.TEXT);
    }

    /** A text that stands beside something else than a text is read as such a value, as SQL does with its literals. */
    private Expression fitted(Expression value, Expression beside) throws ExpressionException {
        if (!(value instanceof Literal literal) || literal.type() != Type.TEXT) {
            return value;
        }
        String text = (String) literal.value();
        return switch (beside.type()) {
            case MOMENT -> Literals.read(text, ColumnType.Name.TIMESTAMP, Type.MOMENT);
            case INSTANT -> Literals.read(text, ColumnType.Name.TIMESTAMP_WITH_TIME_ZONE, Type.INSTANT);
            case TIME -> Literals.read(text, ColumnType.Name.TIME, Type.TIME);
            case UUID -> Literals.read(text, ColumnType.Name.UUID, Type.UUID);
            case BOOLEAN -> Literals.read(text, ColumnType.Name.BOOLEAN, Type.BOOLEAN);
            case TEXT -> isPadded(beside) ? new Literal(text.replaceAll(" +$", ""), Type.TEXT) : value;
            case INTEGER, DECIMAL, APPROXIMATE -> statement.isPresent() ? Literals.number(text) : value;
            default -> value;
        };
    }

    /** Whether this is a column of type char(n), whose trailing blanks do not count. */
    private boolean isPadded(Expression expression) {
        return expression instanceof ColumnValue column
                && columns.get(column.column()).type().name() == ColumnType.Name.CHAR;
    }

    private static void requireComparable(Expression left, Expression right) throws ExpressionException {
        if (!left.type().isComparableWith(right.type())) {
            throw ExpressionException.of("a " + left.type().words() + " cannot be compared with a "
                    + right.type().words());
        }
    }
}
