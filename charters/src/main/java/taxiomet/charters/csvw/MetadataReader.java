package taxiomet.charters.csvw;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.CharterException;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Problem;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.input.ReadCharter;
import taxiomet.charters.yaml.CharterReader;
import taxiomet.charters.yaml.DraftNode;
import taxiomet.charters.yaml.Node;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;
import taxiomet.charters.yaml.NodeReader;
import taxiomet.charters.yaml.Problems;

/**
 * Reads the W3C's metadata of delimited text as a charter: each table's file and how it is written, columns with types, nulls and bounds,
 * primary and foreign keys. What the metadata says and a charter cannot is a remark.
 */
public final class MetadataReader {
    private final Path file;
    private final Path folder;
    private final List<Problem> remarks = new ArrayList<>();
    private final List<Problem> errors = new ArrayList<>();
    /** The tables by where their rows stand. */
    private final Map<String, TableMetadata> tables = new LinkedHashMap<>();

    private MetadataReader(Path file) {
        this.file = file;
        this.folder = file.toAbsolutePath().getParent();
    }

    /** Whether a document is in this vocabulary. */
    public static boolean isMetadata(byte[] document) {
        return new String(document, java.nio.charset.StandardCharsets.UTF_8).contains('"' + Words.CONTEXT + '"');
    }

    /**
     * Makes a charter of a document.
     *
     * @param file where it stands: the paths in it start from there
     * @throws CharterException with all problems
     */
    public static ReadCharter read(Path file, byte[] document) throws CharterException {
        return new MetadataReader(file).read(parse(file, document));
    }

    private static MapNode parse(Path file, byte[] document) throws CharterException {
        Problems problems = new Problems(InputFile.name(file));
        Node root = NodeReader.read(document, true, problems, "metadata");
        if (!problems.isEmpty()) {
            throw problems.asException();
        } else if (root instanceof MapNode map) {
            return map;
        }
        problems.form(root, "metadata is an object, not " + root.words(), "begin it with { \"@context\": ... }");
        throw problems.asException();
    }

    private ReadCharter read(MapNode root) throws CharterException {
        Optional<Node> base = Json.find(root, "@context")
                .filter(ListNode.class::isInstance)
                .flatMap(context -> ((ListNode) context)
                        .elements().stream()
                                .filter(MapNode.class::isInstance)
                                .flatMap(map -> Json.find((MapNode) map, "@base").stream())
                                .findFirst());
        base.ifPresent(node -> say(node, "`@base` is not followed: files are sought beside the metadata"));
        boolean isGroup = Json.find(root, "tables").isPresent();
        noteWords(root, isGroup ? Words.OF_GROUP : Words.OF_TABLE);
        List<MapNode> all = isGroup ? Json.maps(root, "tables") : List.of(root);
        for (MapNode table : all) {
            addTable(table, isGroup ? List.of(root) : List.of());
        }
        if (tables.isEmpty() && errors.isEmpty()) {
            refuse(root, "no table is described", "give it a `url` with a `tableSchema`, or `tables`");
        }
        DraftNode charter = DraftNode.map(root.line(), root.column());
        charter.put(root.line(), root.column(), "charter", "1");
        Json.texts(root, "dc:title").stream()
                .findFirst()
                .ifPresent(title -> charter.put(title.line(), title.column(), "title", title.text()));
        Map<TableMetadata, Set<List<String>>> pointedAt = new LinkedHashMap<>();
        tables.values().forEach(table -> table.pointedAt(tables, pointedAt));
        DraftNode drafts = DraftNode.map(root.line(), root.column());
        for (TableMetadata table : tables.values()) {
            drafts.put(
                    table.node().line(),
                    table.node().column(),
                    table.name(),
                    table.draft(tables, pointedAt.getOrDefault(table, Set.of())));
        }
        charter.put(root.line(), root.column(), "tables", drafts);
        if (!errors.isEmpty()) {
            throw new CharterException(errors);
        }
        remarks.sort(Comparator.comparingInt(Problem::line).thenComparingInt(Problem::column));
        return CharterReader.read(file, charter, folder, remarks);
    }

