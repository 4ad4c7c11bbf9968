package taxiomet.rehearse.replay;

import java.util.List;
import taxiomet.proposal.Change;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ReachedRow;

/**
 * What became of one change in a replay, or of the whole proposal at its end.
 *
 * @param change null for the end of the proposal
 * @param refusals none where the change is accepted
 * @param effects what it did, or would have done had nothing refused it
 * @param keptByTwins rows whose key another row has as well, so that nothing acted (R6)
 * @param direct how many rows the change names
 * @param isUndone whether it left nothing behind
 */
public record ChangeOutcome(
        Change change,
        Refusals refusals,
        List<Effect> effects,
        List<ReachedRow> keptByTwins,
        int direct,
        boolean isUndone) {
    /** Whether nothing refused it. */
    public boolean isAccepted() {
        return refusals.isEmpty();
    }
}
