package taxiomet.charters.yaml;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import taxiomet.charter.Problem.Kind;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.FixedWidth;
import taxiomet.charter.place.FixedWidth.Positions;
import taxiomet.charter.place.JsonItems;
import taxiomet.charter.place.JsonLines;
import taxiomet.charter.place.ParquetRows;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SqliteRows;
import taxiomet.charters.sql.ReadingQuery;
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

    /** The forms that files have, what each is called, and the keys that go with it. */
    private enum Form {
        TABLE("a table of a database in a file"),
        SHEET("a workbook"),
        JSON("a file of JSON lines"),
        ITEMS("lists in JSON"),
        PARQUET("a Parquet file"),
        FIXED("text whose columns have their positions"),
        TEXT("delimited text");

        private final String words;

        Form(String words) {
            this.words = words;
        }

        List<String> keys() {
            return switch (this) {
                case TABLE -> List.of("table");
                case SHEET -> List.of("sheet", "range");
                case JSON, PARQUET -> List.of("fields");
                case ITEMS -> List.of("fields", "items");
                case FIXED -> List.of("positions", "encoding", "header", "null_words");
                case TEXT -> DIALECT;
            };
        }

        /** The form that the name of a file tells. */
        static Form named(String path) {
            if (SheetRows.isNamedSo(path)) {
                return SHEET;
            } else if (JsonLines.isNamedSo(path)) {
                return JSON;
            } else if (JsonItems.isNamedSo(path)) {
                return ITEMS;
            }
            return ParquetRows.isNamedSo(path) ? PARQUET : TEXT;
        }
    }

    /** The `rows` of a table. */
    RowsPlace read(Node node) {
        MapNode map = new MapNode(node.line(), node.column(), List.of());
        if (node instanceof MapNode given) {
            map = given;
        } else if (node instanceof Scalar path && !path.isNull()) {
            requireNotEmpty(path);
            if (Form.named(path.text()) == Form.TEXT) {
                return withPath(defaults, requireNoDatabase(path.text(), path));
            }
            return of(Form.named(path.text()), path.text(), new Fields(problems, map, "`rows`", List.of(), List.of()));
        } else {
            problems.form(node, "`rows` is a path or a mapping, not " + node.words(), "write `rows: some_file.csv`");
            return defaults;
        }
        boolean hasFile =
                map.entries().stream().anyMatch(entry -> entry.key().text().equals("file"));
        if (!hasFile && isInDatabase(map)) {
            return inDatabase(map);
        }
        List<String> known = new ArrayList<>(List.of("file"));
        Stream.of(Form.values()).forEach(form -> known.addAll(form.keys()));
        Fields fields = new Fields(problems, map, "`rows`", known, List.of());
        fields.require("file");
        Optional<Scalar> file = fields.scalar("file", "a path");
        String path = file.map(this::requireNotEmpty).orElse("");
        Form form = formOf(Form.named(path), hasFile, fields);
        Stream.of(Form.values())
                .filter(other -> other != form)
                .forEach(other -> other.keys().stream()
                        .filter(key -> !form.keys().contains(key))
                        .forEach(key -> refuse(fields, form, other, key)));
        if (form == Form.TEXT) {
            file.ifPresent(scalar -> requireNoDatabase(path, scalar));
        }
        return of(form, path, fields);
    }

    /** The form that the keys beside a file's name tell, where its name does not say it all. */
    private static Form formOf(Form named, boolean hasFile, Fields fields) {
        if (hasFile && fields.has("table")) {
            return Form.TABLE;
        } else if (named == Form.JSON && fields.has("items")) {
            return Form.ITEMS;
        }
        return named == Form.TEXT && fields.has("positions") ? Form.FIXED : named;
    }

    private RowsPlace of(Form form, String path, Fields fields) {
        return switch (form) {
            case TABLE ->
                new SqliteRows(
                        folder,
                        path,
                        fields.scalar("table", "the name of a table")
                                .map(Scalar::text)
                                .orElse(""));
            case SHEET ->
                new SheetRows(
                        folder,
                        path,
                        fields.text("sheet"),
                        fields.scalar("range", "a range").map(this::range));
            case JSON -> new JsonLines(folder, path, pointers(fields, false));
            case ITEMS -> new JsonItems(folder, path, items(fields), pointers(fields, true));
            case PARQUET -> new ParquetRows(folder, path, pointers(fields, false));
            case FIXED -> {
                DelimitedFiles text = dialect(fields, path);
                yield new FixedWidth(
                        folder,
                        path,
                        text.encoding(),
                        fields.has("header") && text.hasHeader(),
                        text.nullWords(),
                        positions(fields));
            }
            case TEXT -> dialect(fields, path);
        };
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
        Optional<Scalar> written = fields.scalar(isQuery ? "query" : "table", "a text");
        String relation = written.map(this::requireNotEmpty).orElse("");
        if (isQuery && !relation.isEmpty()) {
            requireReading(written.orElseThrow());
        }
        return new DatabaseRows(folder, database.get(), relation, isQuery, List.of());
    }

    private void requireReading(Scalar query) {
        boolean isOfPostgres = database.orElseThrow().address().kind() == DatabaseAddress.Kind.POSTGRESQL;
        ReadingQuery.fault(query.text(), isOfPostgres)
                .ifPresent(fault -> problems.meaning(
                        query,
                        "`query` is not one statement that reads: " + fault,
                        "write one SELECT, without comments; what it cannot say, a view can"));
    }

    private void refuse(Fields fields, Form form, Form other, String key) {
        fields.find(key)
                .ifPresent(node -> problems.meaning(
                        node,
                        "`" + key + "` is about " + other.words + ", and does not go with " + form.words,
                        "leave it out, or name a file whose ending says what it is"));
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

    private String items(Fields fields) {
        Optional<Scalar> items = fields.scalar("items", "a JSON Pointer");
        items.filter(scalar -> !scalar.text().isEmpty() && !scalar.text().startsWith("/"))
                .ifPresent(scalar -> problems.form(
                        scalar,
                        "the way to a list is a JSON Pointer",
                        "write it with a slash before each step, and * for each element of a list: /orders/*/lines"));
        return items.map(Scalar::text).orElse("");
    }

    /** @param areRelative whether values outside the row may be meant */
    private Map<String, String> pointers(Fields fields, boolean areRelative) {
        Map<String, String> pointers = new LinkedHashMap<>();
        Optional<Node> declared = fields.find("fields");
        if (declared.isPresent() && declared.get() instanceof MapNode map) {
            for (Entry entry : map.entries()) {
                if (entry.value() instanceof Scalar pointer && isPointer(pointer.text(), areRelative)) {
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

    private Map<String, Positions> positions(Fields fields) {
        Map<String, Positions> positions = new LinkedHashMap<>();
        Node declared = fields.find("positions").orElseThrow();
        if (declared instanceof MapNode map) {
            for (Entry entry : map.entries()) {
                Optional<Positions> range =
                        entry.value() instanceof Scalar scalar ? Positions.parse(scalar.text()) : Optional.empty();
                if (range.isPresent()) {
                    positions.put(entry.key().text(), range.get());
                } else {
                    problems.form(
                            entry.value(),
                            "where column `" + entry.key().text() + "` stands are its first and its last character",
                            "write them as 1..6, counted from 1, or 7.. to the end of the line");
                }
            }
        } else {
            problems.form(declared, "`positions` is a mapping of columns, not " + declared.words(), "");
        }
        return positions;
    }

    private static boolean isPointer(String text, boolean areRelative) {
        return areRelative ? JsonItems.isPointer(text) : text.startsWith("/");
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
