package taxiomet.charters.yaml;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Column;
import taxiomet.charter.Condition;
import taxiomet.charter.Expression;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.NearestWord;
import taxiomet.charter.NotRead;
import taxiomet.charter.Owner;
import taxiomet.charter.Problem.Kind;
import taxiomet.charter.Rule;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.charter.Total;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.charters.sql.ExpressionReader;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Reads one table: at first all but its links and rules, which need the other tables. */
final class TableReader {
    private static final List<String> KEYS = List.of(
            "schema",
            "rows",
            "columns",
            "primary_key",
            "unique",
            "foreign_keys",
            "rules",
            "alike",
            "label",
            "totals",
            "area",
            "owner",
            "not_read");

    private final Problems problems;
    private final Scalar name;
    private final Fields fields;
    private final Table table;
    private final List<NotRead> notRead = new ArrayList<>();

    /** Reads expressions, and how they are noted when they cannot be read. */
    private interface Reading<T> {
        T read() throws ExpressionException;
    }

    TableReader(Problems problems, Scalar name, MapNode map, FilesReader files) {
        this.problems = problems;
        this.name = name;
        this.fields = new Fields(problems, map, "table `" + name.text() + "`", KEYS, List.of());
        RowsPlace rows = fields.require("rows").map(files::read).orElse(null);
        List<Column> columns = columns();
        List<String> names = columns.stream().map(Column::name).toList();
        Optional<Key> primary = fields.find("primary_key").map(node -> primaryKey(node, names));
        this.table = new Table(
                name.text(),
                fields.text("schema"),
                rows instanceof DatabaseRows inDatabase
                        ? inDatabase.inOrderOf(primary.map(Key::columns).orElse(names))
                        : rows,
                columns,
                primary,
                uniqueKeys(names),
                List.of(),
                List.of(),
                new AlikeReader(problems, name.text(), names).read(fields),
                known(fields.texts("label"), names),
                List.of(),
                fields.text("area"),
                fields.find("owner").flatMap(owner -> owner(owner, names)));
        notRead.addAll(new NotReadReader(problems).read(fields, Optional.of(name.text())));
    }

    /** What was declared here and could not be read; complete when the rules have been read. */
    List<NotRead> notRead() {
        return notRead;
    }

    /** The table without links, rules and totals. */
    Table table() {
        return table;
    }

    /**
     * The table with its links.
     *
     * @param comparesAll whether values of all types can be compared, as SQLite does
     */
    Table withLinks(Map<String, Table> tables, boolean comparesAll) {
        List<ForeignKey> links = new ArrayList<>();
        for (Entry link : fields.named("foreign_keys")) {
            new LinkReader(problems, tables, table, link.key(), comparesAll)
                    .read(link.value())
                    .map(found -> found.where(where(link.value())
                            .flatMap(text -> reading(
                                    text, "`where` of link `" + found.name() + "`", () -> condition(text, tables)))))
                    .ifPresent(links::add);
        }
        return whole(conditioned(tables), links, List.of(), List.of());
    }

    /** The whole table, given all tables with their links. */
    Table withRules(Map<String, Table> linked) {
        Set<String> declared = new LinkedHashSet<>();
        fields.named("foreign_keys").forEach(link -> declared.add(link.key().text()));
        ExpressionReader[] reader = new ExpressionReader[1];
        List<Rule> rules = new ArrayList<>();
        for (Entry rule : fields.named("rules")) {
            reader[0] = reader(reader[0], linked, declared);
            rule(rule.key(), rule.value(), reader[0]).ifPresent(rules::add);
        }
        List<Total> totals = new ArrayList<>();
        for (Scalar total : fields.texts("totals")) {
            reader[0] = reader(reader[0], linked, declared);
            ExpressionReader expressions = reader[0];
            reading(total, "a total", () -> expressions.readNumber(total.text()))
                    .ifPresent(value -> totals.add(new Total(total.text(), value)));
        }
        Table withLinks = linked.get(table.name());
        return whole(withLinks.uniqueKeys(), withLinks.links(), rules, totals);
    }

