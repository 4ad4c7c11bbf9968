package taxiomet.cli.conformance;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** A random charter with its rows: small domains and odd spellings, so that every kind of fault and of equality occurs. */
final class RandomCase {

    final List<TableCase> tables = new ArrayList<>();
    private final Random random;

    /** A cell: null, or a text; a null may be written as a null word. */
    record CellCase(String text, boolean asWord) {}

    record RowCase(List<CellCase> cells, String malformed) {}

    record ColumnCase(String name, String type, String family, Map<String, Object> extras) {}

    record KeyCase(String name, List<Integer> columns, boolean nullsEqual) {}

    record LinkCase(
            String name,
            List<Integer> columns,
            int parent,
            List<Integer> parentColumns,
            String match,
            String children) {}

    /**
     * A rule over a parent's column.
     *
     * @param links places of the links on the way, the table's own first
     * @param column the parent's
     * @param own the row's
     */
    record ParentRuleCase(String name, String text, List<Integer> links, int column, int own, String comparator) {}

    record RuleCase(String name, String text, String sql, List<Integer> columns) {}

    /**
     * A rule over what the children come to.
     *
     * @param child the children's table, by its place, and their link by its place in it
     * @param column the children's that is read; -1 where rows are counted
     * @param sql the condition over {@code %s}, which stands for what they come to, and {@code p}, the row
     * @param own the row's columns that are read
     * @param parent the row's link over which a parent's column is read too, as {@code q}; -1 for none
     */
    record ChildrenRuleCase(
            String name,
            String text,
            int child,
            int link,
            String aggregate,
            int column,
            String sql,
            List<Integer> own,
            int parent,
            int parentColumn) {}

    static final class TableCase {
        final String name;
        final List<ColumnCase> columns = new ArrayList<>();
        KeyCase primary;
        final List<KeyCase> unique = new ArrayList<>();
        final List<LinkCase> links = new ArrayList<>();
        final List<ChildrenRuleCase> childrenRules = new ArrayList<>();
        final List<RuleCase> rules = new ArrayList<>();
        final List<ParentRuleCase> parentRules = new ArrayList<>();
        final List<RowCase> rows = new ArrayList<>();

        TableCase(String name) {
            this.name = name;
        }
    }

    private static final Map<String, List<String>> TYPES = Map.of(
            "EXACT", List.of("smallint", "integer", "bigint", "numeric(6,2)", "numeric", "numeric(4)"),
            "APPROXIMATE", List.of("real", "double precision"),
            "TEXT", List.of("char(3)", "varchar(3)", "text", "varchar(10)"),
            "MOMENT", List.of("date", "timestamp", "timestamp(3)"),
            "INSTANT", List.of("timestamp with time zone"),
            "TIME", List.of("time"),
            "BOOLEAN", List.of("boolean"),
            "UUID", List.of("uuid"));

