package taxiomet.charters.yaml;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Problem.Kind;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.JsonLines;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SqliteRows;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Reads where rows stand and how they are written, over the defaults of the charter. */
final class FilesReader {
    private static final List<String> DIALECT = List.of("delimiter", "quote", "encoding", "header", "null_words");
    private final Problems problems;
    private final Path folder;
    private final Optional<Database> database;
    private DelimitedFiles defaults;

    /** @param database where tables without a file live */
    FilesReader(Problems problems, Path folder, Optional<Database> database) {
        this.problems = problems;
        this.database = database;
        this.folder = folder;
        this.defaults = new DelimitedFiles(folder, "", ',', '"', "UTF-8", true, Optional.empty(), List.of());
    }

    void readDefaults(Node node) {
        if (node instanceof MapNode map) {
            defaults = dialect(new Fields(problems, map, "`files`", DIALECT, List.of()), "");
        } else {
            problems.form(node, "`files` is a mapping, not " + node.words(), "");
        }
    }

    /** The `rows` of a table. */
    RowsPlace read(Node node) {
        if (node instanceof Scalar path && !path.isNull()) {
            if (SheetRows.isNamedSo(path.text())) {
                return new SheetRows(folder, path.text(), Optional.empty(), Optional.empty());
            }
            return JsonLines.isNamedSo(path.text())
                    ? new JsonLines(folder, path.text(), Map.of())
                    : withPath(defaults, requireNoDatabase(requireNotEmpty(path), path));
        }
        if (!(node instanceof MapNode map)) {
            problems.form(node, "`rows` is a path or a mapping, not " + node.words(), "write `rows: some_file.csv`");
            return defaults;
        }
        boolean hasFile =
                map.entries().stream().anyMatch(entry -> entry.key().text().equals("file"));
        if (!hasFile && isInDatabase(map)) {
            return inDatabase(map);
        }
        List<String> known = new ArrayList<>(List.of("file", "table", "fields", "sheet", "range"));
        known.addAll(DIALECT);
        Fields fields = new Fields(problems, map, "`rows`", known, List.of());
        fields.require("file");
        Optional<Scalar> file = fields.scalar("file", "a path");
        String path = file.map(this::requireNotEmpty).orElse("");
        if (hasFile && fields.has("table")) {
            refuse(fields, "table", "fields");
            DIALECT.forEach(key -> refuse(fields, "table", key));
            String table = fields.scalar("table", "the name of a table")
                    .map(Scalar::text)
                    .orElse("");
            return new SqliteRows(folder, path, table);
        }
        if (SheetRows.isNamedSo(path)) {
            DIALECT.forEach(key -> refuse(fields, "a workbook", key));
            return new SheetRows(
                    folder,
                    path,
                    fields.text("sheet"),
                    fields.scalar("range", "a range").map(this::range));
        }
        List.of("sheet", "range")
                .forEach(key -> fields.find(key)
                        .ifPresent(node2 -> problems.meaning(
                                node2,
                                "`" + key + "` is about a workbook, and `" + path + "` is none by its name",
                                "name a file that ends in .xlsx, or leave it out")));
        if (JsonLines.isNamedSo(path)) {
            DIALECT.forEach(key -> refuse(fields, "a file of JSON lines", key));
            return new JsonLines(folder, path, pointers(fields));
        }
        fields.find("fields")
                .ifPresent(node2 -> problems.meaning(
                        node2,
                        "`fields` says where values stand in JSON, and `" + path + "` is no file of JSON lines",
                        "name a file that ends in .jsonl or .ndjson, or leave `fields` out"));
        return dialect(
                fields, file.map(scalar -> requireNoDatabase(path, scalar)).orElse(path));
    }

    private static boolean isInDatabase(MapNode map) {
        return map.entries().stream()
                .map(entry -> entry.key().text())
                .anyMatch(key -> key.equals("table") || key.equals("query"));
    }

    /** A table or a query without a file is one of the charter's database. */
    private RowsPlace inDatabase(MapNode map) {
        Fields fields = new Fields(problems, map, "`rows`", List.of("table", "query"), List.of());
        if (database.isEmpty()) {
            problems.meaning(
                    map,
                    "these rows live in a database, and the charter names none",
                    "add `database: {url: \"jdbc:...\"}` at the top, or name a `file`");
            return defaults;
        }
        boolean isQuery = fields.has("query");
        if (isQuery && fields.has("table")) {
            problems.meaning(map, "rows are those of a table or of a query", "leave one of them out");
        }
        String relation = fields.scalar(isQuery ? "query" : "table", "a text")
                .map(this::requireNotEmpty)
                .orElse("");
        return new DatabaseRows(folder, database.get(), relation, isQuery, List.of());
    }

