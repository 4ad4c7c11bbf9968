package taxiomet.settle.docket;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.BinaryOperator;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.finding.settled.Docket.Choice;
import taxiomet.finding.settled.Docket.Deed;

/** What can be decided about a row of a finding, the likeliest first. */
final class Choices {
    private static final int MOST_VALUES = 12;
    private static final int MOST_OTHERS = 4;

    private final Charter charter;
    private final Labels labels;
    private final Teller teller;
    private final List<Choice> choices = new ArrayList<>();

    /** How a value of a column is told. */
    interface Teller {
        String tell(String table, String column, String value);
    }

    /** How rows of parents are called, by their keys. */
    interface Labels {
        String of(String table, List<String> columns, List<String> key);
    }

    /** Whether the first choice is proposed. */
    private boolean hasProposal;

    Choices(Charter charter, Labels labels, Teller teller) {
        this.charter = charter;
        this.labels = labels;
        this.teller = teller;
    }

    List<Choice> all() {
        Map<String, Choice> different = new LinkedHashMap<>();
        choices.forEach(choice -> different.putIfAbsent(choice.words(), choice));
        return List.copyOf(different.values());
    }

    boolean hasProposal() {
        return hasProposal;
    }

    /**
     * Adds the choices for a row.
     *
     * @param group all rows of its group, where there are groups
     */
    Choices of(Finding finding, Evidence row, List<Evidence> group) {
        Table table = charter.table(finding.table());
        if (!row.values().isEmpty()) {
            switch (finding.kind()) {
                case ORPHAN -> ofOrphan(table, table.link(finding.at()).orElseThrow(), row);
                case HALF_NULL_LINK, OWN_ANCESTOR ->
                    ofLink(table, table.link(finding.at()).orElseThrow());
                case DUPLICATE -> ofDuplicate(table, key(table, finding.at()), row, group);
                case LIKELY_DOUBLE -> ofLikelyDouble(table, finding, row, group);
                case TOO_FEW_CHILDREN, TOO_MANY_CHILDREN -> {
                    // Mended at the children, each of which has its own row.
                }
                case BROKEN_RULE -> ofRule(table, finding.at());
                default -> ofColumns(table, finding, row);
            }
            if (finding.kind() != FindingKind.TOO_FEW_CHILDREN && finding.kind() != FindingKind.TOO_MANY_CHILDREN) {
                choices.add(new Choice(
                        finding.kind() == FindingKind.DUPLICATE ? "delete this copy" : "delete this row",
                        new Deed.Delete()));
            }
            choices.add(new Choice("bear it until the day given", new Deed.Bear()));
        }
        choices.add(new Choice("it is mended where it comes from", new Deed.Elsewhere()));
        return this;
    }