    /** Texts to draw from; the first half of each list are the commoner ones. */
    private static final Map<String, List<String>> CELLS = Map.of(
            "EXACT",
            List.of(
                    "1",
                    "2",
                    "3",
                    "7",
                    "007",
                    "+7",
                    " 7",
                    "10",
                    "42",
                    "-3",
                    "0",
                    "-0",
                    "7 ",
                    "1.5",
                    "1.50",
                    "01.5",
                    "7.0",
                    "7.",
                    "15e-1",
                    "7e0",
                    "32768",
                    "3000000000",
                    "12.345",
                    "x",
                    "",
                    "1_0",
                    "99999",
                    "9223372036854775808",
                    "0x7",
                    "\t7",
                    ".5",
                    "1e3",
                    "10000.001",
                    "-"),
            "APPROXIMATE",
            List.of(
                    "1",
                    "2",
                    "1.5",
                    "1.50",
                    "15e-1",
                    "0.1",
                    "NaN",
                    "nan",
                    "Infinity",
                    "-inf",
                    "0",
                    "-0",
                    "+2",
                    " 2",
                    "0.10",
                    "1e400",
                    "3e38",
                    "4e38",
                    "x",
                    "",
                    "1.5f",
                    "0x1p3"),
            "TEXT",
            List.of(
                    "a", "b", "ab", "abc", "A", "B", "Ab", "a ", " a", "b  ", "é", "É", "NULL", "none", "abcd", "",
                    "😀", "x,y", "q\"q", "l\nm", "zz", "7", "007"),
            "MOMENT",
            List.of(
                    "2023-02-05",
                    "20230205",
                    "2023-02-05 00:00:00",
                    "2023-02-05T00:00",
                    "2024-02-29",
                    "2023-02-29",
                    "2023-02-05 10:00",
                    "2023-02-05 10:00:00.000",
                    "2023-02-05 10:00:00.1234",
                    "2023-02-05 10:00:00.1234567",
                    "05.02.2023",
                    "",
                    "2023-13-01",
                    "2023-02-05 24:00",
                    "2023-02-05 10:00:60",
                    "0000-01-01",
                    " 2023-02-05",
                    "2023-02-05 10:00Z",
                    "2023-2-5",
                    "1900-02-29",
                    "9999-12-31"),
            "INSTANT",
            List.of(
                    "2023-02-05 10:00Z",
                    "2023-02-05 11:00+01",
                    "2023-02-05T10:00:00+00:00",
                    "2023-02-05 10:00",
                    "2023-02-05",
                    "2023-02-04 20:30-1330",
                    "2023-02-05 10:00:00.5z",
                    "20230205T00:00Z",
                    "x",
                    "",
                    "2023-02-05 10:00+25",
                    "2023-02-05 10:00+0160"),
            "TIME",
            List.of(
                    "09:30",
                    "09:30:00",
                    "09:30:00.0",
                    "10:00",
                    "23:59:59.999999",
                    "24:00",
                    "9:30",
                    "10:60",
                    "",
                    "10:00:60",
                    "10:00:00.1234567",
                    " 09:30"),
            "BOOLEAN",
            List.of("true", "t", "1", "YES", "on", "false", "f", "0", "No", "OFF", "x", "", " true", "2", "tru"),
            "UUID",
            List.of(
                    "0f0e0d0c-0b0a-4908-8706-050403020100",
                    "0F0E0D0C-0B0A-4908-8706-050403020100",
                    "{0f0e0d0c-0b0a-4908-8706-050403020100}",
                    "0f0e0d0c0b0a49088706050403020100",
                    "11111111-1111-4111-8111-111111111111",
                    "",
                    "x",
                    "0f0e0d0c-0b0a-4908-8706-05040302010",
                    "0f0e0d0c0-b0a-4908-8706-050403020100"));

    private static final List<String> FAMILIES =
            List.of("EXACT", "TEXT", "EXACT", "TEXT", "MOMENT", "APPROXIMATE", "INSTANT", "TIME", "BOOLEAN", "UUID");

    RandomCase(long seed) {
        random = new Random(seed);
        int count = 3 + random.nextInt(6);
        for (int i = 0; i < count; i++) {
            tables.add(table("t" + i));
        }
        for (int i = 0; i < count; i++) {
            addLinks(i);
        }
        for (TableCase table : tables) {
            addRules(table);
            addParentRules(table);
            addChildrenRules(table);
            addRows(table);
        }
    }

    private boolean chance(double probability) {
        return random.nextDouble() < probability;
    }

