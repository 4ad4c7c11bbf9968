package taxiomet.charters.csvw;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charters.yaml.DraftNode;
import taxiomet.charters.yaml.Node;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** One table of the metadata on its way into a charter. */
final class TableMetadata {
    private static final String DEFAULT_DELIMITER = ",";

    private final MetadataReader reader;
    private final MapNode node;
    private final String url;
    private final String name;
    private final Optional<MapNode> schema;
    private final List<MapNode> levels;
    /** By their names in the metadata, in the order of the file. */
    private final Map<String, ColumnMetadata> columns = new LinkedHashMap<>();

    /** @param levels what the columns inherit from, the nearest first */
    TableMetadata(
            MetadataReader reader,
            MapNode node,
            String url,
            String name,
            Optional<MapNode> schema,
            List<MapNode> levels) {
        this.reader = reader;
        this.node = node;
        this.url = url;
        this.name = name;
        this.schema = schema;
        this.levels = List.copyOf(levels);
        schema.ifPresent(this::readColumns);
    }

    private void readColumns(MapNode from) {
        for (MapNode column : Json.maps(from, "columns")) {
            reader.noteWords(column, Words.OF_COLUMN);
            List<MapNode> all = new ArrayList<>(List.of(column));
            all.addAll(levels);
            ColumnMetadata read = new ColumnMetadata(reader, column, all);
            if (Json.text(column, "virtual").filter("true"::equals).isPresent()) {
                reader.say(column, "column `" + read.name() + "` is virtual: no file has it, and it is not judged");
            } else if (columns.putIfAbsent(read.name(), read) != null) {
                reader.refuse(column, "there are two columns `" + read.name() + "` in " + name, "give each its name");
            }
        }
    }

    MapNode node() {
        return node;
    }

    String name() {
        return name;
    }

    /** Adds the columns that the table's foreign keys point at, as the tables call them in their files. */
    void pointedAt(Map<String, TableMetadata> tables, Map<TableMetadata, Set<List<String>>> all) {
        for (MapNode key : foreignKeys()) {
            parent(key, tables)
                    .ifPresent(parent -> all.computeIfAbsent(parent, p -> new LinkedHashSet<>())
                            .add(parent.headers(
                                    Json.texts(Json.map(key, "reference").orElseThrow(), "columnReference"))));
        }
    }

    private List<MapNode> foreignKeys() {
        return schema.map(from -> Json.maps(from, "foreignKeys")).orElse(List.of());
    }

    private Optional<TableMetadata> parent(MapNode key, Map<String, TableMetadata> tables) {
        return Json.map(key, "reference")
                .flatMap(reference -> Json.text(reference, "resource")
                        .map(tables::get)
                        .or(() -> Json.text(reference, "schemaReference")
                                .flatMap(id -> tables.values().stream()
                                        .filter(table -> table.schema
                                                .flatMap(own -> Json.text(own, "@id"))
                                                .filter(id::equals)
                                                .isPresent())
                                        .findFirst())));
    }

    /** What the file calls columns; those that are not there keep the name by which they are asked for. */
    private List<String> headers(List<Scalar> names) {
        return names.stream()
                .map(each -> columns.containsKey(each.text())
                        ? columns.get(each.text()).header()
                        : each.text())
                .toList();
    }

    /**
     * The table as a charter declares it.
     *
     * @param pointedAt columns that links point at: they are to be unique
     */
    DraftNode draft(Map<String, TableMetadata> tables, Set<List<String>> pointedAt) {
        DraftNode table = DraftNode.map(node.line(), node.column());
        table.put(node.line(), node.column(), "rows", rows());
        DraftNode drafts = DraftNode.map(node.line(), node.column());
        DraftNode rules = DraftNode.map(node.line(), node.column());
        boolean hasRules = false;
        for (ColumnMetadata column : columns.values()) {
            MapNode at = column.node();
            drafts.put(at.line(), at.column(), column.header(), column.draft());
            Optional<String> bounds = column.bounds();
            bounds.ifPresent(rule -> rules.put(at.line(), at.column(), column.header() + " within bounds", rule));
            hasRules |= bounds.isPresent();
        }
        if (columns.isEmpty()) {
            reader.refuse(node, "no columns of `" + url + "` are described", "list them in its `tableSchema`");
        }
        table.put(node.line(), node.column(), "columns", drafts);
        List<Scalar> primary =
                schema.map(from -> Json.texts(from, "primaryKey")).orElse(List.of());
        if (!primary.isEmpty()) {
            put(table, primary.get(0), "primary_key", primary, headers(primary));
        }
        putUnique(table, pointedAt, headers(primary));
        putLinks(table, tables);
        if (hasRules) {
            table.put(node.line(), node.column(), "rules", rules);
        }
        return table;
    }

    private static void put(DraftNode into, Node at, String key, List<Scalar> places, List<String> texts) {
        DraftNode list = DraftNode.list(at.line(), at.column());
        for (int i = 0; i < texts.size(); i++) {
            list.add(places.get(i).line(), places.get(i).column(), texts.get(i));
        }
        into.put(at.line(), at.column(), key, list);
    }

