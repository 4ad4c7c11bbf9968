package taxiomet.charters.yaml;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import taxiomet.charter.Accepted;
import taxiomet.charter.Accepted.AcceptedRow;
import taxiomet.charter.Alike;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Problem;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;
import taxiomet.finding.FindingKind;

/** Reads the `accept` of a charter: findings that are known and borne for a while. */
final class AcceptReader {
    private final Problems problems;
    private final Charter charter;

    /** @param charter all else of it */
    AcceptReader(Problems problems, Charter charter) {
        this.problems = problems;
        this.charter = charter;
    }

    List<Accepted> read(Fields owner) {
        List<Accepted> all = new ArrayList<>();
        Optional<Node> node = owner.find("accept");
        if (node.isPresent() && !(node.get() instanceof ListNode)) {
            problems.form(
                    node.get(), "`accept` is a list, not " + node.get().words(), "begin each entry with `- finding:`");
        } else if (node.isPresent()) {
            for (Node entry : ((ListNode) node.get()).elements()) {
                if (entry instanceof MapNode map) {
                    one(map).ifPresent(all::add);
                } else {
                    problems.form(
                            entry,
                            "an entry of `accept` is a mapping, not " + entry.words(),
                            "give it `finding`, `at` and `reason`");
                }
            }
        }
        return all;
    }

    private Optional<Accepted> one(MapNode map) {
        Fields fields = new Fields(
                problems,
                map,
                "an entry of `accept`",
                List.of("finding", "at", "rows", "values", "reason", "until"),
                List.of());
        fields.require("finding");
        fields.require("at");
        fields.require("reason");
        Optional<FindingKind> kind = kind(fields);
        Optional<Scalar> at = fields.scalar("at", "a column, key, link or rule");
        if (!fields.has("rows") && !fields.has("values")) {
            problems.form(
                    map,
                    "an entry of `accept` needs `rows` or `values`",
                    "name the rows by their keys, or the values at fault");
        }
        Optional<LocalDate> until = until(fields);
        if (kind.isEmpty() || at.isEmpty()) {
            return Optional.empty();
        }
        Optional<Place> place = place(at.get(), kind.get());
        return place.map(where -> new Accepted(
                kind.get().words(),
                where.table().name(),
                where.at(),
                rows(fields, where),
                values(fields, where.columns(), "a value for each of the columns at fault"),
                fields.text("reason").orElse(""),
                until));
    }

    private Optional<FindingKind> kind(Fields fields) {
        List<FindingKind> kinds = Arrays.stream(FindingKind.values())
                .filter(kind -> !kind.hasNoRows() && kind != FindingKind.MALFORMED_ROW)
                .toList();
        return fields.scalar("finding", "a kind of finding").flatMap(finding -> {
            Optional<FindingKind> meant = kinds.stream()
                    .filter(kind -> kind.words().equals(finding.text()))
                    .findFirst();
            if (meant.isEmpty()) {
                List<String> words = kinds.stream().map(FindingKind::words).toList();
                problems.unknown(finding, Problem.Kind.FORM, "`finding` cannot be", finding.text(), words);
            }
            return meant;
        });
    }

    private Optional<LocalDate> until(Fields fields) {
        return fields.scalar("until", "a day such as 2027-05-31").flatMap(day -> {
            try {
                return Optional.of(LocalDate.parse(day.text()));
            } catch (DateTimeException e) {
                problems.form(day, "`until` is a day such as 2027-05-31, not " + day.words(), "");
                return Optional.empty();
            }
        });
    }

    /** Where in the charter: the table whose rows are at fault, and the columns that the fault stands in. */
    private record Place(Table table, String at, List<String> columns) {}

    private Optional<Place> place(Scalar at, FindingKind kind) {
        List<Place> known =
                charter.tables().stream().flatMap(table -> places(table, kind)).toList();
        List<Place> meant = known.stream()
                .filter(place -> at.text().equals(place.at())
                        || at.text().equals(place.table().name() + "." + place.at()))
                .toList();
        if (meant.size() > 1) {
            problems.meaning(
                    at,
                    "there are " + meant.size() + " places " + at.words() + " of " + kind.words(),
                    "write the table before it: " + meant.get(0).table().name() + "."
                            + meant.get(0).at());
            return Optional.empty();
        } else if (meant.isEmpty()) {
            problems.unknown(
                    at,
                    Problem.Kind.MEANING,
                    "there is no " + kind.place().word() + " for " + kind.words(),
                    at.text(),
                    known.stream().map(Place::at).distinct().toList());
        }
        return meant.stream().findFirst();
    }

