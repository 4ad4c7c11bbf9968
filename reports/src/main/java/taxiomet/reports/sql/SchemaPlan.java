package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.Comparison;
import taxiomet.charter.DatabaseRows;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Key;
import taxiomet.charter.NotRead;
import taxiomet.charter.Rule;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.reports.sql.ExpressionSql.Unsaid;
import taxiomet.reports.sql.SchemaStep.LeftOut;
import taxiomet.vet.Judgement;
import taxiomet.vet.Review;

/**
 * How the rules of a charter are put in place on a server, in an order that works: tables, then what holds in one row, keys, checks, indexes
 * for links, and links at the end.
 */
public final class SchemaPlan {
    private static final int LONGEST_NAME = 60;

    private final Charter charter;
    private final Server server;
    private final Dialect dialect;
    private final boolean makesTables;
    private final Set<List<String>> there;
    private final List<SchemaStep> steps = new ArrayList<>();
    private final List<LeftOut> left = new ArrayList<>();
    private final List<Judgement> notTaken;
    private final Set<String> namesOfKeys = new LinkedHashSet<>();
    private final Set<String> namesOfLinks = new LinkedHashSet<>();

    /**
     * Makes a plan.
     *
     * @param makesTables whether the tables are made, too
     * @param there paths to the declarations that are in place already
     */
    public SchemaPlan(Charter charter, Server server, boolean makesTables, Collection<List<String>> there) {
        this.charter = charter;
        this.server = server;
        this.dialect = Dialect.of(server);
        this.makesTables = makesTables;
        this.there = Set.copyOf(there);
        this.notTaken = Review.of(charter, Optional.of(server)).stream()
                .filter(judgement -> judgement.kind() == Judgement.Kind.NOT_TAKEN)
                .toList();
        plan();
    }

    /** The steps, in an order that works. */
    public List<SchemaStep> steps() {
        return List.copyOf(steps);
    }

    /** What is not put in place, with the reasons. */
    public List<LeftOut> left() {
        return List.copyOf(left);
    }

    /** The server. */
    public Server server() {
        return server;
    }

    private void plan() {
        List<Table> tables = inLoadOrder();
        for (Table table : tables) {
            if (makes(table)) {
                createTable(table);
            } else {
                table.columns().forEach(column -> addNotNull(table, column));
            }
        }
        for (Table table : tables) {
            if (!isWhole(table)) {
                table.keys().forEach(key -> addKey(table, key));
            }
        }
        for (Table table : tables) {
            if (!isWhole(table)) {
                table.columns().forEach(column -> addColumnRules(table, column));
                table.rules().forEach(rule -> addRule(table, rule));
            }
            table.columns().forEach(column -> leaveOut(table, column));
        }
        for (Table table : tables) {
            table.links().forEach(link -> addIndex(table, link));
        }
        for (ForeignKey link : charter.links()) {
            addLink(link);
        }
        for (NotRead each : charter.notRead()) {
            left.add(new LeftOut(each.what().word() + " " + each.name(), "it could not be read: " + each.problem()));
        }
    }

    /** Whether a table is made with everything that belongs to it, since it cannot be changed later. */
    private boolean isWhole(Table table) {
        return makes(table) && dialect == Dialect.SQLITE;
    }

    private boolean makes(Table table) {
        return makesTables && !there.contains(List.of("tables", table.name()));
    }

    private List<Table> inLoadOrder() {
        List<Table> ordered = new ArrayList<>();
        Set<String> open = new LinkedHashSet<>();
        charter.tables().forEach(table -> place(table, ordered, open));
        return ordered;
    }

    private void place(Table table, List<Table> ordered, Set<String> open) {
        if (ordered.contains(table) || !open.add(table.name())) {
            return;
        }
        table.links().forEach(link -> place(charter.table(link.parent()), ordered, open));
        ordered.add(table);
    }

    /** The parts of the table's name in statements: where its rows live, else its own. */
    private static List<String> parts(Table table) {
        if (table.rows() instanceof DatabaseRows rows && !rows.isQuery()) {
            return rows.parts();
        }
        return Stream.concat(table.schema().stream(), Stream.of(table.name())).toList();
    }

    private String name(Table table) {
        return parts(table).stream().map(dialect::name).collect(Collectors.joining("."));
    }

    /** What stands before the name of an index of the table, which lives in the schema of its table. */
    private String schemaOf(Table table) {
        List<String> parts = parts(table);
        return dialect != Dialect.POSTGRESQL
                ? ""
                : parts.subList(0, parts.size() - 1).stream()
                        .map(part -> dialect.name(part) + ".")
                        .collect(Collectors.joining());
    }

