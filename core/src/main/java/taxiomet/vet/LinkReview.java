package taxiomet.vet;

import java.util.List;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement.Kind;

/** Judges one link: its two ends, its types and its actions. */
final class LinkReview {
    private final ForeignKey link;
    private final Table child;
    private final Table parent;
    private final Review review;

    LinkReview(Charter charter, ForeignKey link, Review review) {
        this.link = link;
        this.child = charter.table(link.child());
        this.parent = charter.table(link.parent());
        this.review = review;
    }

    void judge() {
        judgeParentKey();
        judgeTypes();
        judgeSizes();
        judgeAction("on_delete", link.onDelete());
        judgeAction("on_update", link.onUpdate());
        judgeTwins();
        judgeOneToOne();
        judgeMatch();
        if (!link.isEnforced()) {
            review.note(
                    Kind.NOT_ENFORCED,
                    Review.path(link, "enforced"),
                    "link `" + link.name() + "` is meant and not enforced: nothing keeps orphans out of the database",
                    "put it into the database once `check` finds none");
        }
    }

    /** What no server but SQLite compares. */
    private void judgeTypes() {
        for (int i = 0; i < link.columns().size(); i++) {
            ColumnType childType = child.column(link.columns().get(i)).type();
            ColumnType parentType = parent.column(link.parentColumns().get(i)).type();
            if (!childType.family().isComparableWith(parentType.family())) {
                review.error(
                        Kind.NEVER_EQUAL,
                        Review.path(link, "columns"),
                        "link `" + link.name() + "`: `" + link.columns().get(i) + "` is " + childType + " and `"
                                + parent.name() + "." + link.parentColumns().get(i) + "` is " + parentType
                                + ", which can never be equal",
                        "give both ends types of one family; SQLite alone compares them, and `rehearse` as it does");
            }
        }
    }

    private boolean isKeyOf(Table table, List<String> columns) {
        return table.keys().stream()
                .anyMatch(key -> key.where().isEmpty()
                        && key.columns().size() == columns.size()
                        && key.columns().containsAll(columns));
    }

    /** Whether the link's columns are the child's whole primary key, and the parent's end is something else than its own. */
    private boolean seemsReversed() {
        boolean childEndIsKey = child.primaryKey()
                .filter(key -> key.columns().size() == link.columns().size()
                        && key.columns().containsAll(link.columns()))
                .isPresent();
        boolean parentEndIsKey = parent.primaryKey()
                .filter(key -> key.columns().size() == link.parentColumns().size()
                        && key.columns().containsAll(link.parentColumns()))
                .isPresent();
        return childEndIsKey && !parentEndIsKey && !link.parent().equals(link.child());
    }

    private void judgeParentKey() {
        String turned = "`" + parent.name() + "` (" + String.join(", ", link.parentColumns()) + ") references `"
                + child.name() + "`";
        if (!isKeyOf(parent, link.parentColumns())) {
            review.error(
                    Kind.POINTS_AT_NO_KEY,
                    Review.path(link, "references"),
                    "link `" + link.name() + "` points at (" + String.join(", ", link.parentColumns()) + ") of `"
                            + parent.name() + "`, which is no key: a row could have several parents"
                            + (seemsReversed() ? "; it seems to be drawn the wrong way round" : ""),
                    seemsReversed()
                            ? "declare it the other way: " + turned
                            : "declare these columns unique there, or point at a key");
        } else if (seemsReversed()) {
            review.warn(
                    Kind.WRONG_WAY_ROUND,
                    Review.path(link, "references"),
                    "link `" + link.name() + "` leads from the primary key of `" + child.name() + "` to a column of `"
                            + parent.name() + "` that is not its primary key: it seems to be drawn the wrong way round",
                    "perhaps " + turned);
        }
    }

    private void judgeSizes() {
        for (int i = 0; i < link.columns().size(); i++) {
            Column from = child.column(link.columns().get(i));
            Column to = parent.column(link.parentColumns().get(i));
            String difference = difference(from.type(), to.type());
            if (!difference.isEmpty()) {
                review.warn(
                        Kind.TYPES_DIFFER,
                        Review.path(link, "columns"),
                        "link `" + link.name() + "`: `" + from.name() + "` is " + from.type() + " and `" + parent.name()
                                + "." + to.name() + "` is " + to.type() + ": " + difference,
                        "give both ends one type");
            }
        }
    }