    private Stream<Place> places(Table table, FindingKind kind) {
        return switch (kind.place()) {
            case COLUMN ->
                table.columns().stream().map(Column::name).map(name -> new Place(table, name, List.of(name)));
            case KEY -> table.keys().stream().map((Key key) -> new Place(table, key.name(), key.columns()));
            case LINK ->
                switch (kind) {
                    case TOO_FEW_CHILDREN, TOO_MANY_CHILDREN ->
                        charter.links().stream()
                                .filter(link -> link.parent().equals(table.name()))
                                .map((ForeignKey link) -> new Place(table, link.name(), link.parentColumns()));
                    default ->
                        table.links().stream().map((ForeignKey link) -> new Place(table, link.name(), link.columns()));
                };
            case RULE ->
                kind == FindingKind.LIKELY_DOUBLE
                        ? table.alike().stream().map((Alike rule) -> new Place(table, rule.name(), rule.columns()))
                        : table.rules().stream()
                                .map((Rule rule) -> new Place(
                                        table,
                                        rule.name(),
                                        Arrays.stream(rule.condition().columnsRead())
                                                .mapToObj(column -> table.columns()
                                                        .get(column)
                                                        .name())
                                                .toList()));
            case TABLE -> Stream.empty();
        };
    }

    private List<AcceptedRow> rows(Fields fields, Place place) {
        List<AcceptedRow> rows = new ArrayList<>();
        Optional<Node> node = fields.find("rows");
        List<String> key = place.table().namingKey();
        if (node.isPresent() && key.isEmpty()) {
            problems.meaning(
                    node.get(), "rows of " + place.table().name() + " have no key to be named by", "write `values`");
            return rows;
        }
        for (Node row : elements(node, "rows")) {
            String wanted = "a value for each of the columns " + String.join(", ", key);
            if (row instanceof MapNode map) {
                Fields parts = new Fields(problems, map, "a row in `accept`", List.of("key", "holds"), List.of());
                Optional<List<String>> called =
                        parts.require("key").flatMap(each -> cells(each, key.size(), "key", wanted));
                Optional<List<String>> holds = parts.find("holds")
                        .flatMap(each -> cells(
                                each, place.columns().size(), "holds", "a value for each of the columns at fault"));
                called.ifPresent(each -> rows.add(new AcceptedRow(each, holds)));
            } else {
                cells(row, key.size(), "rows", wanted)
                        .ifPresent(each -> rows.add(new AcceptedRow(each, Optional.empty())));
            }
        }
        return rows;
    }

    private List<List<String>> values(Fields fields, List<String> columns, String wanted) {
        List<List<String>> values = new ArrayList<>();
        Optional<Node> node = fields.find("values");
        if (node.isPresent() && columns.isEmpty()) {
            problems.meaning(node.get(), "the rule reads no column of the row, to tell rows by", "name the `rows`");
            return values;
        }
        elements(node, "values")
                .forEach(each -> cells(each, columns.size(), "values", wanted).ifPresent(values::add));
        return values;
    }

    private List<Node> elements(Optional<Node> node, String key) {
        if (node.isPresent() && !(node.get() instanceof ListNode)) {
            problems.form(
                    node.get(), "`" + key + "` is a list, not " + node.get().words(), "");
            return List.of();
        }
        return node.map(list -> ((ListNode) list).elements()).orElse(List.of());
    }

    /** One scalar or a list of them, as many as there are columns. */
    private Optional<List<String>> cells(Node node, int columns, String key, String wanted) {
        List<Node> parts = node instanceof ListNode list ? list.elements() : List.of(node);
        List<String> cells = new ArrayList<>();
        for (Node part : parts) {
            if (!(part instanceof Scalar scalar)) {
                problems.form(part, "`" + key + "` lists values, not " + part.words(), "");
                return Optional.empty();
            }
            cells.add(scalar.isNull() ? null : scalar.text());
        }
        if (cells.size() != columns) {
            problems.meaning(
                    node,
                    "`" + key + "` has " + cells.size() + (cells.size() == 1 ? " value" : " values"),
                    "write " + wanted);
            return Optional.empty();
        }
        return Optional.of(cells);
    }
}
