package taxiomet.charters.sql;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.InQuery;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.SqlTokens.Unfinished;

/** Reads the expressions of one table. */
public final class ExpressionReader implements ExpressionParser.Names {
    private static final int LONGEST = 4_000;
    /** What the number of a row in its file, and the file's name, are called in a change; a column so named stands in quotes. */
    private static final String ROW_NUMBER = "@row";

    private static final String ROW_FILE = "@file";
    private static final long MICROS_PER_DAY = 86_400_000_000L;

    private final String table;
    private final List<Column> columns;
    private final Map<String, Table> tables;
    private final Set<String> declaredLinks;
    private final Optional<Statement> statement;
    private boolean isInQuery;

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
        Typing.requireTruth(expression);
        return expression;
    }

    /** A search condition over the row's own columns alone. */
    public Expression readOwnCondition(String sql) throws ExpressionException {
        Expression expression = readCondition(sql);
        if (expression.readsRelatives()) {
            throw ExpressionException.of(
                    "this asks for parents or children, and is a condition over the row's own columns");
        }
        return expression;
    }

    /** An expression that gives a number. */
    public Expression readNumber(String sql) throws ExpressionException {
        Expression expression = read(sql);
        if (!expression.childrenRead().isEmpty()) {
            throw ExpressionException.of("this asks for children, and is to be added up over the rows themselves");
        }
        if (!expression.type().isNumber()) {
            throw ExpressionException.of("this gives a " + expression.type().words() + ", not a number");
        }
        return expression;
    }

    /** A search condition that stands in a statement; what comes behind it is left. */
    public Expression readCondition(TokenCursor tokens) throws ExpressionException {
        Expression expression = readValue(tokens);
        Typing.requireTruth(expression);
        return expression;
    }

    /** An expression of any type that stands in a statement; what comes behind it is left. */
    public Expression readValue(TokenCursor tokens) throws ExpressionException {
        return new ExpressionParser(tokens, this).read();
    }

    private Expression read(String sql) throws ExpressionException {
        if (sql.length() > LONGEST) {
            throw ExpressionException.of("this condition is longer than can be read (" + LONGEST + " characters)");
        }
        if (sql.isBlank()) {
            throw ExpressionException.of("this condition is empty");
        }
        try {
            TokenCursor tokens = new TokenCursor(SqlTokens.of(sql));
            Expression expression = readValue(tokens);
            requireEnd(tokens);
            return expression;
        } catch (Unfinished e) {
            throw ExpressionException.of("this is no SQL condition: " + e.getMessage());
        }
    }

    /** @throws ExpressionException when an expression asks where a row stands, and gives a value to be written */
    public static void requireNoPlace(Expression value) throws ExpressionException {
        boolean asks = value.leaves().stream()
                .anyMatch(leaf -> leaf instanceof Expression.RowNumber || leaf instanceof Expression.RowFile);
        if (asks) {
            throw ExpressionException.of("where a row stands can name it, and is no value to write");
        }
    }

    /** @throws ExpressionException when there is more than was read */
    public static void requireEnd(TokenCursor tokens) throws ExpressionException {
        if (!tokens.isAtEnd()) {
            throw ExpressionParser.notRead(tokens);
        }
    }

    @Override
    public boolean isPadded(Expression expression) {
        return expression instanceof ColumnValue column
                && columns.get(column.column()).type().name() == ColumnType.Name.CHAR;
    }

    @Override
    public boolean readsNumbers() {
        return statement.isPresent();
    }

    @Override
    public boolean joinsTexts() {
        return statement.isEmpty();
    }

    @Override
    public Optional<Expression> current(String word) {
        if (statement.isEmpty()) {
            return Optional.empty();
        }
        long micros = ChronoUnit.MICROS.between(Instant.EPOCH, statement.get().now());
        long day = Math.floorDiv(micros, MICROS_PER_DAY) * MICROS_PER_DAY;
        return switch (word) {
            case "current_date" -> Optional.of(new Literal(day, Type.MOMENT));
            case "current_time", "localtime" -> Optional.of(new Literal(micros - day, Type.TIME));
            case "current_timestamp", "localtimestamp" -> Optional.of(new Literal(micros, Type.MOMENT));
            default -> Optional.empty();
        };
    }

    @Override
    public Expression column(List<Token> parts) throws ExpressionException {
        Token name = parts.get(parts.size() - 1);
        boolean isPlace = statement.isPresent() && parts.size() == 1 && name.kind() == Kind.WORD;
        if (isPlace && name.is(ROW_NUMBER)) {
            return new Expression.RowNumber();
        } else if (isPlace && name.is(ROW_FILE)) {
            return new Expression.RowFile();
        }
        if (parts.size() > 2 || (parts.size() == 2 && !namesTheTable(parts.get(0)))) {
            return parentValue(parts);
        }
        int place = placeOf(name, columns);
        return new ColumnValue(place, Type.of(columns.get(place).type()));
    }

    private boolean namesTheTable(Token qualifier) {
        String name = qualifier.text();
        return name.equals(table)
                || statement
                        .filter(s -> name.equalsIgnoreCase(table) || name.equalsIgnoreCase(s.alias()))
                        .isPresent();
    }

    /** A column of a parent, the links that lead there before it. */
    private Expression parentValue(List<Token> parts) throws ExpressionException {
        if (statement.isPresent()) {
            String written = String.join(".", parts.stream().map(Token::text).toList());
            throw ExpressionException.of("`" + written
                    + "`: a change can ask for columns of its own table alone, and for IN (SELECT ...) of another");
        }
        Table from = tables.get(table);
        List<String> way = new ArrayList<>();
        for (Token part : parts.subList(0, parts.size() - 1)) {
            String wanted = part.text();
            List<String> known = from.links().stream().map(ForeignKey::name).toList();
            Optional<ForeignKey> link = from.link(wanted);
            if (link.isEmpty()) {
                if (way.isEmpty() && declaredLinks.contains(wanted)) {
                    throw ExpressionException.of("link `" + wanted + "` cannot be followed until it is corrected");
                }
                throw ExpressionException.unknown("there is no link", wanted, known);
            }
            way.add(wanted);
            from = tables.get(link.get().parent());
        }
        int place = placeOf(parts.get(parts.size() - 1), from.columns());
        return new ParentValue(way, place, Type.of(from.columns().get(place).type()));
    }

    @Override
    public Expression children(Aggregate aggregate, List<Token> parts) throws ExpressionException {
        String path = String.join(".", parts.stream().map(Token::text).toList());
        String written = aggregate.word() + "(" + path + ")";
        if (statement.isPresent()) {
            throw ExpressionException.of("`" + written + "`: a change asks for columns of its own table alone");
        }
        boolean isCount = aggregate == Aggregate.COUNT;
        if (parts.size() > 3 || parts.size() < (isCount ? 2 : 3)) {
            throw ExpressionException.of("`" + written + "`: " + aggregate.word()
                    + " takes the table of the children, its link and "
                    + (isCount ? "perhaps " : "") + "a column, as in " + aggregate.word() + "(table.link"
                    + (isCount ? "" : ".column") + ")");
        }
        Table child = tables.get(named("table", parts.get(0), tables.keySet()));
        List<String> links = child.links().stream()
                .filter(link -> link.parent().equals(table))
                .map(ForeignKey::name)
                .toList();
        String link = parts.get(1).text();
        if (!links.contains(link)) {
            throw ExpressionException.unknown(
                    "table `" + child.name() + "` has no link to `" + table + "` that is called", link, links);
        }
        if (parts.size() == 2) {
            return new ChildrenValue(aggregate, child.name(), link, Optional.empty(), written, Type.INTEGER);
        }
        int place = placeOf(parts.get(2), child.columns());
        Type column = Type.of(child.columns().get(place).type());
        return new ChildrenValue(
                aggregate, child.name(), link, Optional.of(place), written, Typing.ofAggregate(aggregate, column));
    }

    private static int placeOf(Token written, List<Column> columns) throws ExpressionException {
        List<String> known = columns.stream().map(Column::name).toList();
        return known.indexOf(named("column", written, known));
    }

    /**
     * The one of some names that is meant: quoted ones are taken to the letter, others in any case, as SQL has it, where only one
     * answers.
     */
    public static String named(String what, Token written, Collection<String> known) throws ExpressionException {
        String name = written.text();
        if (known.contains(name)) {
            return name;
        }
        List<String> inAnyCase =
                known.stream().filter(each -> each.equalsIgnoreCase(name)).toList();
        if (inAnyCase.size() == 1 && written.kind() == Kind.WORD) {
            return inAnyCase.get(0);
        }
        throw ExpressionException.unknown("there is no " + what, name, known);
    }

    /**
     * The table that comes next in a statement, a schema before it only where it was declared in that one; then AS and another name,
     * if there is one.
     *
     * @param ending the words that no other name can be, since they go on with the statement
     */
    public static NamedTable readTable(TokenCursor tokens, Map<String, Table> tables, Set<String> ending)
            throws ExpressionException {
        List<Token> parts = new ArrayList<>();
        do {
            if (!tokens.peek().isName()) {
                throw tokens.isAtEnd()
                        ? ExpressionException.of("it ends too early: a table is missing")
                        : ExpressionParser.notRead(tokens);
            }
            requireName(tokens.peek());
            parts.add(tokens.next());
        } while (tokens.takeSymbol("."));
        Token last = parts.get(parts.size() - 1);
        Table found = tables.get(named("table", last, tables.keySet()));
        boolean isQualified = parts.size() > 1;
        String schema = isQualified ? parts.get(parts.size() - 2).text() : "";
        if (isQualified
                && (parts.size() > 2 || !found.schema().orElse("").equalsIgnoreCase(schema) || schema.isEmpty())) {
            throw ExpressionException.of("table `" + found.name() + "` was declared "
                    + found.schema().map(s -> "in schema `" + s + "`").orElse("without a schema") + ", not in `"
                    + schema + "`");
        }
        return new NamedTable(found, alias(tokens, ending));
    }

    private static String alias(TokenCursor tokens, Set<String> ending) throws ExpressionException {
        boolean isAnnounced = tokens.take("as");
        Token next = tokens.peek();
        boolean isAlias = next.kind() == Kind.QUOTED_NAME
                || (next.kind() == Kind.WORD
                        && !SqlWords.isReserved(next.text())
                        && ending.stream().noneMatch(next::is));
        if (isAnnounced && !isAlias) {
            throw ExpressionParser.notRead(tokens);
        }
        return isAlias ? tokens.next().text() : "";
    }

    private static void requireName(Token token) throws ExpressionException {
        if (token.kind() == Kind.WORD && SqlWords.isReserved(token.text())) {
            throw ExpressionException.of(
                    "`" + token.text() + "` is a word of SQL: a table of that name stands in double quotes");
        }
    }

    /** A table in a statement and its other name there; empty without one. */
    public record NamedTable(Table table, String alias) {}

    @Override
    public Expression inQuery(Expression operand, TokenCursor tokens) throws ExpressionException {
        if (statement.isEmpty()) {
            throw ExpressionException.of("a rule has no queries: it asks for a parent's column by its link");
        }
        if (isInQuery) {
            throw ExpressionException.of("a query inside the query behind IN is one level too deep");
        }
        tokens.next();
        // The column comes before the table that it belongs to.
        TokenCursor selected = tokens.copy();
        while (!tokens.isAtEnd() && !tokens.isNext("from")) {
            tokens.next();
        }
        if (!tokens.take("from")) {
            throw onlySimple();
        }
        NamedTable queried = readTable(tokens, tables, Set.of());
        Statement within =
                new Statement(queried.alias(), statement.orElseThrow().now());
        ExpressionReader reader = new ExpressionReader(queried.table().name(), tables, within);
        reader.isInQuery = true;
        Expression column = reader.readValue(selected);
        if (!selected.isNext("from")) {
            throw ExpressionParser.notRead(selected);
        }
        if (!(column instanceof ColumnValue value)) {
            throw ExpressionException.of("the query behind IN selects a column");
        }
        Typing.requireComparable(operand, column);
        Optional<Expression> where = Optional.empty();
        if (tokens.take("where")) {
            where = Optional.of(reader.readCondition(tokens));
        }
        if (!tokens.peek().isSymbol(")")) {
            throw onlySimple();
        }
        return new InQuery(operand, queried.table().name(), value.column(), where);
    }

    private static ExpressionException onlySimple() {
        return ExpressionException.of("the query behind IN can be `SELECT column FROM table WHERE condition` only");
    }
}
