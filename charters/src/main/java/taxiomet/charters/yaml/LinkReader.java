package taxiomet.charters.yaml;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Key;
import taxiomet.charter.Problem.Kind;
import taxiomet.charter.Table;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Reads one foreign key. */
final class LinkReader {
    private static final List<String> KEYS = List.of(
            "columns",
            "references",
            "match",
            "on_delete",
            "on_update",
            "deferrable",
            "enforced",
            "where",
            "children",
            "acyclic",
            "severity");
    private static final List<String> ACTIONS = List.of("no action", "restrict", "cascade", "set null", "set default");

    private final Problems problems;
    private final Map<String, Table> tables;
    private final Table child;
    private final Scalar name;
    private final boolean comparesAll;

    /** The parent's end of a link. */
    private record Parent(Table table, List<String> columns) {}

    LinkReader(Problems problems, Map<String, Table> tables, Table child, Scalar name, boolean comparesAll) {
        this.comparesAll = comparesAll;
        this.problems = problems;
        this.tables = tables;
        this.child = child;
        this.name = name;
    }

    /** The link; empty, with problems noted, when it has no two ends. */
    Optional<ForeignKey> read(Node node) {
        if (!(node instanceof MapNode map)) {
            problems.form(
                    node,
                    "link `" + name.text() + "` is a mapping, not " + node.words(),
                    "give it `columns` and `references`");
            return Optional.empty();
        }
        Fields fields = new Fields(problems, map, "link `" + name.text() + "`", KEYS, List.of());
        fields.require("columns");
        List<Scalar> written = fields.texts("columns");
        List<String> columns = TableReader.knownColumns(problems, child.name(), written, names(child));
        Optional<Parent> parent = fields.require("references").flatMap(this::parent);
        Match match =
                Match.valueOf(fields.word("match", "simple", "full", "partial").toUpperCase(Locale.ROOT));
        Action onDelete = action(fields, "on_delete", columns);
        Action onUpdate = action(fields, "on_update", columns);
        Deferrable deferrable = deferrable(fields);
        boolean isEnforced = fields.truth("enforced", true);
        fields.scalar("where", "a condition");
        var children = fields.scalar("children", "a range").flatMap(r -> ColumnReader.range(problems, "children", r));
        boolean isAcyclic = acyclic(fields, parent);
        var severity = TableReader.severity(fields);
        if (parent.isEmpty() || columns.size() != written.size() || columns.isEmpty()) {
            return Optional.empty();
        }
        if (!fits(fields, columns, parent.get())) {
            return Optional.empty();
        }
        return Optional.of(new ForeignKey(
                name.text(),
                child.name(),
                columns,
                parent.get().table().name(),
                parent.get().columns(),
                match,
                onDelete,
                onUpdate,
                deferrable,
                isEnforced,
                Optional.empty(),
                children,
                isAcyclic,
                severity));
    }

    private boolean acyclic(Fields fields, Optional<Parent> parent) {
        boolean isAcyclic = fields.truth("acyclic", false);
        boolean isOther = parent.isPresent() && !parent.get().table().name().equals(child.name());
        if (isAcyclic && isOther) {
            problems.meaning(
                    fields.find("acyclic").orElseThrow(),
                    "`acyclic` is for a link of a table to itself, and link `" + name.text() + "` points at `"
                            + parent.get().table().name() + "`",
                    "leave it out");
        }
        return isAcyclic && !isOther;
    }

    private static List<String> names(Table table) {
        return table.columns().stream().map(Column::name).toList();
    }