    private void refuse(Fields fields, String with, String key) {
        fields.find(key)
                .ifPresent(node -> problems.meaning(
                        node, "`" + key + "` is about delimited text, and does not go with " + with, "leave it out"));
    }

    private String range(Scalar range) {
        if (SheetRows.area(range.text()).isEmpty()) {
            problems.form(
                    range,
                    "`" + range.text() + "` is no range of a sheet",
                    "write it as A3:H (from row 3, which has the names, to the end) or A3:H200");
        }
        return range.text();
    }

    private String requireNoDatabase(String path, Scalar place) {
        if (SqliteRows.isNamedSo(path)) {
            problems.meaning(
                    place,
                    "`" + path + "` is a database by its name, and which of its tables holds the rows is not said",
                    "write `rows: {file: " + path + ", table: NAME}`");
        }
        return path;
    }

    private Map<String, String> pointers(Fields fields) {
        Map<String, String> pointers = new LinkedHashMap<>();
        Optional<Node> declared = fields.find("fields");
        if (declared.isPresent() && declared.get() instanceof MapNode map) {
            for (Entry entry : map.entries()) {
                if (entry.value() instanceof Scalar pointer && pointer.text().startsWith("/")) {
                    pointers.put(entry.key().text(), pointer.text());
                } else {
                    problems.form(
                            entry.value(),
                            "where column `" + entry.key().text() + "` stands is a JSON Pointer",
                            "write it with a slash before each step, such as /keeper/id or /tags/0");
                }
            }
        } else if (declared.isPresent()) {
            problems.form(
                    declared.get(),
                    "`fields` is a mapping of columns, not " + declared.get().words(),
                    "");
        }
        return pointers;
    }

    private String requireNotEmpty(Scalar path) {
        if (path.text().isBlank()) {
            problems.form(path, "the path is empty", "name the file that holds the rows");
        }
        return path.text();
    }

    private static DelimitedFiles withPath(DelimitedFiles f, String path) {
        return new DelimitedFiles(
                f.folder(), path, f.delimiter(), f.quote(), f.encoding(), f.hasHeader(), f.header(), f.nullWords());
    }

    private DelimitedFiles dialect(Fields fields, String path) {
        char delimiter = fields.character("delimiter").orElse(defaults.delimiter());
        char quote = fields.character("quote").orElse(defaults.quote());
        if (delimiter == quote) {
            problems.meaning(fields.map(), "delimiter and quote are the same character", "choose another quote");
        }
        String encoding = fields.scalar("encoding", "the name of an encoding")
                .map(this::encoding)
                .orElse(defaults.encoding());
        List<String> nullWords =
                fields.has("null_words") ? Fields.textsOf(fields.list("null_words", true)) : defaults.nullWords();
        boolean hasHeader = defaults.hasHeader();
        Optional<List<String>> names = defaults.header();
        Optional<Node> header = fields.find("header");
        if (header.isPresent() && header.get() instanceof ListNode list) {
            hasHeader = false;
            List<Scalar> columns = Fields.texts(problems, "header", list, false);
            names = Optional.of(Fields.textsOf(columns));
            requireDifferent(columns);
        } else if (header.isPresent()) {
            hasHeader = header(header.get());
            names = Optional.empty();
        }
        return new DelimitedFiles(folder, path, delimiter, quote, encoding, hasHeader, names, nullWords);
    }

    private boolean header(Node node) {
        if (node instanceof Scalar scalar) {
            Optional<Boolean> truth = Fields.truth(scalar);
            if (truth.isPresent()) {
                return truth.get();
            }
        }
        problems.form(node, "`header` is yes, no, or a list of column names, not " + node.words(), "");
        return true;
    }

    private void requireDifferent(List<Scalar> names) {
        List<String> seen = new ArrayList<>();
        for (Scalar name : names) {
            if (seen.contains(name.text())) {
                problems.meaning(
                        name, "`header` names `" + name.text() + "` twice", "every column needs a name of its own");
            }
            seen.add(name.text());
        }
    }

    private String encoding(Scalar name) {
        Optional<String> known = DelimitedFiles.encodingNamed(name.text());
        if (known.isEmpty()) {
            problems.unknown(name, Kind.MEANING, "there is no encoding", name.text(), DelimitedFiles.USUAL_ENCODINGS);
        }
        return known.orElse(defaults.encoding());
    }
}
