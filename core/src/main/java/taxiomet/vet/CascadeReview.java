package taxiomet.vet;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement.Kind;

/** Judges what deletes do: how far they reach, over which roads, and where links go round in a circle. */
final class CascadeReview {
    /** A code or a short name as the key, and not much beside it: rows that others refer to for their meaning. */
    private static final int MOST_COLUMNS_OF_CODES = 3;

    private static final int LONGEST_CODE = 8;

    private final Charter charter;
    private final LinkGraph graph;
    private final Review review;
    /** For each table those that a delete in it reaches, itself among them. */
    private final Map<String, Set<String>> cascades = new HashMap<>();

    CascadeReview(Charter charter, LinkGraph graph, Review review) {
        this.charter = charter;
        this.graph = graph;
        this.review = review;
    }

    void judge() {
        judgeRequiredCircles();
        judgeCascadeCircles();
        for (Table table : charter.tables()) {
            judgeReach(table);
            judgeRoads(table);
        }
        charter.links().stream().filter(LinkGraph::cascades).forEach(this::judgeCascade);
    }

    private boolean isRequired(ForeignKey link) {
        Table child = charter.table(link.child());
        return link.columns().stream().allMatch(child::isRequired);
    }

    private ForeignKey firstLinkIn(Set<String> circle, java.util.function.Predicate<ForeignKey> condition) {
        return charter.links().stream()
                .filter(link -> circle.contains(link.child()) && circle.contains(link.parent()) && condition.test(link))
                .findFirst()
                .orElseThrow();
    }

    private String names(Set<String> circle) {
        return charter.tables().stream()
                .map(Table::name)
                .filter(circle::contains)
                .map(name -> "`" + name + "`")
                .collect(Collectors.joining(", "));
    }

    private void judgeRequiredCircles() {
        for (Set<String> circle : graph.realCircles(link -> isRequired(link) && link.deferrable() == Deferrable.NO)) {
            ForeignKey link = firstLinkIn(circle, this::isRequired);
            review.warn(
                    Kind.CIRCLE_OF_NEED,
                    Review.path(link),
                    "the tables " + names(circle)
                            + " need one another in a circle of links that may not be null: nothing can be loaded first",
                    "allow nulls in one of the links, or make one deferrable");
        }
        for (ForeignKey link : charter.links()) {
            if (link.child().equals(link.parent()) && isRequired(link)) {
                review.warn(
                        Kind.CIRCLE_OF_NEED,
                        Review.path(link),
                        "every row of `" + link.child() + "` needs another one over link `" + link.name()
                                + "`, which may not be null: the first row can only point at itself",
                        "allow nulls there");
            }
        }
    }

    private void judgeCascadeCircles() {
        for (Set<String> circle : graph.realCircles(LinkGraph::cascades)) {
            review.warn(
                    Kind.CIRCLE_OF_CASCADES,
                    Review.path(firstLinkIn(circle, LinkGraph::cascades), "on_delete"),
                    "deletes go round in a circle of cascades through " + names(circle) + ": one delete can empty them",
                    "say restrict or set null in one of the links");
        }
    }

    private void judgeReach(Table table) {
        Map<String, Integer> reached = graph.cascade(table.name());
        if (reached.isEmpty()) {
            return;
        }
        int depth = reached.values().stream().mapToInt(Integer::intValue).max().orElse(0);
        if (reached.size() > 1) {
            review.note(
                    Kind.FAR_REACH,
                    Review.path(table.name()),
                    "deleting one `" + table.name() + "` can reach " + reached.size() + " tables, " + depth
                            + (depth == 1 ? " step" : " steps") + " deep: " + String.join(", ", reached.keySet()),
                    "");
        }
    }

