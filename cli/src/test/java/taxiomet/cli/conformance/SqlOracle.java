package taxiomet.cli.conformance;

import java.math.BigDecimal;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import taxiomet.cli.conformance.RandomCase.ChildrenRuleCase;
import taxiomet.cli.conformance.RandomCase.ColumnCase;
import taxiomet.cli.conformance.RandomCase.KeyCase;
import taxiomet.cli.conformance.RandomCase.LinkCase;
import taxiomet.cli.conformance.RandomCase.ParentRuleCase;
import taxiomet.cli.conformance.RandomCase.RowCase;
import taxiomet.cli.conformance.RandomCase.RuleCase;
import taxiomet.cli.conformance.RandomCase.TableCase;

/**
 * The faults of a case, computed by plain SQL in an embedded database. For each table there is one of texts as they stand in
 * the file ({@code rn}, {@code r0}, {@code r1} ...), and one of values cast as the design means them: {@code v0} is the
 * value, null when there is none, {@code b0} whether there is a text that is no value.
 */
final class SqlOracle implements AutoCloseable {
    /** Rows by kind, table and place, as {@code orphan t1.l0}. */
    final Map<String, Set<Long>> rows = new TreeMap<>();
    /** Other counts, as {@code excess t1.u0}. */
    final Map<String, Long> counts = new TreeMap<>();

    private static final String SPACES = "[ \\t\\n\\x0B\\f\\r]";
    private static final String DATE = "([0-9]{4}-[0-9]{2}-[0-9]{2}|[0-9]{8})";
    private static final String TIME = "[0-9]{2}:[0-9]{2}(:[0-9]{2}(\\.[0-9]{1,6})?)?";
    private static final String ZONE = " ?([Zz]|[+-][0-9]{2}(:?[0-9]{2})?)";

    private final RandomCase random;
    private final Connection connection;

    SqlOracle(RandomCase random) throws SQLException {
        this.random = random;
        this.connection = DriverManager.getConnection("jdbc:h2:mem:");
        for (TableCase table : random.tables) {
            load(table);
        }
        for (TableCase table : random.tables) {
            judgeColumns(table);
            judgeKeys(table);
            for (LinkCase link : table.links) {
                judgeLink(table, link);
            }
            for (RuleCase rule : table.rules) {
                judgeRule(table, rule);
            }
            for (ParentRuleCase rule : table.parentRules) {
                judgeParentRule(table, rule);
            }
            for (ChildrenRuleCase rule : table.childrenRules) {
                judgeChildrenRule(table, rule);
            }
        }
    }

    private void execute(String sql) throws SQLException {
        try (Statement statement = connection.createStatement()) {
            statement.execute(sql);
        }
    }

    private void load(TableCase table) throws SQLException {
        int width = table.columns.size();
        StringBuilder raw = new StringBuilder("create table raw_" + table.name + " (rn bigint");
        StringBuilder typed = new StringBuilder("create table " + table.name + " as select rn");
        for (int i = 0; i < width; i++) {
            raw.append(", r").append(i).append(" varchar");
            String value = value(table.columns.get(i).type(), "r" + i);
            typed.append(", r").append(i);
            typed.append(", ").append(value).append(" as v").append(i);
            typed.append(", (r")
                    .append(i)
                    .append(" is not null and ")
                    .append(value)
                    .append(" is null) as b")
                    .append(i);
        }
        execute(raw.append(')').toString());
        String marks = ", ?".repeat(width);
        try (PreparedStatement insert =
                connection.prepareStatement("insert into raw_" + table.name + " values (?" + marks + ")")) {
            long rn = 0;
            for (RowCase row : table.rows) {
                rn++;
                if (row.malformed() != null) {
                    rows.computeIfAbsent("malformed row " + table.name + "." + table.name, k -> new TreeSet<>())
                            .add(rn);
                    continue;
                }
                insert.setLong(1, rn);
                for (int i = 0; i < width; i++) {
                    insert.setString(i + 2, row.cells().get(i).text());
                }
                insert.addBatch();
            }
            insert.executeBatch();
        }
        execute(typed.append(" from raw_").append(table.name).toString());
    }