    private String names(List<String> columns) {
        return ExpressionSql.names(dialect, columns);
    }

    private boolean isThere(List<String> path) {
        return there.contains(path);
    }

    private static List<String> path(Table table, String... rest) {
        List<String> path = new ArrayList<>(List.of("tables", table.name()));
        path.addAll(List.of(rest));
        return path;
    }

    /** A name that no other has, of a length that servers take. */
    private static String different(String wanted, String table, Set<String> taken) {
        String name = wanted.length() > LONGEST_NAME ? wanted.substring(0, LONGEST_NAME) : wanted;
        if (taken.add(name)) {
            return name;
        }
        String longer = table + "_" + name;
        String cut = longer.length() > LONGEST_NAME ? longer.substring(0, LONGEST_NAME) : longer;
        String different = cut;
        for (int i = 2; !taken.add(different); i++) {
            different = cut + "_" + i;
        }
        return different;
    }

    private ColumnSql columns(Table table) {
        Set<String> keyed = new LinkedHashSet<>();
        table.keys().forEach(key -> keyed.addAll(key.columns()));
        table.links().forEach(link -> keyed.addAll(link.columns()));
        charter.links().stream()
                .filter(link -> link.parent().equals(table.name()))
                .forEach(link -> keyed.addAll(link.parentColumns()));
        return new ColumnSql(dialect, table, keyed);
    }

    private void createTable(Table table) {
        ColumnSql columns = columns(table);
        List<String> parts = new ArrayList<>();
        table.columns().forEach(column -> parts.add(columns.of(column)));
        boolean isNumbered = table.columns().stream().anyMatch(column -> column.generated() != Generated.NEVER);
        if (dialect == Dialect.SQLITE) {
            addAllRules(table, parts);
        } else if (dialect == Dialect.MARIADB
                && isNumbered
                && table.primaryKey().isPresent()) {
            // A numbered column has to be a key from its first moment on.
            parts.add("PRIMARY KEY (" + names(table.primaryKey().get().columns()) + ")");
        }
        steps.add(new SchemaStep(
                "make the table " + table.name(),
                "no other table",
                List.of("CREATE TABLE " + name(table) + " (\n    " + String.join(",\n    ", parts) + "\n)"),
                List.of("DROP TABLE " + name(table)),
                Optional.empty(),
                path(table)));
        table.columns().stream()
                .filter(column -> column.defaultValue()
                        .filter(value -> value instanceof taxiomet.charter.DefaultValue.ByServer)
                        .isPresent())
                .forEach(column -> left.add(new LeftOut(
                        "the default of " + table.name() + "." + column.name(), "it is another server's expression")));
    }

    private void addAllRules(Table table, List<String> parts) {
        for (Key key : table.keys()) {
            if (key.where().isEmpty() && !key.nullsAreEqual()) {
                parts.add("CONSTRAINT " + dialect.name(nameOf(table, key))
                        + (key.isPrimary() ? " PRIMARY KEY (" : " UNIQUE (") + names(key.columns()) + ")");
            } else {
                addKey(table, key);
            }
        }
        for (Column column : table.columns()) {
            for (Check check : checksOf(table, column)) {
                parts.add("CONSTRAINT " + dialect.name(check.name) + " CHECK (" + check.condition + ")");
            }
        }
        for (Rule rule : table.rules()) {
            condition(table, rule)
                    .ifPresent(sql -> parts.add("CONSTRAINT " + dialect.name(rule.name()) + " CHECK " + sql));
        }
        for (ForeignKey link : table.links()) {
            if (isPut(table, link)) {
                parts.add(constraint(link));
            }
        }
    }

