package taxiomet.charters.yaml;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Charter.KeptRoster;
import taxiomet.charter.CharterException;
import taxiomet.charter.NotRead;
import taxiomet.charter.Problem;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.input.ReadCharter;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Reads a charter: first every table by itself, then the links between them, then the rules. */
public final class CharterReader {
    private static final String VERSION = "1";
    /** Without one of them a document is something else. */
    private static final Set<String> WORDS = Set.of("charter", "tables", "defaults", "database");

    private final Problems problems;
    private final Path folder;

    private CharterReader(Problems problems, Path folder) {
        this.problems = problems;
        this.folder = folder;
    }

    /**
     * Makes a charter of a document.
     *
     * @param file where it stands: the paths in it start from there, and JSON is told from YAML by its name
     * @throws CharterException with all problems
     */
    public static ReadCharter read(Path file, byte[] document) throws CharterException {
        String name = InputFile.name(file);
        Problems problems = new Problems(name);
        Node root = NodeReader.read(document, InputFile.isJson(file, document), problems, "charter");
        Path folder = file.toAbsolutePath().getParent();
        ReadCharter read = null;
        boolean isNone = root != null
                && !(root instanceof MapNode map
                        && map.entries().stream()
                                .anyMatch(entry -> WORDS.contains(entry.key().text())));
        if (isNone) {
            // Nothing of what it holds is told: it may be anything.
            problems.form(
                    root,
                    root instanceof MapNode
                            ? "this is no charter: it has none of the keys that one begins with"
                            : "a charter is a mapping, not " + (root instanceof Scalar ? "a text" : root.words()),
                    "begin it with `charter: 1`; of a table, `taxiomet survey " + name
                            + " --write-charter charter.yaml` drafts one");
        } else if (root instanceof MapNode map) {
            Charter charter = new CharterReader(problems, folder)
                    .charter(map, Path.of(name).getFileName().toString());
            read = new ReadCharter(charter, new NodePlaces(name, map), List.of());
        }
        if (!problems.isEmpty()) {
            throw problems.asException();
        }
        return read;
    }

    /**
     * Makes a charter of a document that was made of another file. Rules in it that cannot be evaluated are kept as not read.
     *
     * @param folder where the paths in it start
     * @param remarks what is to be said about the file beside that
     * @throws CharterException with all problems
     */
    public static ReadCharter read(Path file, DraftNode document, Path folder, List<Problem> remarks)
            throws CharterException {
        Problems problems = Problems.lenient(InputFile.name(file));
        MapNode root = (MapNode) document.node();
        String name = InputFile.name(file);
        Charter charter = new CharterReader(problems, folder)
                .charter(root, Path.of(name).getFileName().toString());
        if (!problems.isEmpty()) {
            throw problems.asException();
        }
        return new ReadCharter(charter, new NodePlaces(name, root), remarks);
    }

    private Charter charter(MapNode map, String fileName) {
        Fields fields = new Fields(
                problems,
                map,
                "the charter",
                List.of(
                        "charter",
                        "title",
                        "defaults",
                        "tables",
                        "database",
                        "rosters",
                        "link_order",
                        "not_read",
                        "accept"),
                List.of());
        fields.require("charter");
        fields.scalar("charter", "the version of the format, 1")
                .filter(version -> !version.text().equals(VERSION))
                .ifPresent(version -> problems.form(
                        version,
                        "version " + version.words() + " of the charter format is not known",
                        "write `charter: 1`"));
        String title = fields.text("title").orElse(fileName);
        FilesReader files =
                new FilesReader(problems, folder, fields.find("database").flatMap(new DatabaseReader(problems)::read));
        Server behaviour = defaults(fields, files);
        Map<String, TableReader> readers = tables(fields, files);
        Map<String, Table> tables = new LinkedHashMap<>();
        readers.forEach((name, reader) -> tables.put(name, reader.table()));
        Map<String, Table> linked = new LinkedHashMap<>();
        readers.forEach((name, reader) -> linked.put(name, reader.withLinks(tables, behaviour == Server.SQLITE)));
        List<Table> whole = new ArrayList<>();
        readers.forEach((name, reader) -> whole.add(reader.withRules(linked)));
        List<NotRead> notRead = new ArrayList<>();
        readers.forEach((name, reader) -> notRead.addAll(reader.notRead()));
        notRead.addAll(new NotReadReader(problems).read(fields, Optional.empty()));
        Charter charter = new Charter(title, whole, behaviour);
        return new Charter(
                title,
                whole,
                behaviour,
                Charter.ordered(charter.links(), linkOrder(fields, charter)),
                notRead,
                rosters(fields, tables),
                new AcceptReader(problems, charter).read(fields));
    }