    private static String trimmed(String x) {
        return "regexp_replace(" + x + ", '^" + SPACES + "+|" + SPACES + "+\\z', '')";
    }

    private static String whole(String x, String regex) {
        return "regexp_like(" + x + ", '^(?:" + regex + ")\\z')";
    }

    /** The value that a database would store without changing it, or null. */
    private static String value(String type, String x) {
        String t = trimmed(x);
        String number = "[+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][+-]?[0-9]+)?";
        return switch (type) {
            case "smallint" -> integer(t, "-32768", "32767");
            case "integer" -> integer(t, "-2147483648", "2147483647");
            case "bigint" -> integer(t, "-9223372036854775808", "9223372036854775807");
            case "numeric" ->
                "(case when " + whole(t, number) + " then cast(cast(" + t
                        + " as decfloat(100)) as numeric(60, 20)) end)";
            case "numeric(6,2)" -> numeric(t, number, 2, "10000");
            case "numeric(4)" -> numeric(t, number, 0, "10000");
            case "real", "double precision" -> approximate(t, number, type);
            case "boolean" ->
                "(case when lower(" + t + ") in ('true', 't', 'yes', 'y', 'on', '1') then true" + " when lower(" + t
                        + ") in ('false', 'f', 'no', 'n', 'off', '0') then false end)";
            case "char(3)" -> "(case when " + points("rtrim(" + x + ")") + " <= 3 then rtrim(" + x + ") end)";
            case "varchar(3)" -> "(case when " + points(x) + " <= 3 then " + x + " end)";
            case "varchar(10)" -> "(case when " + points(x) + " <= 10 then " + x + " end)";
            case "text" -> x;
            case "uuid" -> uuid(t);
            case "date" -> "(case when " + whole(t, DATE) + " then " + day(t) + " end)";
            case "time" -> "(case when " + whole(t, TIME) + " then " + time(t) + " end)";
            case "timestamp" -> timestamp(t, TIME);
            case "timestamp(3)" -> timestamp(t, TIME.replace("{1,6}", "{1,3}"));
            case "timestamp with time zone" -> zoned(t);
            default -> throw new IllegalArgumentException(type);
        };
    }

    private static String points(String x) {
        return "char_length(regexp_replace(" + x + ", '[\\x{10000}-\\x{10FFFF}]', 'x'))";
    }

    private static String integer(String t, String least, String most) {
        String n = "cast(" + t + " as numeric(100))";
        return "(case when " + whole(t, "[+-]?[0-9]{1,90}") + " then case when " + n + " between " + least + " and "
                + most + " then " + n + " end end)";
    }

    private static String numeric(String t, String number, int scale, String limit) {
        String n = "cast(" + t + " as decfloat(100))";
        return "(case when " + whole(t, number) + " then case when round(" + n + ", " + scale + ") = " + n + " and abs("
                + n + ") < " + limit + " then cast(" + n + " as numeric(60, 20)) end end)";
    }

    private static String approximate(String t, String number, String type) {
        String n = "cast(cast(" + t + " as " + type + ") as double precision)";
        return "(case when " + whole(t, number) + " then case when abs(" + n
                + ") < cast('Infinity' as double precision) then "
                + n + " end"
                + " when lower(" + t + ") = 'nan' then cast('NaN' as double precision)"
                + " when lower(" + t
                + ") in ('infinity', '+infinity', 'inf', '+inf') then cast('Infinity' as double precision)"
                + " when lower(" + t + ") in ('-infinity', '-inf') then cast('-Infinity' as double precision) end)";
    }

    private static String uuid(String t) {
        String hyphens = "[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}";
        String plain = hyphens + "|[0-9a-f]{32}|\\{(" + hyphens + "|[0-9a-f]{32})\\}";
        return "(case when " + whole("lower(" + t + ")", plain) + " then regexp_replace(lower(" + t
                + "), '[{}-]', '') end)";
    }

    private static String cut(String x, int from, int length) {
        return "cast(substring(" + x + " from " + from + " for " + length + ") as int)";
    }