    private void addTable(MapNode table, List<MapNode> outer) throws CharterException {
        noteWords(table, Words.OF_TABLE);
        Optional<String> url = Json.text(table, "url");
        if (url.isEmpty()) {
            refuse(table, "a table has no `url`: nothing says where its rows stand", "name its file as `url`");
            return;
        }
        if (isOnTheWeb(url.get())) {
            refuse(
                    Json.find(table, "url").orElseThrow(),
                    "the rows of `" + url.get() + "` are on the web, and nothing is fetched",
                    "put the file beside the metadata, and its name as `url`");
            return;
        }
        List<MapNode> levels = new ArrayList<>(List.of(table));
        levels.addAll(outer);
        Optional<MapNode> schema = schema(levels);
        schema.ifPresent(found -> {
            noteWords(found, Words.OF_SCHEMA);
            levels.add(0, found);
        });
        tables.put(url.get(), new TableMetadata(this, table, url.get(), freeName(url.get()), schema, levels));
    }

    static boolean isOnTheWeb(String url) {
        return url.matches("(?i)[a-z][a-z0-9+.-]+://.*");
    }

    /** The schema of a table: its own, that of its group, or that of another file. */
    private Optional<MapNode> schema(List<MapNode> levels) throws CharterException {
        for (MapNode level : levels) {
            Optional<Node> schema = Json.find(level, "tableSchema");
            if (schema.isPresent() && schema.get() instanceof MapNode map) {
                return Optional.of(map);
            } else if (schema.isPresent() && schema.get() instanceof Scalar elsewhere) {
                return Optional.of(schemaIn(elsewhere));
            }
        }
        return Optional.empty();
    }

    private MapNode schemaIn(Scalar elsewhere) throws CharterException {
        if (isOnTheWeb(elsewhere.text())) {
            throw unreadable(elsewhere, "is on the web, and nothing is fetched");
        }
        try {
            Path there = folder.resolve(elsewhere.text());
            if (Files.exists(there) && !Files.isRegularFile(there)) {
                throw unreadable(elsewhere, "is no file");
            }
            return parse(there, InputFile.bytes(there));
        } catch (IOException | java.nio.file.InvalidPathException e) {
            throw unreadable(elsewhere, "cannot be read");
        }
    }

    private CharterException unreadable(Scalar schema, String why) {
        refuse(schema, "the schema `" + schema.text() + "` " + why, "put it beside the metadata, or into it");
        return new CharterException(errors);
    }

    /** The name of a file without folders and endings, with a number where another table has it. */
    private String freeName(String url) {
        String stem = url.replaceAll(".*/", "").replaceAll("(?i)\\.(csv|tsv|txt|tab|psv)(\\.(gz|zst|zip))?$", "");
        Set<String> taken = new LinkedHashSet<>();
        tables.values().forEach(table -> taken.add(table.name()));
        String name = stem.isEmpty() ? "table" : stem;
        for (int i = 2; taken.contains(name); i++) {
            name = stem + "_" + i;
        }
        return name;
    }

    /** Says which words are none of the vocabulary: a slip would be a rule that nobody checks. */
    void noteWords(MapNode map, List<String> known) {
        for (Entry entry : map.entries()) {
            String word = entry.key().text();
            if (!known.contains(word) && !Words.isSilent(word)) {
                say(
                        entry.key(),
                        "`" + word + "` is no word of CSVW here"
                                + NearestWord.of(word, known)
                                        .map(near -> "; did you mean `" + near + "`?")
                                        .orElse(", and says nothing"));
            }
        }
    }

    /** Notes what was passed over. */
    void say(Node at, String remark) {
        remarks.add(new Problem(InputFile.name(file), at.line(), at.column(), Problem.Kind.MEANING, remark, ""));
    }

    /** Notes what makes the metadata unusable. */
    void refuse(Node at, String problem, String remedy) {
        errors.add(new Problem(InputFile.name(file), at.line(), at.column(), Problem.Kind.MEANING, problem, remedy));
    }
}