    /** The unique keys, each with the condition that says which rows it is for. */
    private List<Key> conditioned(Map<String, Table> tables) {
        List<Key> keys = new ArrayList<>();
        List<Entry> declared = fields.named("unique");
        for (int i = 0; i < table.uniqueKeys().size(); i++) {
            Key key = table.uniqueKeys().get(i);
            Optional<Scalar> where = where(declared.get(i).value());
            try {
                keys.add(where.isEmpty() ? key : key.where(Optional.of(condition(where.get(), tables))));
            } catch (ExpressionException e) {
                if (problems.isLenient()) {
                    notRead.add(new NotRead(
                            NotRead.What.KEY,
                            Optional.of(name.text()),
                            key.name(),
                            "UNIQUE (" + String.join(", ", key.columns()) + ") WHERE "
                                    + where.orElseThrow().text(),
                            e.words(),
                            problems.place(declared.get(i).key()),
                            key.severity()));
                } else {
                    note(where.orElseThrow(), "`where` of unique key `" + key.name() + "`", e);
                }
            }
        }
        return keys;
    }

    private Condition condition(Scalar text, Map<String, Table> tables) throws ExpressionException {
        ExpressionReader reader = new ExpressionReader(table.name(), tables, Set.of());
        return new Condition(text.text().strip(), reader.readOwnCondition(text.text()));
    }

    private static Optional<Scalar> where(Node declared) {
        if (!(declared instanceof MapNode map)) {
            return Optional.empty();
        }
        return map.entries().stream()
                .filter(entry -> entry.key().text().equals("where"))
                .map(Entry::value)
                .filter(Scalar.class::isInstance)
                .map(Scalar.class::cast)
                .findFirst();
    }

    private Table whole(List<Key> unique, List<ForeignKey> links, List<Rule> rules, List<Total> totals) {
        return new Table(
                table.name(),
                table.schema(),
                table.rows(),
                table.columns(),
                table.primaryKey(),
                unique,
                links,
                rules,
                table.alike(),
                table.label(),
                totals,
                table.area(),
                table.owner());
    }

    /** The SQL parser takes time to load: it is there only when a table needs it. */
    private ExpressionReader reader(ExpressionReader existing, Map<String, Table> linked, Set<String> declared) {
        return existing != null ? existing : new ExpressionReader(table.name(), linked, declared);
    }

    private List<Column> columns() {
        List<Column> columns = new ArrayList<>();
        fields.require("columns");
        List<Entry> named = fields.named("columns");
        if (named.isEmpty()
                && fields.find("columns").filter(MapNode.class::isInstance).isPresent()) {
            problems.form(
                    fields.find("columns").get(),
                    "table `" + name.text() + "` declares no column",
                    "declare at least one");
        }
        named.forEach(column -> columns.add(new ColumnReader(problems, column.key()).read(column.value())));
        return columns;
    }

    private Key primaryKey(Node node, List<String> names) {
        if (node instanceof MapNode map) {
            Fields key = new Fields(problems, map, "`primary_key`", List.of("name", "columns", "severity"), List.of());
            key.require("columns");
            return new Key(
                    Key.PRIMARY,
                    known(key.texts("columns"), names),
                    true,
                    false,
                    Optional.empty(),
                    key.text("name"),
                    severity(key));
        }
        List<Scalar> columns = Fields.texts(problems, "primary_key", node, false);
        return Key.of(Key.PRIMARY, known(columns, names), true);
    }

    private List<Key> uniqueKeys(List<String> names) {
        List<Key> keys = new ArrayList<>();
        for (Entry entry : fields.named("unique")) {
            Scalar key = entry.key();
            if (entry.value() instanceof MapNode map) {
                Fields longForm = new Fields(
                        problems,
                        map,
                        "unique key `" + key.text() + "`",
                        List.of("columns", "nulls", "where", "severity"),
                        List.of());
                longForm.require("columns");
                longForm.scalar("where", "a condition");
                boolean nullsAreEqual =
                        longForm.word("nulls", "distinct", "equal").equals("equal");
                keys.add(new Key(
                        key.text(),
                        known(longForm.texts("columns"), names),
                        false,
                        nullsAreEqual,
                        Optional.empty(),
                        Optional.empty(),
                        severity(longForm)));
            } else {
                List<Scalar> columns = Fields.texts(problems, key.text(), entry.value(), false);
                keys.add(Key.of(key.text(), known(columns, names), false));
            }
        }
        return keys;
    }