    /** Microseconds of a day since 1970, of a text that begins with a date in one of the two forms; null for no such day. */
    private static String day(String x) {
        String plain =
                "regexp_replace(substring(" + x + " from 1 for 10), '^([0-9]{4})-([0-9]{2})-([0-9]{2})', '$1$2$3')";
        String y = cut(plain, 1, 4);
        String m = cut(plain, 5, 2);
        String d = cut(plain, 7, 2);
        String first = "dateadd(month, " + m + " - 1, dateadd(year, " + y + " - 1, date '0001-01-01'))";
        String date = "dateadd(day, " + d + " - 1, " + first + ")";
        return "(case when " + y + " >= 1 and " + m + " between 1 and 12 and " + d
                + " between 1 and 31 then case when month(" + date + ") = " + m
                + " then cast(datediff(day, date '1970-01-01', " + date + ") as numeric(30)) * 86400000000 end end)";
    }

    private static String time(String x) {
        String rest = "case when char_length(" + x + ") > 5 then cast(substring(" + x
                + " from 7) as numeric(20, 6)) else 0 end";
        return "(case when " + cut(x, 1, 2) + " <= 23 and " + cut(x, 4, 2) + " <= 59 and " + rest + " < 60 then cast(("
                + cut(x, 1, 2) + " * 3600 + " + cut(x, 4, 2) + " * 60 + " + rest + ") * 1000000 as numeric(30)) end)";
    }

    private static String timestamp(String t, String time) {
        String clock = "regexp_replace(" + t + ", '^" + DATE + "[ T]?', '')";
        return "(case when " + whole(t, DATE) + " then " + day(t) + " when " + whole(t, DATE + "[ T]" + time) + " then "
                + day(t) + " + " + time(clock) + " end)";
    }

    private static String zoned(String t) {
        String zone = "regexp_replace(regexp_replace(" + t + ", '^" + DATE + "[ T]" + TIME + " ?', ''), ':', '')";
        String local = "regexp_replace(" + t + ", '" + ZONE + "\\z', '')";
        String minutes = "(case when char_length(" + zone + ") = 5 then " + cut(zone, 4, 2) + " else 0 end)";
        String offset = "(case when " + zone + " in ('Z', 'z') then 0 when " + minutes + " <= 59 and " + cut(zone, 2, 2)
                + " * 60 + " + minutes
                + " <= 840 then (" + cut(zone, 2, 2) + " * 60 + " + minutes + ") * (case when left(" + zone
                + ", 1) = '+' then 1 else -1 end) end)";
        return "(case when " + whole(t, DATE + "[ T]" + TIME + ZONE) + " then " + timestamp(local, TIME) + " - cast("
                + offset + " as numeric(30)) * 60000000 when not " + whole(t, DATE + "[ T]?" + ZONE) + " then "
                + timestamp(t, TIME) + " end)";
    }

    /** The form in which a value of a key is compared. */
    private static String form(ColumnCase column, String value) {
        if (!column.family().equals("TEXT")) {
            return value;
        }
        return switch (String.valueOf(column.extras().get("compare"))) {
            case "ignore case" -> "lower(upper(" + value + "))";
            case "trimmed" -> "trim(" + value + ")";
            default -> value;
        };
    }

