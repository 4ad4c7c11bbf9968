package taxiomet.cli.rehearsal;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;

/** Random tables, links, rows and changes: small domains, so that keys meet, and every shape of link. */
final class RandomProposal {
    static final List<String> ACTIONS = List.of("no action", "restrict", "cascade", "set null", "set default");

    final List<TableCase> tables = new ArrayList<>();
    final List<LinkCase> links = new ArrayList<>();
    final List<String> changes = new ArrayList<>();
    final boolean isDirty;
    final boolean hasFullMatch;
    final boolean hasColumnList;
    /** The links in the order in which ALTER TABLE declares them. */
    final List<LinkCase> declared;
    /** Whether tables and columns are named with words of SQL that need no quotes. */
    final boolean hasWordsForNames;

    private static final List<String> TABLE_WORDS =
            List.of("sample", "statement", "file", "import", "prior", "unknown", "csv", "names", "action");
    private static final List<String> COLUMN_WORDS = List.of(
            "year",
            "month",
            "day",
            "hour",
            "minute",
            "second",
            "map",
            "level",
            "type",
            "value",
            "status",
            "date",
            "time",
            "timestamp",
            "text",
            "data",
            "at",
            "action",
            "names",
            "sample",
            "unknown",
            "quarter",
            "week");

    final long seed;
    private final Random random;
    /** Whether most links cascade, from the first table down. */
    private final boolean isDeep;

    /** @param type integer, int, smallint, varchar(10), varchar(3) or numeric(6,2) */
    record ColumnCase(String name, String type, boolean isRequired, String defaultValue, boolean isGenerated) {
        boolean isText() {
            return type.startsWith("varchar");
        }

        boolean isWhole() {
            return type.equals("integer") || type.equals("int") || type.equals("smallint");
        }

        /** The default as SQL writes it, as an expression that comes to it. */
        String defaultSql() {
            if (isText()) {
                return "'" + defaultValue + "'";
            }
            return isWhole() && Integer.parseInt(defaultValue) % 2 == 0
                    ? "(" + (Integer.parseInt(defaultValue) - 1) + " + 1)"
                    : defaultValue;
        }
    }

    record KeyCase(String name, List<Integer> columns) {}

    record RuleCase(String name, String condition) {}

    /** @param nullColumns the columns that set null on delete writes; empty for all */
    record LinkCase(
            String name,
            int child,
            List<Integer> columns,
            int parent,
            List<Integer> parentColumns,
            boolean isToPrimaryKey,
            String onDelete,
            String onUpdate,
            boolean isFull,
            List<Integer> nullColumns) {}

    static final class TableCase {
        final String name;
        final List<ColumnCase> columns = new ArrayList<>();
        KeyCase primaryKey;
        final List<KeyCase> uniqueKeys = new ArrayList<>();
        final List<RuleCase> rules = new ArrayList<>();
        final List<List<String>> rows = new ArrayList<>();

        TableCase(String name) {
            this.name = name;
        }

        List<String> names(List<Integer> places) {
            return places.stream().map(place -> columns.get(place).name()).toList();
        }
    }

    RandomProposal(long seed) {
        this.seed = seed;
        random = new Random(seed * 0x9E3779B97F4A7C15L);
        isDirty = chance(0.4);
        isDeep = chance(0.8);
        hasWordsForNames = chance(0.4);
        int count = (isDeep ? 4 : 2) + random.nextInt(isDeep ? 3 : 5);
        for (int i = 0; i < count; i++) {
            tables.add(table(hasWordsForNames ? TABLE_WORDS.get(i) : "t" + i));
        }
        for (int i = 0; i < count; i++) {
            addLinks(i);
        }
        declared = new ArrayList<>(links);
        hasFullMatch = links.stream().anyMatch(LinkCase::isFull);
        hasColumnList = links.stream().anyMatch(link -> !link.nullColumns().isEmpty());
        for (int i = 0; i < count; i++) {
            addRows(i);
        }
        if (!isDirty) {
            dropOrphans();
        }
        int proposed = 3 + random.nextInt(4);
        for (int i = 0; i < proposed; i++) {
            changes.add(change());
        }
    }