    /** Names of columns, those that are not there or stand twice noted and left out. */
    private List<String> known(List<Scalar> columns, List<String> names) {
        return knownColumns(problems, name.text(), columns, names);
    }

    static List<String> knownColumns(Problems problems, String table, List<Scalar> columns, List<String> names) {
        List<String> known = new ArrayList<>();
        for (Scalar column : columns) {
            if (!names.contains(column.text())) {
                problems.unknown(column, Kind.MEANING, "table `" + table + "` has no column", column.text(), names);
            } else if (known.contains(column.text())) {
                problems.meaning(column, "column `" + column.text() + "` stands here twice", "name it once");
            } else {
                known.add(column.text());
            }
        }
        return known;
    }

    static Severity severity(Fields fields) {
        String word = fields.word("severity", "error", "warning");
        return Severity.valueOf(word.toUpperCase(Locale.ROOT));
    }

    /** A column by its name, or a text that says so: a slip in a column's name must not become somebody. */
    private Optional<Owner> owner(Node node, List<String> names) {
        if (node instanceof MapNode map) {
            Fields owner = new Fields(problems, map, "`owner`", List.of("text"), List.of());
            owner.require("text");
            return owner.text("text").map(Owner.Named::new);
        }
        if (!(node instanceof Scalar column) || column.isNull()) {
            problems.form(node, "`owner` is a column, or {text: a name}, not " + node.words(), "");
            return Optional.empty();
        }
        if (names.contains(column.text())) {
            return Optional.of(new Owner.InColumn(column.text()));
        }
        String near = NearestWord.of(column.text(), names)
                .map(nearest -> "did you mean `" + nearest + "`? ")
                .orElse("");
        problems.meaning(
                column,
                "`owner` names no column of table `" + name.text() + "`: `" + column.text() + "`",
                near + "One owner for all rows is written `owner: {text: " + column.text() + "}`");
        return Optional.empty();
    }

    private Optional<Rule> rule(Scalar rule, Node node, ExpressionReader reader) {
        if (node instanceof MapNode map) {
            Fields longForm = new Fields(
                    problems, map, "rule `" + rule.text() + "`", List.of("condition", "severity"), List.of());
            longForm.require("condition");
            Severity severity = severity(longForm);
            return longForm.scalar("condition", "a condition").flatMap(text -> rule(rule, text, reader, severity));
        }
        if (node instanceof Scalar text && !text.isNull()) {
            return rule(rule, text, reader, Severity.ERROR);
        }
        problems.form(node, "rule `" + rule.text() + "` is a condition, not " + node.words(), "");
        return Optional.empty();
    }

    private Optional<Rule> rule(Scalar rule, Scalar text, ExpressionReader reader, Severity severity) {
        Optional<Expression> condition;
        try {
            condition = Optional.of(reader.readCondition(text.text()));
        } catch (ExpressionException e) {
            if (problems.isLenient()) {
                notRead.add(new NotRead(
                        NotRead.What.RULE,
                        Optional.of(name.text()),
                        rule.text(),
                        "CHECK (" + text.text() + ")",
                        e.words(),
                        problems.place(rule),
                        severity));
                return Optional.empty();
            }
            condition = note(text, "rule `" + rule.text() + "`", e);
        }
        return condition.map(c -> new Rule(rule.text(), text.text().strip(), c, severity));
    }

    private <T> Optional<T> reading(Scalar at, String what, Reading<T> reading) {
        try {
            return Optional.of(reading.read());
        } catch (ExpressionException e) {
            return note(at, what, e);
        }
    }

    private <T> Optional<T> note(Scalar at, String what, ExpressionException e) {
        if (e.unknownWord() != null) {
            problems.unknown(at, Kind.MEANING, what + ": " + e.getMessage(), e.unknownWord(), e.knownWords());
        } else {
            problems.meaning(at, what + ": " + e.getMessage(), "");
        }
        return Optional.empty();
    }
}
