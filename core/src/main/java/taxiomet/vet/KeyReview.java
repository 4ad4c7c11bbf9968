package taxiomet.vet;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import taxiomet.charter.Column;
import taxiomet.charter.Comparison;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement.Kind;

/** Judges the keys of one table. */
final class KeyReview {
    private static final Pattern NUMBERED = Pattern.compile("(?:.*_)?(?:id|no|nr|num|number)");

    private final Table table;
    private final LinkGraph graph;
    private final Review review;

    KeyReview(Table table, LinkGraph graph, Review review) {
        this.table = table;
        this.graph = graph;
        this.review = review;
    }

    void judge() {
        judgeAbsence();
        judgeOverlaps();
        judgeLinkingTable();
        judgeType();
    }

    private void judgeAbsence() {
        if (table.primaryKey().isEmpty()) {
            review.warn(
                    Kind.NO_PRIMARY_KEY,
                    Review.path(table.name()),
                    "table `" + table.name() + "` has no primary key"
                            + (table.uniqueKeys().isEmpty() ? ": rows that are equal in everything go unnoticed" : ""),
                    table.uniqueKeys().isEmpty()
                            ? "declare what identifies a row"
                            : "declare one, such as the columns of `"
                                    + table.uniqueKeys().get(0).name() + "`");
        }
        if (table.links().isEmpty() && graph.linksTo(table.name()).isEmpty()) {
            review.note(
                    Kind.TABLE_APART,
                    Review.path(table.name()),
                    "table `" + table.name() + "` stands apart: no link leads to it or from it",
                    "declare its links, if it has any");
        }
    }

    private void judgeOverlaps() {
        List<Key> keys = table.keys();
        for (Key key : table.uniqueKeys()) {
            for (Key other : keys) {
                if (other.name().equals(key.name()) || !key.columns().containsAll(other.columns())) {
                    continue;
                }
                boolean isEqual = key.columns().size() == other.columns().size();
                boolean isSecond = keys.indexOf(key) > keys.indexOf(other);
                if (isEqual && !isSecond) {
                    continue;
                }
                String name = other.isPrimary() ? "the primary key" : "unique key `" + other.name() + "`";
                review.warn(
                        Kind.NEEDLESS_KEY,
                        Review.path(table.name(), "unique", key.name()),
                        "unique key `" + key.name() + "` " + (isEqual ? "says the same as " : "contains ") + name
                                + (isEqual ? "" : ": it can never be broken where that is kept"),
                        "leave it out");
                break;
            }
        }
    }

    /** Two links and a number of its own as the key: nothing keeps the same pair from standing twice. */
    private void judgeLinkingTable() {
        if (table.primaryKey().isEmpty() || table.links().size() != 2 || LinkGraph.isLinkingTable(table)) {
            return;
        }
        Set<String> linked = new HashSet<>();
        table.links().forEach(link -> linked.addAll(link.columns()));
        Key key = table.primaryKey().get();
        boolean hasOwnKey =
                key.columns().size() == 1 && !linked.contains(key.columns().get(0));
        long others = table.columns().stream()
                .filter(column ->
                        !linked.contains(column.name()) && !key.columns().contains(column.name()))
                .count();
        boolean isRequired =
                table.links().stream().allMatch(link -> link.columns().stream().allMatch(table::isRequired));
        boolean joinsTwo =
                !table.links().get(0).parent().equals(table.links().get(1).parent());
        if (hasOwnKey && isRequired && joinsTwo && others <= 1) {
            review.warn(
                    Kind.PAIR_MAY_REPEAT,
                    Review.path(table.name(), "primary_key"),
                    "`" + table.name() + "` links `" + table.links().get(0).parent() + "` and `"
                            + table.links().get(1).parent() + "` under a key of its own: the same pair can stand twice",
                    "declare a unique key over "
                            + String.join(
                                    ", ",
                                    linked.stream()
                                            .sorted(java.util.Comparator.comparingInt(table::indexOf))
                                            .toList()));
        }
    }

    private void judgeType() {
        if (table.primaryKey().isEmpty()
                || table.primaryKey().get().columns().size() != 1
                || graph.linksTo(table.name()).isEmpty()) {
            return;
        }
        Column column = table.column(table.primaryKey().get().columns().get(0));
        boolean isFree =
                column.pattern().isEmpty() && column.values().isEmpty() && column.comparison() == Comparison.EXACT;
        if (column.type().isText()
                && isFree
                && NUMBERED.matcher(column.name().toLowerCase(Locale.ROOT)).matches()) {
            review.note(
                    Kind.NUMBER_AS_TEXT,
                    Review.path(table.name(), "columns", column.name()),
                    "the key `" + column.name()
                            + "` is a text and named like a number: 7, 07 and ` 7` would be three rows",
                    "make it an integer if all its values are; give it a pattern if they are not");
        }
    }
}