    private Optional<Parent> parent(Node node) {
        if (node instanceof Scalar scalar && !scalar.isNull()) {
            return table(scalar).flatMap(table -> {
                Optional<Key> key = table.primaryKey();
                if (key.isEmpty()) {
                    problems.meaning(
                            scalar,
                            "link `" + name.text() + "` needs a primary key in table `" + table.name()
                                    + "`, which declares none",
                            "declare it there, or name the columns: `references: {" + table.name() + ": [...]}`");
                }
                return key.filter(k -> !k.columns().isEmpty()).map(k -> new Parent(table, k.columns()));
            });
        }
        if (node instanceof MapNode map && map.entries().size() == 1) {
            Entry only = map.entries().get(0);
            List<Scalar> written = Fields.texts(problems, "references", only.value(), false);
            return table(only.key()).flatMap(table -> {
                List<String> columns = TableReader.knownColumns(problems, table.name(), written, names(table));
                return columns.size() == written.size() && !columns.isEmpty()
                        ? Optional.of(new Parent(table, columns))
                        : Optional.empty();
            });
        }
        problems.form(
                node,
                "`references` names one table, not " + (node instanceof MapNode ? "several or none" : node.words()),
                "write `references: keeper` or `references: {keeper: [other, columns]}`");
        return Optional.empty();
    }

    private Optional<Table> table(Scalar written) {
        Table table = tables.get(written.text());
        if (table == null) {
            problems.unknown(written, Kind.MEANING, "there is no table", written.text(), tables.keySet());
        }
        return Optional.ofNullable(table);
    }

    private boolean fits(Fields fields, List<String> columns, Parent parent) {
        Node at = fields.find("columns").orElseThrow();
        if (columns.size() != parent.columns().size()) {
            problems.meaning(
                    at,
                    "link `" + name.text() + "` has " + counted(columns) + ", and the key of `"
                            + parent.table().name() + "` that it points at has " + counted(parent.columns()),
                    "both ends need as many");
            return false;
        }
        boolean isFitting = true;
        // SQLite compares whatever it is given: the review of a schema says what others cannot.
        if (problems.isLenient() || comparesAll) {
            return true;
        }
        for (int i = 0; i < columns.size(); i++) {
            ColumnType childType = child.column(columns.get(i)).type();
            ColumnType parentType =
                    parent.table().column(parent.columns().get(i)).type();
            if (!childType.family().isComparableWith(parentType.family())) {
                problems.meaning(
                        at,
                        "link `" + name.text() + "`: `" + columns.get(i) + "` is " + childType + " and `"
                                + parent.table().name() + "." + parent.columns().get(i) + "` is " + parentType
                                + ", which can never be equal",
                        "give both ends types of one family");
                isFitting = false;
            }
        }
        return isFitting;
    }

    private static String counted(List<String> columns) {
        return columns.size() + (columns.size() == 1 ? " column" : " columns") + " (" + String.join(", ", columns)
                + ")";
    }

    private Action action(Fields fields, String key, List<String> linkColumns) {
        Optional<Node> node = fields.find(key);
        if (node.isPresent() && node.get() instanceof MapNode map) {
            Fields listed = new Fields(problems, map, "`" + key + "`", List.of("set null", "set default"), List.of());
            if (map.entries().size() != 1) {
                problems.form(map, "`" + key + "` names one action", "");
                return Action.NONE;
            }
            String action = map.entries().get(0).key().text();
            List<Scalar> columns = listed.texts(action);
            List<String> known = new ArrayList<>();
            for (Scalar column : columns) {
                if (linkColumns.contains(column.text())) {
                    known.add(column.text());
                } else {
                    problems.unknown(
                            column,
                            Kind.MEANING,
                            "link `" + name.text() + "` has no column",
                            column.text(),
                            linkColumns);
                }
            }
            return new Action(actionName(action), known);
        }
        return new Action(actionName(fields.word(key, ACTIONS.toArray(new String[0]))), List.of());
    }

    private static ActionName actionName(String word) {
        for (ActionName action : ActionName.values()) {
            if (action.sql().equals(word)) {
                return action;
            }
        }
        return ActionName.NO_ACTION;
    }

    private Deferrable deferrable(Fields fields) {
        Optional<Scalar> value = fields.scalar("deferrable", "no, immediate or deferred");
        if (value.isEmpty() || Fields.truth(value.get()).filter(t -> !t).isPresent()) {
            return Deferrable.NO;
        }
        return Deferrable.valueOf(
                fields.word("deferrable", "no", "immediate", "deferred").toUpperCase(Locale.ROOT));
    }
}