    private void addNotNull(Table table, Column column) {
        List<String> path = path(table, "columns", column.name(), "not_null");
        boolean isOfKey = table.isOfPrimaryKey(column.name());
        if (!column.isRequired() || isOfKey || isThere(path)) {
            return;
        }
        String what = table.name() + "." + column.name() + " may not be null";
        String name = dialect.name(column.name());
        Optional<String> query = Optional.of("SELECT * FROM " + name(table) + " WHERE " + name + " IS NULL");
        switch (dialect) {
            case POSTGRESQL ->
                steps.add(new SchemaStep(
                        what,
                        "locks " + table.name() + " against all use while its rows are read",
                        List.of("ALTER TABLE " + name(table) + " ALTER COLUMN " + name + " SET NOT NULL"),
                        List.of("ALTER TABLE " + name(table) + " ALTER COLUMN " + name + " DROP NOT NULL"),
                        query,
                        path));
            case MARIADB -> {
                String definition = columns(table).of(column);
                steps.add(new SchemaStep(
                        what,
                        "copies " + table.name() + " or reads it, and locks it against changes meanwhile",
                        List.of("ALTER TABLE " + name(table) + " MODIFY COLUMN " + definition),
                        List.of("ALTER TABLE " + name(table) + " MODIFY COLUMN "
                                + definition.replaceFirst(" NOT NULL$", " NULL")),
                        query,
                        path));
            }
            case SQLITE -> left.add(new LeftOut(what, "SQLite takes it only where a table is made: --tables"));
        }
    }

    private String nameOf(Table table, Key key) {
        String wanted = key.isPrimary() ? key.declaredName().orElse(table.name() + "_pkey") : key.name();
        return different(wanted, table.name(), namesOfKeys);
    }

    private void addKey(Table table, Key key) {
        List<String> path = key.isPrimary() ? path(table, "primary_key") : path(table, "unique", key.name());
        if (isThere(path)) {
            return;
        }
        String what =
                (key.isPrimary() ? "the primary key of " : "the unique key " + key.name() + " of ") + table.name();
        boolean isIndex = key.where().isPresent() || (dialect == Dialect.SQLITE && !key.isPrimary());
        if (key.nullsAreEqual() && dialect != Dialect.POSTGRESQL) {
            left.add(new LeftOut(what, server.title() + " takes nulls in a key for different"));
            return;
        } else if (key.where().isPresent() && dialect == Dialect.MARIADB) {
            left.add(new LeftOut(what, server.title() + " has no keys of some rows alone"));
            return;
        } else if (key.isPrimary() && dialect == Dialect.SQLITE) {
            left.add(new LeftOut(what, "SQLite takes it only where a table is made: --tables"));
            return;
        } else if (key.isPrimary()
                && makes(table)
                && dialect == Dialect.MARIADB
                && table.columns().stream().anyMatch(column -> column.generated() != Generated.NEVER)) {
            return;
        }
        String where = "";
        try {
            if (key.where().isPresent()) {
                where = " WHERE "
                        + new ExpressionSql(dialect, table).of(key.where().get().value());
            }
        } catch (Unsaid e) {
            left.add(new LeftOut(what, e.getMessage()));
            return;
        }
        String name = dialect.name(nameOf(table, key));
        String nulls = key.nullsAreEqual() ? " NULLS NOT DISTINCT" : "";
        String made = isIndex
                ? "CREATE UNIQUE INDEX " + name + " ON " + name(table) + " (" + names(key.columns()) + ")" + nulls
                        + where
                : "ALTER TABLE " + name(table) + " ADD "
                        + (key.isPrimary() && dialect == Dialect.MARIADB ? "" : "CONSTRAINT " + name)
                        + (key.isPrimary() ? " PRIMARY KEY (" : " UNIQUE" + nulls + " (") + names(key.columns()) + ")";
        String back = isIndex
                ? "DROP INDEX " + schemaOf(table) + name + (dialect == Dialect.MARIADB ? " ON " + name(table) : "")
                : dialect == Dialect.MARIADB
                        ? "ALTER TABLE " + name(table) + (key.isPrimary() ? " DROP PRIMARY KEY" : " DROP INDEX " + name)
                        : "ALTER TABLE " + name(table) + " DROP CONSTRAINT " + name;
        steps.add(new SchemaStep(
                what,
                dialect == Dialect.POSTGRESQL
                        ? "locks " + table.name() + " against all use while its index is built"
                        : "locks " + table.name() + " against changes while its index is built",
                List.of(made),
                List.of(back),
                Optional.of(duplicates(table, key, where)),
                path));
    }

