package taxiomet.survey.choice;

import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.Finding.MissingValue;

/**
 * Columns whose values lie in a key of another table, or nearly so.
 *
 * @param counts exact: rows judged, null, orphans, children
 * @param isOneToOne whether no parent has two children
 * @param isNamed whether the columns are named for what they point at
 * @param isOfPlainNumbers whether its columns hold whole numbers and are not named like keys
 * @param score 0 to 1: how likely a person would declare it
 * @param reasons what speaks for it and against it, as clauses
 * @param isChosen whether it stands in the draft
 * @param missing the commonest values without a parent
 */
public record CandidateLink(
        LinkResult counts,
        boolean isOneToOne,
        boolean isNamed,
        boolean isOfPlainNumbers,
        double score,
        List<String> reasons,
        boolean isChosen,
        List<MissingValue> missing) {
    public CandidateLink {
        reasons = List.copyOf(reasons);
        missing = List.copyOf(missing);
    }

    CandidateLink withScore(double another) {
        return new CandidateLink(counts, isOneToOne, isNamed, isOfPlainNumbers, another, reasons, isChosen, missing);
    }

    CandidateLink choose() {
        return new CandidateLink(counts, isOneToOne, isNamed, isOfPlainNumbers, score, reasons, true, missing);
    }

    CandidateLink leaveOut(String reason) {
        List<String> more = new ArrayList<>(reasons);
        more.add(reason);
        return new CandidateLink(counts, isOneToOne, isNamed, isOfPlainNumbers, score, more, false, missing);
    }

    /** What speaks for it most where it is chosen, and against it where it is not, in a word or a few. */
    public String mainReason() {
        if (isChosen) {
            return isNamed ? "name" : "values";
        }
        return reasons.isEmpty() ? "values" : reasons.get(reasons.size() - 1);
    }

    /** Whether a link that is chosen starts from the same columns, or from these and more: then this one is not asked for. */
    public boolean isTaken(List<CandidateLink> links) {
        return links.stream()
                .anyMatch(other -> other.isChosen()
                        && other.counts().child().equals(counts.child())
                        && other.counts().columns().containsAll(counts.columns()));
    }

    /** The share of the rows judged that have a parent; 1 where none is judged. */
    public double coverage() {
        return counts.judged() == 0 ? 1 : 1 - (double) counts.orphans() / counts.judged();
    }
}