    private <T> T any(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    private TableCase table(String name) {
        TableCase table = new TableCase(name);
        int keyWidth = chance(0.55) ? 1 : 2 + random.nextInt(2);
        int more = random.nextInt(3);
        for (int i = 0; i < keyWidth + more; i++) {
            table.columns.add(column(
                    "c" + i,
                    i < keyWidth && chance(0.7) ? any(List.of("EXACT", "TEXT")) : any(FAMILIES),
                    i >= keyWidth));
        }
        List<Integer> key = new ArrayList<>();
        for (int i = 0; i < keyWidth; i++) {
            key.add(i);
        }
        if (chance(0.85)) {
            table.primary = new KeyCase("primary_key", key, false);
        } else {
            table.unique.add(new KeyCase("u0", key, chance(0.5)));
        }
        if (more > 0 && chance(0.4)) {
            table.unique.add(new KeyCase("u1", chance(0.5) ? List.of(keyWidth) : List.of(keyWidth, 0), chance(0.3)));
        }
        return table;
    }

    private ColumnCase column(String name, String family, boolean isPlain) {
        String type = any(TYPES.get(family));
        Map<String, Object> extras = new LinkedHashMap<>();
        if (family.equals("TEXT") && chance(0.3)) {
            extras.put("compare", any(List.of("ignore case", "trimmed")));
        }
        if (isPlain && chance(0.25)) {
            extras.put("not_null", true);
        }
        if (isPlain && family.equals("TEXT") && chance(0.3)) {
            extras.put("length", any(List.of("1..2", "2..", "0..1", "1")));
        }
        if (isPlain && family.equals("TEXT") && chance(0.3)) {
            extras.put("pattern", any(List.of("[a-z]*", "(a|b)+ ?", ".", "[^0-9]+")));
        }
        if (isPlain && chance(0.25)) {
            extras.put(
                    "values",
                    switch (family) {
                        case "EXACT" -> List.of("1", "7", "10");
                        case "TEXT" ->
                            type.equals("char(3)") || type.equals("varchar(3)")
                                    ? List.of("a", "Ab", "b ")
                                    : List.of("a", "ab", "abcd");
                        case "BOOLEAN" -> List.of("yes");
                        case "MOMENT" -> List.of("2023-02-05", "2024-02-29");
                        default -> List.of();
                    });
            if (((List<?>) extras.get("values")).isEmpty()) {
                extras.remove("values");
            }
        }
        return new ColumnCase(name, type, family, extras);
    }

    private void addLinks(int place) {
        TableCase child = tables.get(place);
        int links = random.nextInt(3);
        for (int i = 0; i < links; i++) {
            int parentPlace = chance(0.2) ? place : random.nextInt(tables.size());
            TableCase parent = tables.get(parentPlace);
            List<KeyCase> keys = new ArrayList<>(parent.unique);
            if (parent.primary != null) {
                keys.add(parent.primary);
            }
            KeyCase key = any(keys);
            List<Integer> columns = new ArrayList<>();
            for (int parentColumn : key.columns()) {
                columns.add(childColumn(child, parent.columns.get(parentColumn), parentPlace == place, columns));
            }
            String match = any(List.of("simple", "simple", "full", "partial"));
            String children = chance(0.3) ? any(List.of("1..", "0..1", "1..2", "0..3")) : null;
            child.links.add(new LinkCase("l" + place + "_" + i, columns, parentPlace, key.columns(), match, children));
        }
    }

    /** A column of the child of the same family: one that is there, or a new one. */
    private int childColumn(TableCase child, ColumnCase parent, boolean isSelf, List<Integer> taken) {
        for (int i = 0; i < child.columns.size(); i++) {
            boolean fits = child.columns.get(i).family().equals(parent.family());
            if (fits && !taken.contains(i) && chance(isSelf ? 0.2 : 0.35)) {
                return i;
            }
        }
        String family = parent.family().equals("EXACT") && chance(0.08) ? "APPROXIMATE" : parent.family();
        child.columns.add(column("c" + child.columns.size(), family, false));
        return child.columns.size() - 1;
    }

    private void addRules(TableCase table) {
        if (chance(0.5)) {
            new RandomRules(random, table).add(1 + random.nextInt(2));
        }
    }

    private void addParentRules(TableCase table) {
        for (int i = 0; i < table.links.size(); i++) {
            if (!chance(0.6)) {
                continue;
            }
            List<Integer> way = new ArrayList<>(List.of(i));
            String text = table.links.get(i).name();
            TableCase parent = tables.get(table.links.get(i).parent());
            if (!parent.links.isEmpty() && chance(0.5)) {
                int second = random.nextInt(parent.links.size());
                way.add(second);
                text += "." + parent.links.get(second).name();
                parent = tables.get(parent.links.get(second).parent());
            }
            int column = random.nextInt(parent.columns.size());
            String family = parent.columns.get(column).family();
            for (int own = 0; own < table.columns.size(); own++) {
                boolean isOrdered = family.equals("EXACT") || family.equals("MOMENT") || family.equals("TEXT");
                if (isOrdered && table.columns.get(own).family().equals(family)) {
                    String comparator = family.equals("TEXT") ? "<>" : any(List.of(">=", "<", "="));
                    table.parentRules.add(new ParentRuleCase(
                            "p" + i,
                            table.columns.get(own).name() + " " + comparator + " " + text + "."
                                    + parent.columns.get(column).name(),
                            way,
                            column,
                            own,
                            comparator));
                    break;
                }
            }
        }
    }

    private void addChildrenRules(TableCase table) {
        int here = tables.indexOf(table);
        for (int child = 0; child < tables.size(); child++) {
            for (int link = 0; link < tables.get(child).links.size(); link++) {
                if (tables.get(child).links.get(link).parent() == here && chance(0.7)) {
                    table.childrenRules.add(childrenRule(table, child, link));
                }
            }
        }
    }

    private ChildrenRuleCase childrenRule(TableCase table, int childPlace, int linkPlace) {
        TableCase child = tables.get(childPlace);
        int column = random.nextInt(child.columns.size());
        String family = child.columns.get(column).family();
        String aggregate = any(
                switch (family) {
                    case "EXACT" -> List.of("count", "sum", "avg", "min", "max");
                    case "MOMENT", "APPROXIMATE" -> List.of("count", "min", "max");
                    default -> List.of("count");
                });
        if (aggregate.equals("count") && chance(0.6)) {
            column = -1;
        }
        String path = child.name + "." + child.links.get(linkPlace).name()
                + (column < 0 ? "" : "." + child.columns.get(column).name());
        String figure = aggregate + "(" + path + ")";
        boolean isExact = aggregate.equals("count") || family.equals("EXACT");
        List<Integer> own = new ArrayList<>();
        String text;
        String sql;
        int parent = -1;
        int parentColumn = -1;
        if (!isExact) {
            boolean isMoment = family.equals("MOMENT");
            text = figure + (isMoment ? " >= DATE '2023-06-01'" : " < 1.75");
            sql = "%s" + (isMoment ? " >= 1685577600000000" : " < 1.75");
        } else {
            String comparator = any(List.of(">=", "<", "=", "<>"));
            text = figure + " " + comparator + " ";
            sql = "%s " + comparator + " ";
            List<int[]> others = exactOperands(table);
            int[] other = others.isEmpty() || chance(0.5) ? null : any(others);
            if (other == null) {
                String literal = any(List.of("0", "1", "2", "3", "7", "2.5"));
                text += literal;
                sql += literal;
            } else if (other[0] < 0) {
                own.add(other[1]);
                text += table.columns.get(other[1]).name();
                sql += "p.v" + other[1];
            } else {
                parent = other[0];
                parentColumn = other[1];
                LinkCase up = table.links.get(parent);
                text += up.name() + "."
                        + tables.get(up.parent()).columns.get(parentColumn).name();
                sql += "q.v" + parentColumn;
            }
        }
        String name = "k" + childPlace + "_" + linkPlace;
        return new ChildrenRuleCase(
                name, text, childPlace, linkPlace, aggregate, column, sql, own, parent, parentColumn);
    }

    /** Columns of exact numbers: of the row itself (-1, column), and of its parents (link, column). */
    private List<int[]> exactOperands(TableCase table) {
        List<int[]> operands = new ArrayList<>();
        for (int column = 0; column < table.columns.size(); column++) {
            if (table.columns.get(column).family().equals("EXACT")) {
                operands.add(new int[] {-1, column});
            }
        }
        for (int link = 0; link < table.links.size(); link++) {
            List<ColumnCase> columns = tables.get(table.links.get(link).parent()).columns;
            for (int column = 0; column < columns.size(); column++) {
                if (columns.get(column).family().equals("EXACT")) {
                    operands.add(new int[] {link, column});
                }
            }
        }
        return operands;
    }

    private void addRows(TableCase table) {
        int count = random.nextInt(10) == 0 ? 0 : 3 + random.nextInt(28);
        for (int r = 0; r < count; r++) {
            List<CellCase> cells = new ArrayList<>();
            for (ColumnCase column : table.columns) {
                cells.add(cell(column));
            }
            // Behind a stray quote reading goes on in the next line: a line break in that row would make two of it.
            boolean canBeMalformed = table.columns.size() > 2
                    && cells.stream()
                            .noneMatch(cell -> String.valueOf(cell.text()).contains("\n"));
            String malformed = canBeMalformed && chance(0.03) ? any(List.of("more", "fewer", "stray")) : null;
            table.rows.add(new RowCase(cells, malformed));
        }
    }

    private CellCase cell(ColumnCase column) {
        if (chance(0.1)) {
            return new CellCase(null, chance(0.4));
        }
        List<String> pool = CELLS.get(column.family());
        int bound = chance(0.85) ? Math.max(4, pool.size() / 3) : pool.size();
        return new CellCase(pool.get(random.nextInt(bound)), false);
    }
}
