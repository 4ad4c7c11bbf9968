package taxiomet.charters.yaml;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Column;
import taxiomet.charter.Problem.Kind;
import taxiomet.charter.Table;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.proposals.ProposalReader;
import taxiomet.charters.proposals.ProposalReader.Use;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.Combination;
import taxiomet.proposal.Origin;
import taxiomet.proposal.ProposalException;

/** Reads a proposal in YAML or JSON (docs/formats/proposal.schema.json): statements, files of rows, merges and renumberings. */
public final class ProposalDocument {
    private static final String DO = "do";
    private static final List<String> WAYS = List.of("sql", "insert", "update", "delete", "merge", "renumber");

    private final Path file;
    private final String name;
    private final Charter charter;
    private final ProposalReader reader;
    private final Problems problems;

    private ProposalDocument(Path file, Charter charter, ProposalReader reader) {
        this.file = file;
        this.charter = charter;
        this.reader = reader;
        this.name = InputFile.name(file);
        this.problems = new Problems(name);
    }

    /**
     * The changes of a document, in their order.
     *
     * @throws CharterException with all problems in its form
     * @throws ProposalException when it cannot be read, or a change does not fit the charter
     */
    public static List<Change> read(Path file, Charter charter, ProposalReader reader) throws CharterException {
        return new ProposalDocument(file, charter, reader).read();
    }

    private List<Change> read() throws CharterException {
        List<Change> changes = new ArrayList<>();
        try {
            byte[] document = InputFile.bytes(file);
            Node root = NodeReader.read(document, InputFile.isJson(file, document), problems, "proposal");
            if (root instanceof MapNode map) {
                changes.addAll(changes(map));
            } else if (root != null) {
                problems.form(root, "a proposal is a mapping, not " + root.words(), "begin it with `proposal: 1`");
            }
        } catch (NoSuchFileException e) {
            throw new ProposalException(name, "there is no such file", "check the path");
        } catch (IOException e) {
            throw new ProposalException(name, "the file cannot be read (" + e.getMessage() + ")", "");
        }
        if (!problems.isEmpty()) {
            throw problems.asException();
        }
        return changes;
    }

    private List<Change> changes(MapNode map) {
        Fields fields = new Fields(problems, map, "a proposal", List.of("proposal", "title", "proposed"), List.of());
        fields.require("proposal");
        fields.scalar("proposal", "the version of the format, 1")
                .filter(version -> !version.text().equals("1"))
                .ifPresent(version -> problems.form(
                        version, "version " + version.words() + " of the format is not known", "write `proposal: 1`"));
        List<Change> changes = new ArrayList<>();
        Optional<Node> list = fields.require("proposed");
        if (list.isPresent() && list.get() instanceof ListNode elements) {
            for (Node element : elements.elements()) {
                if (element instanceof MapNode change) {
                    changes.addAll(change(change));
                } else {
                    problems.form(
                            element,
                            "a change is a mapping, not " + element.words(),
                            "such as {do: sql, text: DELETE ...}");
                }
            }
        } else {
            list.ifPresent(node -> problems.form(node, "`proposed` is a list, not " + node.words(), ""));
        }
        return changes;
    }

    private String place(Node node) {
        return name + ":" + node.line();
    }

    private Path beside(Scalar path) {
        Path parent = file.toAbsolutePath().getParent();
        Path named = parent.resolve(path.text());
        return file.isAbsolute() || path.text().startsWith("/")
                ? named
                : Optional.ofNullable(file.getParent())
                        .map(folder -> folder.resolve(path.text()))
                        .orElse(Path.of(path.text()));
    }

    private List<Change> change(MapNode map) {
        Optional<Scalar> way = map.entries().stream()
                .filter(entry -> entry.key().text().equals(DO))
                .map(Entry::value)
                .filter(Scalar.class::isInstance)
                .map(Scalar.class::cast)
                .findFirst();
        if (way.isEmpty()) {
            problems.form(map, "it is not said what to do", "write do: and one of " + String.join(", ", WAYS));
            return List.of();
        }
        return switch (way.get().text()) {
            case "sql" -> sql(map);
            case "insert", "update", "delete" ->
                rows(Use.valueOf(way.get().text().toUpperCase(Locale.ROOT)), map);
            case "merge" -> merge(map).stream().toList();
            case "renumber" -> renumber(map);
            default -> {
                problems.unknown(
                        way.get(), Kind.FORM, "there is no change", way.get().text(), WAYS);
                yield List.of();
            }
        };
    }

    private List<Change> sql(MapNode map) {
        Fields fields = new Fields(problems, map, "SQL", List.of(DO, "text", "file"), List.of());
        Optional<Scalar> text = fields.scalar("text", "statements");
        Optional<Scalar> script = fields.scalar("file", "the path of a SQL script");
        if (text.isPresent() == script.isPresent()) {
            problems.form(
                    map,
                    text.isPresent() ? "`text` and `file` do not go together" : "there is no statement in it",
                    "write text: with statements, or file: with the path of a script");
            return List.of();
        }
        return text.map(statements -> reader.sql(statements.text(), place(statements)))
                .orElseGet(() -> reader.script(beside(script.get())));
    }