    /** Rows that share a key, and those of a primary key that have none. */
    private String duplicates(Table table, Key key, String where) {
        String columns = names(key.columns());
        String some = key.columns().stream()
                .map(column -> "t." + dialect.name(column) + " IS NULL")
                .collect(Collectors.joining(" OR "));
        String none = key.columns().stream()
                .map(column -> dialect.name(column) + " IS NOT NULL")
                .collect(Collectors.joining(" AND "));
        String condition = (where.isEmpty() ? " WHERE " : where + " AND ") + "(" + none + ")";
        String equal = key.columns().stream()
                .map(column -> "taken." + dialect.name(column) + " = t." + dialect.name(column))
                .collect(Collectors.joining(" AND "));
        return "SELECT t.* FROM " + name(table) + " t WHERE EXISTS (SELECT 1 FROM (SELECT " + columns + " FROM "
                + name(table) + (key.nullsAreEqual() ? where : condition) + " GROUP BY " + columns
                + " HAVING count(*) > 1) taken WHERE "
                + (key.nullsAreEqual()
                        ? key.columns().stream()
                                .map(column -> "taken." + dialect.name(column) + " IS NOT DISTINCT FROM t."
                                        + dialect.name(column))
                                .collect(Collectors.joining(" AND "))
                        : equal)
                + ")" + (where.isEmpty() ? "" : " AND " + where.substring(" WHERE ".length()))
                + (key.isPrimary() ? " OR " + some : "");
    }

    private record Check(String name, String condition, String what) {}

    private List<Check> checksOf(Table table, Column column) {
        List<Check> checks = new ArrayList<>();
        String name = dialect.name(column.name());
        if (!column.values().isEmpty()) {
            checks.add(new Check(
                    table.name() + "_" + column.name() + "_values",
                    name + " IN ("
                            + column.values().stream()
                                    .map(value -> dialect.literal(column, value))
                                    .collect(Collectors.joining(", "))
                            + ")",
                    table.name() + "." + column.name() + " is one of some values"));
        }
        column.length()
                .ifPresent(range -> checks.add(new Check(
                        table.name() + "_" + column.name() + "_length",
                        (dialect == Dialect.SQLITE ? "length(" : "char_length(") + name + ") >= " + range.least()
                                + (range.most() == taxiomet.charter.IntRange.NO_LIMIT
                                        ? ""
                                        : " AND " + (dialect == Dialect.SQLITE ? "length(" : "char_length(") + name
                                                + ") <= " + range.most()),
                        "the length of " + table.name() + "." + column.name())));
        return checks;
    }

    private void addColumnRules(Table table, Column column) {
        for (Check check : checksOf(table, column)) {
            addCheck(
                    table,
                    check.name.length() > LONGEST_NAME ? check.name.substring(0, LONGEST_NAME) : check.name,
                    "(" + check.condition + ")",
                    "NOT (" + check.condition + ")",
                    check.what,
                    path(table, "columns", column.name(), check.name.endsWith("_values") ? "values" : "length"));
        }
    }

    private void leaveOut(Table table, Column column) {
        String of = " of " + table.name() + "." + column.name();
        column.pattern()
                .ifPresent(pattern ->
                        left.add(new LeftOut("the pattern" + of, "servers read patterns in ways of their own")));
        if (column.comparison() != Comparison.EXACT) {
            left.add(new LeftOut("the comparison" + of, "it would be a collation of the column"));
        }
    }

    private Optional<String> condition(Table table, Rule rule) {
        Set<String> read = new LinkedHashSet<>();
        for (int column : rule.condition().columnsRead()) {
            read.add(table.columns().get(column).name());
        }
        Optional<ForeignKey> writing = table.links().stream()
                .filter(link -> dialect == Dialect.MARIADB && link.isEnforced() && writes(link))
                .filter(link -> link.columns().stream().anyMatch(read::contains))
                .findFirst();
        if (writing.isPresent()) {
            left.add(new LeftOut(
                    "the rule " + rule.name() + " of " + table.name(),
                    server.title() + " takes no CHECK over columns that an action writes, as that of "
                            + writing.get().name() + " does"));
            return Optional.empty();
        }
        try {
            return Optional.of(bracketed(new ExpressionSql(dialect, table).of(rule.condition())));
        } catch (Unsaid e) {
            left.add(new LeftOut("the rule " + rule.name() + " of " + table.name(), e.getMessage()));
            return Optional.empty();
        }
    }

    private static boolean writes(ForeignKey link) {
        return link.onDelete().name() == ActionName.SET_NULL
                || link.onUpdate().name() == ActionName.SET_NULL
                || link.onUpdate().name() == ActionName.CASCADE;
    }

    private static String bracketed(String sql) {
        return sql.startsWith("(") ? sql : "(" + sql + ")";
    }

    private void addRule(Table table, Rule rule) {
        List<String> path = path(table, "rules", rule.name());
        if (!isThere(path)) {
            condition(table, rule)
                    .ifPresent(sql -> addCheck(
                            table,
                            rule.name(),
                            sql,
                            broken(table, rule, sql),
                            "the rule " + rule.name() + " of " + table.name(),
                            path));
        }
    }