    private static Key key(Table table, String name) {
        return table.keys().stream()
                .filter(key -> key.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private void ofOrphan(Table table, ForeignKey link, Evidence row) {
        Hint hint = row.hint().orElse(null);
        List<List<String>> parents = hint == null ? List.of() : hint.parents();
        hasProposal = parents.size() == 1;
        for (List<String> key : parents) {
            Map<String, String> cells = new LinkedHashMap<>();
            for (int i = 0; i < key.size(); i++) {
                cells.put(link.columns().get(i), key.get(i));
            }
            choices.add(new Choice(
                    "point it at " + named(link.parent(), link.parentColumns(), key), new Deed.Write(cells)));
        }
        Map<String, String> key = new LinkedHashMap<>();
        for (int i = 0; i < link.columns().size(); i++) {
            key.put(
                    link.parentColumns().get(i),
                    row.values().get(table.indexOf(link.columns().get(i))));
        }
        boolean isWhole = key.values().stream().allMatch(cell -> cell != null);
        boolean standsForNothing = hint != null && hint.kind() == Hint.Kind.STANDS_FOR_NOTHING;
        hasProposal |= standsForNothing && canBeEmptied(table, link);
        if (standsForNothing) {
            ofLink(table, link);
        }
        boolean isOfType = hint == null || hint.kind() != Hint.Kind.NOT_OF_ITS_TYPE;
        if (isWhole && isOfType && canBeCreated(charter.table(link.parent()), key.keySet())) {
            choices.add(new Choice(
                    "create the missing " + link.parent() + " " + told(link.parent(), key),
                    new Deed.CreateParent(link.parent(), key)));
        }
        ofLink(table, link);
    }

    /** Whether a row that has these columns alone breaks nothing: all others may be null, or have a value of their own. */
    private static boolean canBeCreated(Table table, Set<String> columns) {
        return table.columns().stream()
                .filter(column -> !columns.contains(column.name()) && table.isRequired(column.name()))
                .allMatch(column -> column.defaultValue().isPresent() || column.generated() != Column.Generated.NEVER);
    }

    private static boolean canBeEmptied(Table table, ForeignKey link) {
        return link.columns().stream().noneMatch(table::isRequired);
    }

    private void ofLink(Table table, ForeignKey link) {
        if (canBeEmptied(table, link)) {
            Map<String, String> nulls = new HashMap<>();
            link.columns().forEach(column -> nulls.put(column, null));
            choices.add(new Choice("empty " + String.join(", ", link.columns()), new Deed.Write(nulls)));
        }
        link.columns().forEach(this::given);
    }

    private void given(String column) {
        choices.add(new Choice("change " + column + " to the new value", new Deed.WriteGiven(column)));
    }

    private void ofDuplicate(Table table, Key key, Evidence row, List<Evidence> group) {
        if (!key.columns().equals(table.namingKey())) {
            ofMerges(table, row, group);
        }
        key.columns().forEach(this::given);
    }

    private void ofLikelyDouble(Table table, Finding finding, Evidence row, List<Evidence> group) {
        List<Evidence> likestFirst = new ArrayList<>(group);
        likestFirst.sort(Comparator.comparing(other -> !row.problem().matches("as row " + other.row() + "\\b(?s:.*)")));
        ofMerges(table, row, likestFirst);
        List<List<String>> keys = new ArrayList<>();
        keys.add(cells(table, table.namingKey(), row));
        if (group.size() == 2) {
            group.stream()
                    .filter(other -> !other.equals(row))
                    .forEach(other -> keys.add(cells(table, table.namingKey(), other)));
        }
        boolean areNamed =
                keys.stream().allMatch(key -> !key.isEmpty() && key.stream().allMatch(Objects::nonNull));
        if (areNamed) {
            choices.add(new Choice(
                    group.size() == 2 ? "they are two things" : "it is a thing of its own", new Deed.Apart(keys)));
        }
        finding.columns().forEach(this::given);
    }

    /** The rows of a group that a row may be merged into. */
    private void ofMerges(Table table, Evidence row, List<Evidence> group) {
        List<String> naming = table.namingKey();
        List<String> own = cells(table, naming, row);
        if (naming.isEmpty() || !own.stream().allMatch(Objects::nonNull)) {
            return;
        }
        group.stream()
                .map(other -> cells(table, naming, other))
                .filter(other -> !other.equals(own) && other.stream().allMatch(Objects::nonNull))
                .limit(MOST_OTHERS)
                .forEach(other -> choices.add(
                        new Choice("merge it into " + named(table.name(), naming, other), new Deed.Merge(own, other))));
    }

    private static List<String> cells(Table table, List<String> columns, Evidence row) {
        List<String> cells = new ArrayList<>();
        columns.forEach(column -> cells.add(row.values().get(table.indexOf(column))));
        return cells;
    }

    private void ofRule(Table table, String name) {
        table.rules().stream()
                .filter(rule -> rule.name().equals(name))
                .map(Rule::condition)
                .forEach(condition -> {
                    for (int column : condition.columnsRead()) {
                        given(table.columns().get(column).name());
                    }
                });
    }

    private void ofColumns(Table table, Finding finding, Evidence row) {
        for (String name : finding.columns()) {
            Column column = table.column(name);
            String cell = row.values().get(table.indexOf(name));
            if (finding.kind() == FindingKind.VALUE_NOT_ALLOWED
                    || (cell == null && !column.values().isEmpty())) {
                column.values().stream()
                        .limit(MOST_VALUES)
                        .forEach(value -> choices.add(
                                new Choice("change " + name + " to " + value, new Deed.Write(Map.of(name, value)))));
            }
            given(name);
            if (cell != null && !table.isRequired(name)) {
                Map<String, String> empty = new HashMap<>();
                empty.put(name, null);
                choices.add(new Choice("empty " + name, new Deed.Write(empty)));
            }
        }
    }

    /** A row of another table: its key, and its label where it has one. */
    private String named(String table, List<String> columns, List<String> key) {
        Map<String, String> cells = new LinkedHashMap<>();
        for (int i = 0; i < key.size(); i++) {
            cells.put(columns.get(i), key.get(i));
        }
        String label = labels.of(table, columns, key);
        return told(table, cells) + (label.isEmpty() ? "" : " (" + label + ")");
    }

    private String told(String table, Map<String, String> cells) {
        List<String> told = new ArrayList<>();
        cells.forEach((column, cell) -> told.add(teller.tell(table, column, cell)));
        BinaryOperator<String> joined = (one, other) -> one + ", " + other;
        return told.stream().reduce(joined).orElse("");
    }
}
