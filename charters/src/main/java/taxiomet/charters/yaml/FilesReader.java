package taxiomet.charters.yaml;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.Problem.Kind;
import taxiomet.charter.RowsFile;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Reads where rows stand and how they are written, over the defaults of the charter. */
final class FilesReader {
    private static final List<String> DIALECT = List.of("delimiter", "quote", "encoding", "header", "null_words");
    private static final List<String> ENCODINGS =
            List.of("UTF-8", "UTF-16", "UTF-16LE", "UTF-16BE", "ISO-8859-1", "windows-1252", "US-ASCII");

    private final Problems problems;
    private final Path folder;
    private RowsFile defaults;

    FilesReader(Problems problems, Path folder) {
        this.problems = problems;
        this.folder = folder;
        this.defaults = new RowsFile(folder, "", ',', '"', "UTF-8", true, Optional.empty(), List.of());
    }

    void readDefaults(Node node) {
        if (node instanceof MapNode map) {
            defaults = dialect(new Fields(problems, map, "`files`", DIALECT, List.of()), "");
        } else {
            problems.form(node, "`files` is a mapping, not " + node.words(), "");
        }
    }

    /** The `rows` of a table. */
    RowsFile read(Node node) {
        if (node instanceof Scalar path && !path.isNull()) {
            return withPath(defaults, requireNotEmpty(path));
        }
        if (!(node instanceof MapNode map)) {
            problems.form(node, "`rows` is a path or a mapping, not " + node.words(), "write `rows: some_file.csv`");
            return defaults;
        }
        List<String> known = new ArrayList<>(DIALECT);
        known.add(0, "file");
        Fields fields = new Fields(problems, map, "`rows`", known, List.of("sheet", "range", "table", "query"));
        if (!fields.has("table") && !fields.has("query")) {
            fields.require("file");
        }
        String path = fields.scalar("file", "a path").map(this::requireNotEmpty).orElse("");
        return dialect(fields, path);
    }

    private String requireNotEmpty(Scalar path) {
        if (path.text().isBlank()) {
            problems.form(path, "the path is empty", "name the file that holds the rows");
        }
        return path.text();
    }

    private static RowsFile withPath(RowsFile f, String path) {
        return new RowsFile(
                f.folder(), path, f.delimiter(), f.quote(), f.encoding(), f.hasHeader(), f.header(), f.nullWords());
    }

    private RowsFile dialect(Fields fields, String path) {
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
        return new RowsFile(folder, path, delimiter, quote, encoding, hasHeader, names, nullWords);
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
        String wanted = plain(name.text());
        for (String known : ENCODINGS) {
            if (plain(known).equals(wanted)) {
                return known;
            }
        }
        problems.unknown(name, Kind.FORM, "there is no encoding", name.text(), ENCODINGS);
        return defaults.encoding();
    }

    private static String plain(String encoding) {
        return encoding.toUpperCase(Locale.ROOT).replace("-", "").replace("_", "");
    }
}