    /** True for rows that break a rule; a division by zero breaks it, and would end a query. */
    private String broken(Table table, Rule rule, String sql) {
        try {
            String zero = new ExpressionSql(dialect, table)
                    .divisors(rule.condition()).stream()
                            .distinct()
                            .map(divisor -> " WHEN " + divisor + " = 0 THEN TRUE")
                            .collect(Collectors.joining());
            return zero.isEmpty() ? "NOT " + sql : "CASE" + zero + " ELSE NOT " + sql + " END";
        } catch (Unsaid e) {
            throw new IllegalStateException("the rule was said as a whole", e);
        }
    }

    private void addCheck(Table table, String name, String condition, String broken, String what, List<String> path) {
        if (isThere(path)) {
            return;
        }
        if (dialect == Dialect.SQLITE) {
            left.add(new LeftOut(what, "SQLite takes it only where a table is made: --tables"));
            return;
        }
        String add = "ALTER TABLE " + name(table) + " ADD CONSTRAINT " + dialect.name(name) + " CHECK " + condition;
        boolean isLater = dialect == Dialect.POSTGRESQL && !makes(table);
        steps.add(new SchemaStep(
                what,
                isLater
                        ? "locks " + table.name() + " for a moment; its rows are read later, while others change them"
                        : "locks " + table.name() + " against changes while its rows are read",
                isLater
                        ? List.of(
                                add + " NOT VALID",
                                "ALTER TABLE " + name(table) + " VALIDATE CONSTRAINT " + dialect.name(name))
                        : List.of(add),
                List.of("ALTER TABLE " + name(table) + " DROP CONSTRAINT " + dialect.name(name)),
                Optional.of("SELECT * FROM " + name(table) + " WHERE " + broken),
                path));
    }

    /** Children are sought by the link's columns whenever a parent goes: an index spares reading all of them. */
    private void addIndex(Table table, ForeignKey link) {
        boolean isServed = table.keys().stream()
                .anyMatch(key -> key.where().isEmpty()
                        && key.columns().size() >= link.columns().size()
                        && key.columns().subList(0, link.columns().size()).equals(link.columns()));
        // MariaDB makes one of its own.
        if (isServed
                || dialect == Dialect.MARIADB
                || isThere(path(table, "foreign_keys", link.name()))
                || !isPutQuietly(table, link)) {
            return;
        }
        String name = dialect.name(different(table.name() + "_" + link.name() + "_idx", table.name(), namesOfKeys));
        boolean isBeside = dialect == Dialect.POSTGRESQL && !makes(table);
        steps.add(new SchemaStep(
                "an index by which rows of " + table.name() + " are found over " + link.name(),
                isBeside
                        ? "beside other work on " + table.name() + "; not inside a transaction"
                        : "locks " + table.name() + " against changes while it is built",
                List.of("CREATE INDEX " + (isBeside ? "CONCURRENTLY " : "") + name + " ON " + name(table) + " ("
                        + names(link.columns()) + ")"),
                List.of("DROP INDEX " + schemaOf(table) + name),
                Optional.empty(),
                path(table, "foreign_keys", link.name(), "columns")));
    }

    private boolean isPutQuietly(Table table, ForeignKey link) {
        int before = left.size();
        boolean isPut = isPut(table, link);
        while (left.size() > before) {
            left.remove(left.size() - 1);
        }
        return isPut;
    }

    private boolean isPut(Table table, ForeignKey link) {
        String what = "the link " + link.name() + " of " + table.name();
        List<String> path = path(table, "foreign_keys", link.name());
        Optional<Judgement> refused = notTaken.stream()
                .filter(judgement -> judgement.path().size() >= path.size()
                        && judgement.path().subList(0, path.size()).equals(path))
                .findFirst();
        boolean pointsAtKey = charter.table(link.parent()).keys().stream()
                .anyMatch(key -> key.where().isEmpty()
                        && (dialect == Dialect.MARIADB
                                ? key.columns().equals(link.parentColumns())
                                : Set.copyOf(key.columns()).equals(Set.copyOf(link.parentColumns()))));
        String why = !link.isEnforced()
                ? "the charter says that it is not enforced"
                : refused.isPresent()
                        ? refused.get().problem()
                        : link.where().isPresent()
                                ? "no server has links of some rows alone"
                                : !pointsAtKey ? "it points at no key" : "";
        if (why.isEmpty() && link.match() == Match.PARTIAL && link.columns().size() > 1) {
            why = server.title() + " does not know match partial";
        }
        if (!why.isEmpty()) {
            left.add(new LeftOut(what, why));
        }
        return why.isEmpty();
    }