    private void judgeCascade(ForeignKey link) {
        Table child = charter.table(link.child());
        Table parent = charter.table(link.parent());
        if (!child.totals().isEmpty()) {
            review.warn(
                    Kind.CASCADE_OVER_TOTALS,
                    Review.path(link, "on_delete"),
                    "deleting a `" + parent.name() + "` deletes rows of `" + child.name() + "`, whose "
                            + child.totals().stream()
                                    .map(total -> "`" + total.text() + "`")
                                    .collect(Collectors.joining(", "))
                            + " would be lost from the sums",
                    "say restrict, so that somebody settles them first");
        }
        if (isTableOfCodes(parent)) {
            review.warn(
                    Kind.CASCADE_FROM_CODES,
                    Review.path(link, "on_delete"),
                    "a cascade starts at `" + parent.name() + "`, a table of codes: deleting one code deletes every `"
                            + child.name() + "` that has it",
                    "say restrict");
        } else if (!isRequired(link)) {
            review.warn(
                    Kind.CASCADE_OVER_OPTIONAL,
                    Review.path(link, "on_delete"),
                    "link `" + link.name() + "` may be null, and yet deleting a `" + parent.name() + "` deletes its `"
                            + child.name() + "`, which could do without",
                    "set null would keep the rows");
        }
    }

    private static boolean isTableOfCodes(Table table) {
        if (table.primaryKey().isEmpty()
                || table.primaryKey().get().columns().size() != 1
                || !table.links().isEmpty()) {
            return false;
        }
        ColumnType type =
                table.column(table.primaryKey().get().columns().get(0)).type();
        boolean isShort = type.name() == ColumnType.Name.SMALLINT
                || (type.isText() && type.length() != ColumnType.UNBOUNDED && type.length() <= LONGEST_CODE);
        return isShort && table.columns().size() <= MOST_COLUMNS_OF_CODES;
    }

    /** One delete that comes to a table over two roads with different orders for its rows. */
    private void judgeRoads(Table start) {
        Map<String, List<ForeignKey>> arrivals = new LinkedHashMap<>();
        Set<String> emptied = new LinkedHashSet<>(Set.of(start.name()));
        ArrayDeque<String> open = new ArrayDeque<>(emptied);
        while (!open.isEmpty()) {
            for (ForeignKey link : graph.linksTo(open.poll())) {
                if (!link.isEnforced() || link.child().equals(link.parent())) {
                    continue;
                }
                arrivals.computeIfAbsent(link.child(), child -> new ArrayList<>())
                        .add(link);
                if (LinkGraph.cascades(link) && emptied.add(link.child())) {
                    open.add(link.child());
                }
            }
        }
        arrivals.forEach((table, links) -> {
            ForeignKey first = links.get(0);
            links.stream()
                    .filter(link ->
                            isContrary(link.onDelete().name(), first.onDelete().name()))
                    .findFirst()
                    .ifPresent(second -> judgeTwoRoads(start, table, first, second));
        });
    }

    /** No action and restrict say the same here: the row stays, and so does its parent. */
    private static boolean isContrary(ActionName one, ActionName other) {
        return plain(one) != plain(other);
    }

    private static ActionName plain(ActionName action) {
        return action == ActionName.NO_ACTION ? ActionName.RESTRICT : action;
    }

    private void judgeTwoRoads(Table start, String table, ForeignKey first, ForeignKey second) {
        // Said at the table where the roads part, and not again for every table above it.
        boolean partsHere = first.parent().equals(start.name())
                || second.parent().equals(start.name())
                || !sharesStart(start, first, second);
        if (partsHere) {
            review.warn(
                    Kind.TWO_ROADS,
                    Review.path(second, "on_delete"),
                    "deleting a `" + start.name() + "` reaches `" + table + "` by two roads with different orders: "
                            + first.onDelete().name().sql() + " over `" + first.name() + "`, "
                            + second.onDelete().name().sql() + " over `" + second.name()
                            + "`: which comes first decides",
                    "give both the same action");
        }
    }

    /** Whether both roads lead through one child of the start: then they part further down. */
    private boolean sharesStart(Table start, ForeignKey first, ForeignKey second) {
        return graph.linksTo(start.name()).stream()
                .filter(LinkGraph::cascades)
                .map(ForeignKey::child)
                .map(next -> cascades.computeIfAbsent(next, this::cascadeFrom))
                .anyMatch(reached -> reached.contains(first.parent()) && reached.contains(second.parent()));
    }

    private Set<String> cascadeFrom(String table) {
        Set<String> reached = new HashSet<>(graph.cascade(table).keySet());
        reached.add(table);
        return reached;
    }
}