    private Optional<Table> table(Fields fields) {
        fields.require("table");
        Optional<Scalar> name = fields.scalar("table", "the name of a table");
        if (name.isEmpty()) {
            return Optional.empty();
        }
        Optional<Table> table = charter.find(name.get().text());
        if (table.isEmpty()) {
            problems.unknown(
                    name.get(),
                    Kind.MEANING,
                    "there is no table",
                    name.get().text(),
                    charter.tables().stream().map(Table::name).toList());
        }
        return table;
    }

    private List<Change> rows(Use use, MapNode body) {
        Fields fields = new Fields(problems, body, "a list of rows", List.of(DO, "table", "listed_in"), List.of());
        Optional<Table> table = table(fields);
        fields.require("listed_in");
        Optional<Scalar> path = fields.scalar("listed_in", "the path of a CSV file");
        return table.isPresent() && path.isPresent()
                ? List.of(reader.rows(use, table.get().name(), beside(path.get())))
                : List.of();
    }

    private Optional<Change> merge(MapNode body) {
        Fields fields = new Fields(
                problems, body, "a merge", List.of(DO, "table", "goes", "stays", "fill", "combine"), List.of());
        Optional<Table> table = table(fields);
        fields.require("goes");
        fields.require("stays");
        List<String> goes = Fields.textsOf(fields.texts("goes"));
        List<String> stays = Fields.textsOf(fields.texts("stays"));
        Map<String, Map<String, Combination>> combine = combine(fields);
        boolean fills = fields.truth("fill", false);
        return table.map(found -> new Change.Merge(
                new Origin(
                        "merge " + found.name() + " " + String.join(", ", goes) + " into " + String.join(", ", stays),
                        place(body)),
                found.name(),
                goes,
                stays,
                fills,
                combine));
    }

    private Map<String, Map<String, Combination>> combine(Fields merge) {
        Map<String, Map<String, Combination>> combine = new LinkedHashMap<>();
        for (Entry entry : merge.named("combine")) {
            Optional<Table> table = charter.find(entry.key().text());
            if (table.isEmpty()) {
                problems.unknown(
                        entry.key(),
                        Kind.MEANING,
                        "there is no table",
                        entry.key().text(),
                        charter.tables().stream().map(Table::name).toList());
            } else if (entry.value() instanceof MapNode columns) {
                combine.put(table.get().name(), columns(table.get(), columns));
            } else {
                problems.form(
                        entry.value(),
                        "this is a mapping of columns, not " + entry.value().words(),
                        "such as {weight_kg: sum}");
            }
        }
        return combine;
    }

    private Map<String, Combination> columns(Table table, MapNode map) {
        Map<String, Combination> columns = new LinkedHashMap<>();
        List<String> known = table.columns().stream().map(Column::name).toList();
        for (Entry entry : map.entries()) {
            if (!known.contains(entry.key().text())) {
                problems.unknown(
                        entry.key(),
                        Kind.MEANING,
                        "there is no column",
                        entry.key().text(),
                        known);
            } else if (entry.value() instanceof Scalar how) {
                combination(table.column(entry.key().text()), how)
                        .ifPresent(found -> columns.put(entry.key().text(), found));
            } else {
                problems.form(
                        entry.value(), "this is a word, not " + entry.value().words(), "");
            }
        }
        return columns;
    }

    private Optional<Combination> combination(Column column, Scalar how) {
        for (Combination combination : Combination.values()) {
            if (combination.name().equalsIgnoreCase(how.text())) {
                if (combination == Combination.SUM && !column.type().family().isNumber()) {
                    problems.meaning(
                            how, "`sum` is for numbers, and the column is " + column.type(), "write first or greatest");
                    return Optional.empty();
                }
                return Optional.of(combination);
            }
        }
        problems.unknown(
                how,
                Kind.FORM,
                "there is no way to combine",
                how.text(),
                List.of("sum", "least", "greatest", "first", "stayer"));
        return Optional.empty();
    }

    private List<Change> renumber(MapNode body) {
        Fields fields = new Fields(problems, body, "a renumbering", List.of(DO, "table", "from", "to"), List.of());
        Optional<Table> table = table(fields);
        fields.require("from");
        fields.require("to");
        List<String> from = Fields.textsOf(fields.texts("from"));
        List<String> to = Fields.textsOf(fields.texts("to"));
        if (from.size() != to.size()) {
            problems.meaning(
                    body, "`from` has " + from.size() + " parts and `to` " + to.size(), "give each part of the key");
            return List.of();
        }
        return table.<List<Change>>map(found -> List.of(new Change.Renumber(
                        new Origin(
                                "renumber " + found.name() + " " + String.join(", ", from) + " to "
                                        + String.join(", ", to),
                                place(body)),
                        found.name(),
                        from,
                        to)))
                .orElse(List.of());
    }
}