    private List<KeptRoster> rosters(Fields charter, Map<String, Table> tables) {
        List<KeptRoster> rosters = new ArrayList<>();
        for (Entry entry : charter.named("rosters")) {
            String name = entry.key().text();
            if (!(entry.value() instanceof MapNode map)) {
                problems.form(
                        entry.value(),
                        "roster `" + name + "` is a mapping, not "
                                + entry.value().words(),
                        "");
                continue;
            }
            if (tables.containsKey(name)) {
                problems.form(entry.key(), "roster `" + name + "` has the name of a table", "give it another");
            }
            Fields fields = new Fields(
                    problems,
                    map,
                    "roster `" + name + "`",
                    List.of("table", "through", "columns", "sort", "where", "where_child", "childless"),
                    List.of());
            fields.require("table");
            Optional<Scalar> table = fields.scalar("table", "the name of a table");
            table.filter(each -> !tables.containsKey(each.text()))
                    .ifPresent(each -> problems.unknown(
                            each,
                            Problem.Kind.MEANING,
                            "there is no table",
                            each.text(),
                            List.copyOf(tables.keySet())));
            rosters.add(new KeptRoster(
                    name,
                    table.map(Scalar::text).orElse(""),
                    texts(fields, "through"),
                    texts(fields, "columns"),
                    texts(fields, "sort"),
                    fields.text("where"),
                    fields.text("where_child"),
                    fields.has("childless")
                            ? Optional.ofNullable(fields.word("childless", "show", "hide", "only"))
                            : Optional.empty()));
        }
        return rosters;
    }

    private static List<String> texts(Fields fields, String key) {
        return fields.texts(key).stream().map(Scalar::text).toList();
    }

    private List<String> linkOrder(Fields fields, Charter charter) {
        List<String> known = charter.links().stream()
                .map(link -> link.child() + "." + link.name())
                .toList();
        List<String> order = new ArrayList<>();
        for (Scalar link : fields.list("link_order", false)) {
            if (known.contains(link.text())) {
                order.add(link.text());
            } else {
                problems.unknown(link, Problem.Kind.MEANING, "there is no link", link.text(), known);
            }
        }
        return order;
    }

    private Server defaults(Fields charter, FilesReader files) {
        return charter.find("defaults")
                .map(node -> {
                    if (!(node instanceof MapNode map)) {
                        problems.form(node, "`defaults` is a mapping, not " + node.words(), "");
                        return Server.STANDARD;
                    }
                    Fields defaults = new Fields(problems, map, "`defaults`", List.of("files", "server"), List.of());
                    defaults.find("files").ifPresent(files::readDefaults);
                    String[] words = Server.words(Server::isRehearsed).toArray(String[]::new);
                    return Server.find(defaults.word("server", words)).orElse(Server.STANDARD);
                })
                .orElse(Server.STANDARD);
    }

    private Map<String, TableReader> tables(Fields charter, FilesReader files) {
        Map<String, TableReader> readers = new LinkedHashMap<>();
        charter.require("tables");
        List<Entry> named = charter.named("tables");
        if (named.isEmpty()
                && charter.find("tables").filter(MapNode.class::isInstance).isPresent()) {
            problems.form(charter.find("tables").get(), "`tables` names no table", "declare at least one");
        }
        for (Entry entry : named) {
            String name = entry.key().text();
            if (entry.value() instanceof MapNode map) {
                readers.put(name, new TableReader(problems, entry.key(), map, files));
            } else {
                problems.form(
                        entry.value(),
                        "table `" + name + "` is a mapping, not "
                                + entry.value().words(),
                        "");
            }
        }
        return readers;
    }
}