    private void find(String what, String sql) throws SQLException {
        Set<Long> found = new TreeSet<>(rows.getOrDefault(what, new TreeSet<>()));
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            while (result.next()) {
                found.add(result.getLong(1));
            }
        }
        if (!found.isEmpty()) {
            rows.put(what, found);
        }
    }

    private void count(String what, String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            result.next();
            counts.put(what, result.getLong(1));
        }
    }

    private void judgeColumns(TableCase table) throws SQLException {
        for (int i = 0; i < table.columns.size(); i++) {
            ColumnCase column = table.columns.get(i);
            String at = " " + table.name + "." + column.name();
            String from = "select rn from " + table.name + " where ";
            find("type mismatch" + at, from + "b" + i);
            if (column.extras().containsKey("not_null")) {
                find("null not allowed" + at, from + "r" + i + " is null");
            }
            if (column.extras().containsKey("length")) {
                String[] range = column.extras().get("length").toString().split("\\.\\.", -1);
                String length = points("v" + i);
                String least = range[0];
                String most = range.length == 1 ? range[0] : range[1];
                find(
                        "wrong length" + at,
                        from + length + " < " + least + (most.isEmpty() ? "" : " or " + length + " > " + most));
            }
            if (column.extras().containsKey("pattern")) {
                find(
                        "pattern not met" + at,
                        from + "v" + i + " is not null and not "
                                + whole("v" + i, column.extras().get("pattern").toString()));
            }
            if (column.extras().get("values") instanceof List<?> values) {
                List<String> literals = new ArrayList<>();
                for (Object value : values) {
                    literals.add(form(column, value(column.type(), "'" + value + "'")));
                }
                find(
                        "value not allowed" + at,
                        from + form(column, "v" + i) + " not in (" + String.join(", ", literals) + ")");
            }
        }
    }

    private void judgeKeys(TableCase table) throws SQLException {
        List<KeyCase> keys = new ArrayList<>(table.unique);
        if (table.primary != null) {
            keys.add(table.primary);
            find(
                    "null in key " + table.name + ".primary_key",
                    "select rn from " + table.name + " where "
                            + table.primary.columns().stream()
                                    .map(c -> "r" + c + " is null")
                                    .collect(Collectors.joining(" or ")));
        }
        for (KeyCase key : keys) {
            String forms = key.columns().stream()
                    .map(c -> form(table.columns.get(c), "v" + c))
                    .collect(Collectors.joining(", "));
            String usable = key.columns().stream()
                    .map(c -> key.nullsEqual() ? "not b" + c : "v" + c + " is not null")
                    .collect(Collectors.joining(" and "));
            String groups =
                    "select rn, count(*) over (partition by " + forms + ") as n, row_number() over (partition by "
                            + forms + " order by rn) as k from " + table.name + " where " + usable;
            String at = " " + table.name + "." + key.name();
            find("duplicate" + at, "select rn from (" + groups + ") where n > 1");
            count("excess" + at, "select count(*) from (" + groups + ") where k > 1");
            count("groups" + at, "select count(*) from (" + groups + ") where k = 2");
        }
    }

    private void judgeLink(TableCase table, LinkCase link) throws SQLException {
        TableCase parent = random.tables.get(link.parent());
        String at = " " + table.name + "." + link.name();
        List<Integer> columns = link.columns();
        String someNull =
                columns.stream().map(c -> "c.r" + c + " is null").collect(Collectors.joining(" or ", "(", ")"));
        String allNull =
                columns.stream().map(c -> "c.r" + c + " is null").collect(Collectors.joining(" and ", "(", ")"));
        String someBad = columns.stream().map(c -> "c.b" + c).collect(Collectors.joining(" or ", "(", ")"));
        boolean isPartial = link.match().equals("partial");
        List<String> equal = new ArrayList<>();
        List<String> equalOrNull = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            String on =
                    equal(table, columns.get(i), parent, link.parentColumns().get(i));
            equal.add(on);
            equalOrNull.add("(c.r" + columns.get(i) + " is null or " + on + ")");
        }
        String judged = isPartial ? "not " + allNull : "not " + someNull;
        String exists = "exists (select 1 from " + parent.name + " p where "
                + String.join(" and ", isPartial ? equalOrNull : equal) + ")";
        String from = " from " + table.name + " c where ";
        find("orphan" + at, "select rn" + from + judged + " and not " + exists);
        if (link.match().equals("full")) {
            find("half-null link" + at, "select rn" + from + someNull + " and not " + allNull);
        }
        count("judged" + at, "select count(*)" + from + judged);
        count("nulls" + at, "select count(*)" + from + allNull);
        count("half_nulls" + at, "select count(*)" + from + someNull + " and not " + allNull);
        count("ill_typed" + at, "select count(*)" + from + judged + " and " + someBad);
        if (parent == table) {
            judgeRings(table, link);
        }
        if (link.children() != null) {
            String[] range = link.children().split("\\.\\.", -1);
            String children = "(select count(*) from " + table.name + " c where " + String.join(" and ", equal) + ")";
            String place = " " + parent.name + "." + link.name();
            find(
                    "too few children" + place,
                    "select rn from " + parent.name + " p where " + children + " < " + range[0]);
            if (!range[1].isEmpty()) {
                find(
                        "too many children" + place,
                        "select rn from " + parent.name + " p where " + children + " > " + range[1]);
            }
        }
    }

    /** How many parents a row has over a link of its table. */
    long parents(TableCase child, LinkCase link, long row) throws SQLException {
        return number("select count(*) from " + pairs(child, link) + " and c.rn = " + row);
    }

    /** How many children a row has over a link that leads to its table. */
    long children(TableCase child, LinkCase link, long row) throws SQLException {
        return number("select count(*) from " + pairs(child, link) + " and p.rn = " + row);
    }

    /** All rows of a table with their parents over one link, as {@code c} and {@code p}. */
    private String pairs(TableCase child, LinkCase link) {
        TableCase parent = random.tables.get(link.parent());
        boolean isPartial = link.match().equals("partial");
        List<String> equal = new ArrayList<>();
        for (int i = 0; i < link.columns().size(); i++) {
            int column = link.columns().get(i);
            String on = equal(child, column, parent, link.parentColumns().get(i));
            equal.add(isPartial ? "(c.r" + column + " is null or " + on + ")" : on);
        }
        String someValue = link.columns().stream()
                .map(c -> "c.r" + c + " is not null")
                .collect(Collectors.joining(" or ", "(", ")"));
        return child.name + " c, " + parent.name + " p where " + someValue + " and " + String.join(" and ", equal);
    }

    /** Each child over a link whose columns all have a value, with the first of its parents, as row numbers: child, parent. */
    List<long[]> firstParents(TableCase child, LinkCase link) throws SQLException {
        TableCase parent = random.tables.get(link.parent());
        List<long[]> pairs = new ArrayList<>();
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("select c.rn, min(p.rn) from " + child.name + " c, "
                        + parent.name + " p where " + joinOn(child, link, "c", parent, "p")
                        + " group by c.rn order by c.rn")) {
            while (result.next()) {
                pairs.add(new long[] {result.getLong(1), result.getLong(2)});
            }
        }
        return pairs;
    }

    /** What a column of some rows comes to. */
    BigDecimal sum(TableCase table, int column, String rows) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery("select coalesce(sum(cast(v" + column
                        + " as numeric(38,9))), 0) from " + table.name + " where rn in (" + rows + ")")) {
            result.next();
            return result.getBigDecimal(1).stripTrailingZeros();
        }
    }

    /** What the products of two columns come to, of a child and of the first of its parents, over some children. */
    BigDecimal sumOfProducts(TableCase child, int column, LinkCase link, int ofParent, Collection<Long> rows)
            throws SQLException {
        TableCase parent = random.tables.get(link.parent());
        BigDecimal sum = BigDecimal.ZERO;
        for (long[] pair : firstParents(child, link)) {
            if (rows.contains(pair[0])) {
                BigDecimal one = sum(child, column, String.valueOf(pair[0]));
                sum = sum.add(one.multiply(sum(parent, ofParent, String.valueOf(pair[1]))));
            }
        }
        return sum;
    }

    private long number(String sql) throws SQLException {
        try (Statement statement = connection.createStatement();
                ResultSet result = statement.executeQuery(sql)) {
            result.next();
            return result.getLong(1);
        }
    }

    private static String equal(TableCase table, int column, TableCase parent, int parentColumn) {
        return equal(table, column, "c", parent, parentColumn, "p");
    }

    private static String equal(
            TableCase table, int column, String childAlias, TableCase parent, int parentColumn, String parentAlias) {
        ColumnCase one = table.columns.get(column);
        ColumnCase other = parent.columns.get(parentColumn);
        String child = childAlias + ".v" + column;
        String above = parentAlias + ".v" + parentColumn;
        if (!one.family().equals(other.family())) {
            return "cast(" + child + " as double precision) = cast(" + above + " as double precision)";
        }
        return form(other, child) + " = " + form(other, above);
    }

    private static String joinOn(TableCase table, LinkCase link, String alias, TableCase parent, String parentAlias) {
        List<String> equal = new ArrayList<>();
        for (int i = 0; i < link.columns().size(); i++) {
            equal.add(equal(
                    table,
                    link.columns().get(i),
                    alias,
                    parent,
                    link.parentColumns().get(i),
                    parentAlias));
        }
        return String.join(" and ", equal);
    }

    /** All ancestors of each row, step by step until there are no more; a row among its own is in a ring. */
    private void judgeRings(TableCase table, LinkCase link) throws SQLException {
        String edges = "select c.rn as a, p.rn as b from " + table.name + " c join " + table.name + " p on "
                + joinOn(table, link, "c", table, "p");
        execute("drop table if exists edges");
        execute("drop table if exists reach");
        execute("create table edges as " + edges);
        execute("create table reach as select distinct a, b from edges");
        int added = 1;
        while (added > 0) {
            try (Statement statement = connection.createStatement()) {
                added = statement.executeUpdate(
                        "insert into reach select distinct r.a, e.b from reach r join edges e on r.b = e.a"
                                + " where not exists (select 1 from reach x where x.a = r.a and x.b = e.b)");
            }
        }
        find("own ancestor " + table.name + "." + link.name(), "select a from reach where a = b");
    }

    private void judgeParentRule(TableCase table, ParentRuleCase rule) throws SQLException {
        LinkCase first = table.links.get(rule.links().get(0));
        TableCase parent = random.tables.get(first.parent());
        String from = parent.name + " p1";
        String on = joinOn(table, first, "c", parent, "p1");
        String last = "p1";
        if (rule.links().size() > 1) {
            LinkCase second = parent.links.get(rule.links().get(1));
            TableCase above = random.tables.get(second.parent());
            from += " join " + above.name + " p2 on " + joinOn(parent, second, "p1", above, "p2");
            last = "p2";
        }
        String way = "exists (select 1 from " + from + " where " + on + " and not " + last + ".b" + rule.column();
        String operands = "c.v" + rule.own() + " " + rule.comparator() + " " + last + ".v" + rule.column();
        String judged = " from " + table.name + " c where not c.b" + rule.own() + " and " + way;
        String at = " " + table.name + "." + rule.name();
        find("broken rule" + at, "select rn" + judged + " and not (" + operands + "))");
        count("rule_judged" + at, "select count(*)" + judged + ")");
    }

    private void judgeChildrenRule(TableCase table, ChildrenRuleCase rule) throws SQLException {
        TableCase child = random.tables.get(rule.child());
        String children =
                " from " + child.name + " c where " + joinOn(child, child.links.get(rule.link()), "c", table, "p");
        String figure = "(select " + rule.aggregate() + "(" + (rule.column() < 0 ? "*" : "c.v" + rule.column()) + ")"
                + children + ")";
        StringBuilder judged = new StringBuilder(" from " + table.name + " p where true");
        rule.own().forEach(column -> judged.append(" and not p.b").append(column));
        if (rule.column() >= 0) {
            judged.append(" and not exists (select 1")
                    .append(children)
                    .append(" and c.b")
                    .append(rule.column())
                    .append(')');
        }
        String broken = "not (" + String.format(rule.sql(), figure) + ")";
        String end = "";
        if (rule.parent() >= 0) {
            LinkCase up = table.links.get(rule.parent());
            TableCase parent = random.tables.get(up.parent());
            judged.append(" and exists (select 1 from " + parent.name + " q where "
                    + joinOn(table, up, "p", parent, "q") + " and not q.b" + rule.parentColumn());
            end = ")";
        }
        String at = " " + table.name + "." + rule.name();
        find("broken rule" + at, "select rn" + judged + " and " + broken + end);
        count("rule_judged" + at, "select count(*)" + judged + end);
    }

    private void judgeRule(TableCase table, RuleCase rule) throws SQLException {
        String judged = rule.columns().isEmpty()
                ? "true"
                : rule.columns().stream().map(c -> "not b" + c).collect(Collectors.joining(" and "));
        String at = " " + table.name + "." + rule.name();
        find("broken rule" + at, "select rn from " + table.name + " where " + judged + " and not " + rule.sql());
        count("rule_judged" + at, "select count(*) from " + table.name + " where " + judged);
    }

    @Override
    public void close() throws SQLException {
        connection.close();
    }
}
