package taxiomet.survey.count;

import java.util.List;
import java.util.Optional;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.search.Pair;

/**
 * What was counted about a candidate link.
 *
 * @param missing some of the values that no parent has, the commonest first
 * @param hasRings whether it is one of a table to itself, and rows are their own ancestors
 */
public record CountedLink(LinkResult result, List<MissingValue> missing, boolean hasRings) {
    public CountedLink {
        missing = List.copyOf(missing);
    }

    /**
     * The rows of the child.
     *
     * @param all that could be read
     * @param nulls with nulls in all columns of the link
     * @param halfNulls with nulls in some of them
     * @param illTyped without a null, with a value that is not of its type
     * @param orphans without a parent, ill-typed ones too
     */
    public record Rows(long all, long nulls, long halfNulls, long illTyped, long orphans) {}

    /** The result of a candidate, which has no name yet. */
    public static LinkResult result(Pair pair, Rows rows, ChildrenTally children) {
        return new LinkResult(
                "",
                pair.child().name(),
                Declarations.names(pair.child(), pair.columns()),
                pair.parent().name(),
                Declarations.names(pair.parent(), pair.key()),
                "simple",
                true,
                rows.all(),
                rows.all() - rows.nulls() - rows.halfNulls(),
                rows.nulls(),
                rows.halfNulls(),
                rows.illTyped(),
                rows.orphans(),
                Optional.of(children));
    }
}