    /** What follows from two types of one family that are not one type; empty where nothing does. */
    private static String difference(ColumnType from, ColumnType to) {
        if (from.sql().equals(to.sql())) {
            return "";
        }
        if (from.isText() && to.isText()) {
            return widthDifference(limit(from), limit(to));
        }
        if (from.isInteger() && to.isInteger()) {
            return from.name().compareTo(to.name()) < 0
                    ? "the child cannot hold every key"
                    : "the child can hold numbers that no key has";
        }
        if (from.family() != to.family()) {
            return "both are compared as approximate numbers";
        }
        if (from.name() == ColumnType.Name.NUMERIC && to.name() == ColumnType.Name.NUMERIC) {
            return from.scale() != to.scale() ? "their scales differ" : widthDifference(digits(from), digits(to));
        }
        if (from.name() == to.name()) {
            return "their digits of a second differ";
        }
        return "they are equal only where the wider one has nothing more to say";
    }

    private static String widthDifference(long from, long to) {
        return from == to
                ? ""
                : from < to ? "the child cannot hold every key" : "the child can hold values that no key has";
    }

    private static long limit(ColumnType type) {
        return type.length() == ColumnType.UNBOUNDED ? Long.MAX_VALUE : type.length();
    }

    private static long digits(ColumnType type) {
        return type.precision() == ColumnType.UNBOUNDED ? Long.MAX_VALUE : type.precision();
    }

    private void judgeAction(String key, Action action) {
        List<String> written = action.columns().isEmpty() ? link.columns() : action.columns();
        if (action.name() == ActionName.SET_NULL) {
            List<String> required = written.stream().filter(child::isRequired).toList();
            if (!required.isEmpty()) {
                review.error(
                        Kind.NULL_NOT_ALLOWED,
                        Review.path(link, key),
                        "`" + key + "` of link `" + link.name() + "` sets " + String.join(", ", required)
                                + " to null, which may not be null",
                        required.size() < written.size()
                                ? "name the columns: {set null: ["
                                        + String.join(
                                                ", ",
                                                written.stream()
                                                        .filter(c -> !required.contains(c))
                                                        .toList())
                                        + "]}"
                                : "choose another action, or allow nulls there");
            }
        } else if (action.name() == ActionName.SET_DEFAULT) {
            for (String name : written) {
                Column column = child.column(name);
                if (column.defaultValue().isEmpty()) {
                    boolean isRequired = child.isRequired(name);
                    String problem = "`" + key + "` of link `" + link.name() + "` sets `" + name
                            + "` to its default, and it has none";
                    if (isRequired) {
                        review.error(
                                Kind.NO_DEFAULT,
                                Review.path(link, key),
                                problem + " and may not be null",
                                "declare a default, or choose another action");
                    } else {
                        review.warn(
                                Kind.NO_DEFAULT,
                                Review.path(link, key),
                                problem + ": it would become null",
                                "declare a default, or say set null");
                    }
                }
            }
        }
    }

    private void judgeTwins() {
        for (ForeignKey other : child.links()) {
            if (other.name().equals(link.name())) {
                return;
            }
            if (other.parent().equals(link.parent()) && pairs(other).equals(pairs(link))) {
                review.warn(
                        Kind.SAID_TWICE,
                        Review.path(link),
                        "link `" + link.name() + "` says the same as `" + other.name() + "`",
                        "keep one of them");
                return;
            }
        }
    }

    private static List<String> pairs(ForeignKey of) {
        return java.util.stream.IntStream.range(0, of.columns().size())
                .mapToObj(i -> of.columns().get(i) + "=" + of.parentColumns().get(i))
                .sorted()
                .toList();
    }

    private void judgeOneToOne() {
        if (isKeyOf(child, link.columns())) {
            review.note(
                    Kind.ONE_TO_ONE,
                    Review.path(link),
                    "link `" + link.name() + "` is really one to one: its columns are a key of `" + child.name()
                            + "`, so no parent has two children",
                    "");
        }
    }

    private void judgeMatch() {
        if (link.columns().size() == 1 || link.match() != Match.SIMPLE) {
            return;
        }
        long optional = link.columns().stream()
                .filter(column -> !child.isRequired(column))
                .count();
        if (optional > 0) {
            review.note(
                    Kind.HALF_NULL_POSSIBLE,
                    Review.path(link),
                    "link `" + link.name() + "` has " + link.columns().size() + " columns, and "
                            + (optional == 1 ? "one of them may be null" : optional + " of them may be null")
                            + ": under match simple a half-null row is not judged",
                    "say match: full if such rows are not meant");
        }
    }
}
