package taxiomet.survey.count;

import java.util.List;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.Finding.MissingValue;

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
}