    /** Each row that is pointed at is to be the only one: what is pointed at beside the primary key is a unique key. */
    private void putUnique(DraftNode table, Set<List<String>> pointedAt, List<String> primary) {
        DraftNode unique = DraftNode.map(node.line(), node.column());
        boolean hasAny = false;
        for (List<String> columns : pointedAt) {
            if (!columns.equals(primary) && !columns.isEmpty()) {
                DraftNode list = DraftNode.list(node.line(), node.column());
                columns.forEach(column -> list.add(node.line(), node.column(), column));
                unique.put(node.line(), node.column(), "pointed at by " + String.join(", ", columns), list);
                hasAny = true;
            }
        }
        if (hasAny) {
            table.put(node.line(), node.column(), "unique", unique);
        }
    }

    private void putLinks(DraftNode table, Map<String, TableMetadata> tables) {
        DraftNode links = DraftNode.map(node.line(), node.column());
        Set<String> names = new LinkedHashSet<>();
        for (MapNode key : foreignKeys()) {
            List<Scalar> own = Json.texts(key, "columnReference");
            Optional<TableMetadata> parent = parent(key, tables);
            if (own.isEmpty() || parent.isEmpty()) {
                reader.refuse(
                        key,
                        "a foreign key of " + name + " points at a table that is not described",
                        "its `reference` has the `url` of a table as `resource`, and `columnReference`");
                continue;
            }
            List<Scalar> theirs = Json.texts(Json.map(key, "reference").orElseThrow(), "columnReference");
            String base = name + "_" + parent.get().name();
            String link = base;
            for (int i = 2; !names.add(link); i++) {
                link = base + "_" + i;
            }
            DraftNode declared = DraftNode.map(key.line(), key.column());
            put(declared, key, "columns", own, headers(own));
            DraftNode references = DraftNode.map(key.line(), key.column());
            put(references, key, parent.get().name(), theirs, parent.get().headers(theirs));
            declared.put(key.line(), key.column(), "references", references);
            links.put(key.line(), key.column(), link, declared);
        }
        if (!names.isEmpty()) {
            table.put(node.line(), node.column(), "foreign_keys", links);
        }
    }

    /** Where the rows stand, and how they are written. */
    private DraftNode rows() {
        DraftNode rows = DraftNode.map(node.line(), node.column());
        rows.put(node.line(), node.column(), "file", url);
        Optional<MapNode> dialect = levels.stream()
                .flatMap(level -> Json.map(level, "dialect").stream())
                .findFirst();
        dialect.ifPresent(map -> putDialect(rows, map));
        if (dialect.flatMap(map -> Json.text(map, "delimiter")).isEmpty()) {
            rows.put(node.line(), node.column(), "delimiter", DEFAULT_DELIMITER);
        }
        Set<String> words = new LinkedHashSet<>();
        columns.values().forEach(column -> words.addAll(column.nullWords()));
        words.remove("");
        if (!words.isEmpty()) {
            DraftNode list = DraftNode.list(node.line(), node.column());
            words.forEach(word -> list.add(node.line(), node.column(), word));
            rows.put(node.line(), node.column(), "null_words", list);
            if (columns.values().stream().anyMatch(column -> !column.nullWords().containsAll(words))) {
                reader.say(
                        node,
                        "columns of " + name
                                + " have words of their own for null, and here each is one in all columns: "
                                + String.join(", ", words));
            }
        }
        return rows;
    }

    private void putDialect(DraftNode rows, MapNode dialect) {
        Json.find(dialect, "delimiter").ifPresent(at -> putText(rows, "delimiter", at));
        Json.find(dialect, "quoteChar").ifPresent(at -> putText(rows, "quote", at));
        Json.find(dialect, "encoding").ifPresent(at -> putText(rows, "encoding", at));
        boolean hasHeader = Json.text(dialect, "header").filter("false"::equals).isEmpty()
                && Json.text(dialect, "headerRowCount").filter("0"::equals).isEmpty();
        if (!hasHeader) {
            DraftNode header = DraftNode.list(dialect.line(), dialect.column());
            columns.values()
                    .forEach(column ->
                            header.add(column.node().line(), column.node().column(), column.header()));
            rows.put(dialect.line(), dialect.column(), "header", header);
        }
        for (String word : List.of("skipRows", "skipColumns")) {
            refuseUnless(dialect, word, "0", "rows and columns that are to be passed over");
        }
        refuseUnless(dialect, "doubleQuote", "true", "a quote that is escaped otherwise than by another");
        if (hasHeader) {
            refuseUnless(dialect, "headerRowCount", "1", "more than one line of names");
        }
        Json.find(dialect, "commentPrefix")
                .ifPresent(at -> reader.say(at, "lines of comments are not passed over: each is a row here"));
    }

    private void refuseUnless(MapNode dialect, String word, String usual, String what) {
        Json.text(dialect, word)
                .filter(value -> !value.equals(usual))
                .ifPresent(value -> reader.refuse(
                        Json.find(dialect, word).orElseThrow(),
                        "`" + word + "` " + value + ": files with " + what + " are not read",
                        "write the file without"));
    }

    private static void putText(DraftNode into, String key, Node at) {
        if (at instanceof Scalar scalar) {
            into.put(at.line(), at.column(), key, scalar.text());
        }
    }
}