    private String constraint(ForeignKey link) {
        Table parent = charter.table(link.parent());
        StringBuilder sql = new StringBuilder("CONSTRAINT ")
                .append(dialect.name(different(link.name(), link.child(), namesOfLinks)))
                .append(" FOREIGN KEY (")
                .append(names(link.columns()))
                .append(") REFERENCES ")
                .append(name(parent))
                .append(" (")
                .append(names(link.parentColumns()))
                .append(')');
        if (link.match() == Match.FULL && link.columns().size() > 1) {
            sql.append(" MATCH FULL");
        }
        sql.append(action(" ON DELETE ", link.onDelete())).append(action(" ON UPDATE ", link.onUpdate()));
        if (link.deferrable() != Deferrable.NO) {
            sql.append(
                    link.deferrable() == Deferrable.DEFERRED
                            ? " DEFERRABLE INITIALLY DEFERRED"
                            : " DEFERRABLE INITIALLY IMMEDIATE");
        }
        return sql.toString();
    }

    private String action(String event, Action action) {
        if (action.name() == ActionName.NO_ACTION) {
            return "";
        }
        return event
                + action.name().sql().toUpperCase(java.util.Locale.ROOT)
                + (action.columns().isEmpty() ? "" : " (" + names(action.columns()) + ")");
    }

    private void addLink(ForeignKey link) {
        Table table = charter.table(link.child());
        List<String> path = path(table, "foreign_keys", link.name());
        if (isThere(path) || isWhole(table)) {
            return;
        }
        String what = "the link " + link.name() + " of " + table.name();
        if (dialect == Dialect.SQLITE) {
            left.add(new LeftOut(what, "SQLite takes it only where a table is made: --tables"));
            return;
        } else if (!isPut(table, link)) {
            return;
        }
        link.children()
                .ifPresent(range -> left.add(new LeftOut(
                        "how many rows of " + table.name() + " each of " + link.parent() + " may have",
                        "no server declares that")));
        if (link.isAcyclic()) {
            left.add(new LeftOut("that no row of " + table.name() + " is its own ancestor", "no server declares that"));
        }
        String constraint = constraint(link);
        String name = constraint.substring("CONSTRAINT ".length(), constraint.indexOf(" FOREIGN KEY"));
        boolean isLater = dialect == Dialect.POSTGRESQL && !makes(table);
        String add = "ALTER TABLE " + name(table) + " ADD " + constraint;
        steps.add(new SchemaStep(
                what,
                isLater
                        ? "locks " + table.name() + " and " + link.parent()
                                + " against changes for a moment; rows are read later, while others change them"
                        : "locks " + table.name() + " and " + link.parent() + " against changes while rows are read",
                isLater
                        ? List.of(add + " NOT VALID", "ALTER TABLE " + name(table) + " VALIDATE CONSTRAINT " + name)
                        : List.of(add),
                List.of("ALTER TABLE " + name(table)
                        + (dialect == Dialect.MARIADB ? " DROP FOREIGN KEY " : " DROP CONSTRAINT ") + name),
                Optional.of(orphans(table, link)),
                path));
    }

    private String orphans(Table table, ForeignKey link) {
        Table parent = charter.table(link.parent());
        String whole = link.columns().stream()
                .map(column -> "c." + dialect.name(column) + " IS NOT NULL")
                .collect(Collectors.joining(" AND "));
        String equal = IntStream.range(0, link.columns().size())
                .mapToObj(i -> "p." + dialect.name(link.parentColumns().get(i)) + " = c."
                        + dialect.name(link.columns().get(i)))
                .collect(Collectors.joining(" AND "));
        String missing = whole + " AND NOT EXISTS (SELECT 1 FROM " + name(parent) + " p WHERE " + equal + ")";
        String half = link.columns().stream()
                .map(column -> "c." + dialect.name(column) + " IS NULL")
                .collect(Collectors.joining(" AND "));
        return "SELECT c.* FROM " + name(table) + " c WHERE "
                + (link.match() == Match.FULL && link.columns().size() > 1
                        ? "(" + missing + ") OR (NOT (" + whole + ") AND NOT (" + half + "))"
                        : missing);
    }
}