    /** A case whose links may be declared in any order, whichever tables they belong to. */
    static RandomProposal inAnyOrder(long seed) {
        RandomProposal proposal = new RandomProposal(seed);
        if (seed % 2 == 0) {
            java.util.Collections.shuffle(proposal.declared, new Random(seed));
        }
        return proposal;
    }

    private boolean chance(double probability) {
        return random.nextDouble() < probability;
    }

    private <T> T any(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    private TableCase table(String name) {
        TableCase table = new TableCase(name);
        double shape = random.nextDouble();
        if (shape < 0.5) {
            boolean isGenerated = chance(0.2);
            String type = isGenerated || chance(0.75) ? "integer" : "int";
            table.columns.add(new ColumnCase(named("id", table), type, true, null, isGenerated));
            table.primaryKey = new KeyCase("primary_key", List.of(0));
        } else if (shape < 0.65) {
            table.columns.add(new ColumnCase(named("code", table), "varchar(10)", true, null, false));
            table.primaryKey = new KeyCase("primary_key", List.of(0));
        } else {
            table.columns.add(new ColumnCase(named("a", table), "integer", true, null, false));
            table.columns.add(
                    new ColumnCase(named("b", table), chance(0.7) ? "integer" : "varchar(10)", true, null, false));
            table.primaryKey = new KeyCase("primary_key", List.of(0, 1));
        }
        if (chance(0.4)) {
            int place = table.columns.size();
            table.columns.add(new ColumnCase(
                    named("u", table), chance(0.7) ? "integer" : "varchar(10)", chance(0.4), null, false));
            boolean isWide = chance(0.25);
            if (isWide) {
                table.columns.add(new ColumnCase(named("u2", table), "integer", chance(0.4), null, false));
            }
            table.uniqueKeys.add(new KeyCase("u_" + name, isWide ? List.of(place, place + 1) : List.of(place)));
        }
        if (chance(0.5)) {
            table.columns.add(new ColumnCase("v", "integer", chance(0.3), chance(0.4) ? "2" : null, false));
            if (chance(0.6)) {
                table.rules.add(new RuleCase("c_" + name + "_low", "v >= 0"));
            }
            if (chance(0.3)) {
                table.rules.add(new RuleCase("c_" + name + "_high", "v < 7"));
            }
        }
        if (chance(0.3)) {
            table.columns.add(new ColumnCase(named("n", table), "numeric(6,2)", false, "1.50", false));
        }
        return table;
    }

    private String named(String plain, TableCase table) {
        if (!hasWordsForNames) {
            return plain;
        }
        String word = any(COLUMN_WORDS);
        return table.columns.stream().anyMatch(column -> column.name().equals(word)) ? plain : word;
    }

    private void addLinks(int place) {
        int count = (chance(0.4) ? 1 : 0) + (chance(0.25) ? 1 : 0) + (place > 0 ? 1 : 0);
        for (int i = 0; i < count; i++) {
            boolean isToNeighbour = i == 0 && place > 0 && chance(isDeep ? 0.95 : 0.7);
            int parentPlace = isToNeighbour ? place - 1 : chance(0.3) ? place : random.nextInt(tables.size());
            TableCase child = tables.get(place);
            TableCase parent = tables.get(parentPlace);
            boolean isToPrimaryKey = parent.uniqueKeys.isEmpty() || chance(0.65);
            KeyCase key = isToPrimaryKey ? parent.primaryKey : any(parent.uniqueKeys);
            List<Integer> columns = new ArrayList<>();
            for (int parentColumn : key.columns()) {
                columns.add(childColumn(
                        child, parent.columns.get(parentColumn).type(), columns, key.columns(), parentPlace == place));
            }
            if (parentPlace == place && columns.equals(key.columns())) {
                continue;
            }
            boolean isFull = chance(0.06) && columns.size() > 1;
            double cascades = isDeep ? isToNeighbour ? 0.95 : 0.7 : 0.25;
            String onDelete = chance(cascades) ? "cascade" : any(ACTIONS);
            String onUpdate = chance(cascades) ? "cascade" : any(ACTIONS);
            List<Integer> nullColumns =
                    columns.size() > 1 && onDelete.startsWith("set") && chance(0.1) ? List.of(any(columns)) : List.of();
            links.add(new LinkCase(
                    "l" + links.size(),
                    place,
                    columns,
                    parentPlace,
                    key.columns(),
                    isToPrimaryKey,
                    onDelete,
                    onUpdate,
                    isFull,
                    nullColumns));
        }
    }

    private int childColumn(TableCase child, String type, List<Integer> taken, List<Integer> key, boolean isSelf) {
        for (int i = 0; i < child.columns.size(); i++) {
            boolean fits = child.columns.get(i).type().equals(type) && !taken.contains(i);
            boolean isOwnKey = isSelf && key.contains(i);
            boolean isKey = child.primaryKey.columns().contains(i);
            if (fits && chance(isOwnKey ? 0.08 : isKey ? isDeep ? 0.6 : 0.3 : 0.12)) {
                return i;
            }
        }
        String defaultValue = chance(0.5) ? value(type) : null;
        String narrow = type.equals("varchar(10)") && chance(0.2)
                ? "varchar(3)"
                : type.equals("integer") && chance(0.1) ? "smallint" : type;
        child.columns.add(
                new ColumnCase(named("f" + child.columns.size(), child), narrow, chance(0.2), defaultValue, false));
        return child.columns.size() - 1;
    }

    private String value(String type) {
        return switch (type) {
            case "integer", "int", "smallint" -> String.valueOf(1 + random.nextInt(8));
            case "numeric(6,2)" -> random.nextInt(4) + ".50";
            default -> String.valueOf((char) ('a' + random.nextInt(5)));
        };
    }

    private void addRows(int place) {
        TableCase table = tables.get(place);
        int count = 4 + random.nextInt(12);
        for (int i = 0; i < count; i++) {
            List<String> row = new ArrayList<>();
            for (ColumnCase column : table.columns) {
                row.add(!column.isRequired() && chance(0.15) ? null : value(column.type()));
            }
            for (LinkCase link : links) {
                if (link.child() == place && chance(0.93)) {
                    pointAtParent(link, row, place);
                }
            }
            if (isFree(table, row)) {
                table.rows.add(row);
            }
        }
    }

    private void pointAtParent(LinkCase link, List<String> row, int place) {
        List<List<String>> parents = tables.get(link.parent()).rows;
        if (parents.isEmpty()) {
            return;
        }
        List<String> parent = any(parents);
        boolean touchesKey = link.columns().stream()
                .anyMatch(column -> tables.get(place).primaryKey.columns().contains(column));
        for (int i = 0; i < link.columns().size(); i++) {
            String value = parent.get(link.parentColumns().get(i));
            if (value != null && (!touchesKey || chance(0.8))) {
                row.set(link.columns().get(i), value);
            }
        }
    }

    private static boolean isFree(TableCase table, List<String> row) {
        List<KeyCase> keys = new ArrayList<>(table.uniqueKeys);
        keys.add(table.primaryKey);
        for (KeyCase key : keys) {
            for (List<String> other : table.rows) {
                boolean isSame = key.columns().stream()
                        .allMatch(column ->
                                row.get(column) != null && row.get(column).equals(other.get(column)));
                if (isSame) {
                    return false;
                }
            }
        }
        return true;
    }

    private void dropOrphans() {
        boolean drops = true;
        while (drops) {
            drops = false;
            for (LinkCase link : links) {
                Set<List<String>> keys = new HashSet<>();
                tables.get(link.parent()).rows.forEach(row -> keys.add(picked(row, link.parentColumns())));
                drops |= tables.get(link.child())
                        .rows
                        .removeIf(row -> isOrphan(link, picked(row, link.columns()), keys));
            }
        }
        for (TableCase table : tables) {
            int v = table.columns.stream().map(ColumnCase::name).toList().indexOf("v");
            if (!table.rules.isEmpty()
                    && table.rules.get(table.rules.size() - 1).name().endsWith("_high")) {
                table.rows.removeIf(row -> row.get(v) != null && Integer.parseInt(row.get(v)) >= 7);
            }
        }
    }

    private static boolean isOrphan(LinkCase link, List<String> key, Set<List<String>> keys) {
        if (key.contains(null)) {
            return link.isFull() && key.stream().anyMatch(part -> part != null);
        }
        return !keys.contains(key);
    }

    private static List<String> picked(List<String> row, List<Integer> columns) {
        List<String> values = new ArrayList<>();
        columns.forEach(column -> values.add(row.get(column)));
        return values;
    }

    private String literal(ColumnCase column) {
        if (!column.isRequired() && chance(0.12)) {
            return "NULL";
        }
        String value = value(column.type());
        return column.isText() ? "'" + value + "'" : value;
    }

    private String change() {
        TableCase table = isDeep && chance(0.9) ? tables.get(random.nextInt(2)) : any(tables);
        if (table.rows.isEmpty()) {
            table = any(tables);
        }
        double kind = random.nextDouble();
        if (kind < 0.46) {
            return "DELETE FROM " + table.name + where(table);
        } else if (kind < 0.9) {
            return update(table);
        }
        return insert(table);
    }

    private String where(TableCase table) {
        double kind = random.nextDouble();
        if (kind < 0.05) {
            return "";
        }
        if (kind < (isDeep ? 0.88 : 0.65)) {
            List<String> parts = new ArrayList<>();
            List<String> row = table.rows.isEmpty() ? null : rowWithChildren(table);
            for (int column : table.primaryKey.columns()) {
                String value = row == null ? value(table.columns.get(column).type()) : row.get(column);
                boolean isText = table.columns.get(column).isText();
                parts.add(table.columns.get(column).name() + " = " + (isText ? "'" + value + "'" : value));
            }
            return " WHERE " + String.join(" AND ", parts);
        }
        ColumnCase column = any(table.columns);
        String value = value(column.type());
        String quoted = column.isText() ? "'" + value + "'" : value;
        return switch (random.nextInt(4)) {
            case 0 -> " WHERE " + column.name() + " = " + quoted;
            case 1 -> " WHERE " + column.name() + " < " + quoted;
            case 2 -> " WHERE " + column.name() + " IS NULL OR " + column.name() + " >= " + quoted;
            default -> {
                TableCase other = any(tables);
                List<ColumnCase> fitting = other.columns.stream()
                        .filter(c -> c.type().equals(column.type()))
                        .toList();
                yield fitting.isEmpty()
                        ? " WHERE " + column.name() + " > " + quoted
                        : " WHERE " + column.name() + " IN (SELECT "
                                + any(fitting).name() + " FROM " + other.name + ")";
            }
        };
    }

    /** A row that others point at, if there is one. */
    private List<String> rowWithChildren(TableCase table) {
        List<String> row = any(table.rows);
        for (int tries = 0; tries < 6; tries++) {
            List<String> chosen = row;
            boolean hasChildren = links.stream()
                    .filter(link -> tables.get(link.parent()) == table)
                    .anyMatch(link -> tables.get(link.child()).rows.stream()
                            .anyMatch(child ->
                                    picked(child, link.columns()).equals(picked(chosen, link.parentColumns()))));
            if (hasChildren) {
                return row;
            }
            row = any(table.rows);
        }
        return row;
    }

    private String update(TableCase table) {
        List<Integer> keys = new ArrayList<>(table.primaryKey.columns());
        table.uniqueKeys.forEach(key -> keys.addAll(key.columns()));
        Set<String> set = new TreeSet<>();
        int count = chance(0.25) ? 2 : 1;
        Set<Integer> done = new HashSet<>();
        for (int i = 0; i < count; i++) {
            int place = chance(isDeep ? 0.85 : 0.65) ? any(keys) : random.nextInt(table.columns.size());
            if (!done.add(place)) {
                continue;
            }
            ColumnCase column = table.columns.get(place);
            if (column.isWhole() && chance(0.3)) {
                set.add(column.name() + " = " + column.name() + any(List.of(" + 1", " + 10", " - 1")));
            } else {
                set.add(column.name() + " = " + literalOfNew(column));
            }
        }
        return "UPDATE " + table.name + " SET " + String.join(", ", set) + where(table);
    }

    private String insert(TableCase table) {
        List<String> names = new ArrayList<>();
        List<ColumnCase> columns = new ArrayList<>();
        for (ColumnCase column : table.columns) {
            boolean isLeftOut = column.isGenerated() ? chance(0.6) : !column.isRequired() && chance(0.25);
            if (!isLeftOut) {
                columns.add(column);
                names.add(column.name());
            }
        }
        if (columns.isEmpty()) {
            columns.add(table.columns.get(0));
            names.add(columns.get(0).name());
        }
        List<String> rows = new ArrayList<>();
        int count = chance(0.3) ? 2 : 1;
        for (int i = 0; i < count; i++) {
            rows.add("("
                    + String.join(", ", columns.stream().map(this::literalOfNew).toList()) + ")");
        }
        return "INSERT INTO " + table.name + " (" + String.join(", ", names) + ") VALUES " + String.join(", ", rows);
    }

    private String literalOfNew(ColumnCase column) {
        if (column.type().equals("varchar(10)") && chance(0.08)) {
            return "'abcdef'";
        } else if (column.type().startsWith("int") && chance(0.03)) {
            return "70000";
        }
        if (column.isRequired() && column.isWhole() && chance(0.6)) {
            return String.valueOf(10 + random.nextInt(20));
        }
        return literal(column);
    }

    /** What occurs in it, for the quotas. */
    Map<String, Boolean> traits() {
        Map<String, Boolean> traits = new java.util.TreeMap<>();
        traits.put("self", links.stream().anyMatch(link -> link.child() == link.parent()));
        traits.put("composite", links.stream().anyMatch(link -> link.columns().size() > 1));
        traits.put("unique-key target", links.stream().anyMatch(link -> !link.isToPrimaryKey()));
        traits.put(
                "circle",
                links.stream()
                        .anyMatch(link -> link.child() != link.parent()
                                && links.stream()
                                        .anyMatch(back ->
                                                back.child() == link.parent() && back.parent() == link.child())));
        traits.put(
                "two links to one table",
                links.stream()
                        .anyMatch(link -> links.stream()
                                .anyMatch(other -> !other.name().equals(link.name())
                                        && other.child() == link.child()
                                        && other.parent() == link.parent())));
        traits.put(
                "generated key", tables.stream().anyMatch(t -> t.columns.get(0).isGenerated()));
        traits.put("rule", tables.stream().anyMatch(t -> !t.rules.isEmpty()));
        traits.put("dirty", isDirty);
        traits.put("match full", hasFullMatch);
        traits.put("set null of some columns", hasColumnList);
        traits.put("words for names", hasWordsForNames);
        traits.put("links declared in another order", !declared.equals(links));
        traits.put("narrower child", links.stream().anyMatch(this::isNarrower));
        return traits;
    }

    /** Whether a link joins whole numbers of two sizes. */
    boolean joinsNumbersOfTwoSizes() {
        return links.stream()
                .anyMatch(link -> isNarrower(link)
                        && link.columns().stream()
                                .anyMatch(column -> tables.get(link.child())
                                        .columns
                                        .get(column)
                                        .type()
                                        .equals("smallint")));
    }

    private boolean isNarrower(LinkCase link) {
        for (int i = 0; i < link.columns().size(); i++) {
            String child =
                    tables.get(link.child()).columns.get(link.columns().get(i)).type();
            if (!child.equals(tables.get(link.parent())
                    .columns
                    .get(link.parentColumns().get(i))
                    .type())) {
                return true;
            }
        }
        return false;
    }

    /** Tables, links and rows, for whoever looks into a difference. */
    String describe() {
        StringBuilder words = new StringBuilder();
        for (TableCase table : tables) {
            words.append(table.name)
                    .append(table.columns.stream()
                            .map(c -> c.name() + " " + c.type() + (c.isRequired() ? "!" : "")
                                    + (c.defaultValue() == null ? "" : "=" + c.defaultValue()))
                            .toList())
                    .append(" key ")
                    .append(table.names(table.primaryKey.columns()))
                    .append(table.uniqueKeys.stream()
                            .map(k -> table.names(k.columns()))
                            .toList())
                    .append(table.rules.stream().map(RuleCase::condition).toList())
                    .append("\n  ")
                    .append(table.rows)
                    .append('\n');
        }
        for (LinkCase link : links) {
            words.append(RealServer.linkOf(this, link, true))
                    .append(" IN ")
                    .append(tables.get(link.child()).name)
                    .append('\n');
        }
        return words.toString();
    }
}
