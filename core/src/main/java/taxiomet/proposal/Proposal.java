package taxiomet.proposal;

import java.time.Instant;
import java.util.List;

/**
 * Changes that somebody would like to make, in their order.
 *
 * @param isAllOrNothing whether one refused change undoes all of them (R1)
 * @param deferral which links are judged at the end of the proposal only (R14)
 * @param now the one moment that is current throughout (R3)
 */
public record Proposal(List<Change> changes, boolean isAllOrNothing, Deferral deferral, Instant now) {
    /** Which links wait for the end of the proposal. */
    public enum Deferral {
        /** None but those that are declared to be deferred from the start. */
        DECLARED,
        /** All that are declared deferrable. */
        DEFERRABLE,
        /** All. */
        ALL
    }

    public Proposal {
        changes = List.copyOf(changes);
    }
}
