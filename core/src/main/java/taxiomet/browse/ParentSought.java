package taxiomet.browse;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.ForeignKey;
import taxiomet.finding.Hint;
import taxiomet.finding.TraceResult.LinkState;

/** The parent of a row over one link, while it is sought and when it has been found. */
final class ParentSought {
    private final ForeignKey link;
    private final LinkState judged;
    private final Optional<Tally> tally;
    private List<RowAtHand> found = List.of();
    private Optional<Hint> hint = Optional.empty();

    /**
     * @param judged what the row's own values say; {@link LinkState#MISSING} while nothing was found
     * @param tally gets the parents; empty where there is nothing to seek
     */
    ParentSought(ForeignKey link, LinkState judged, Optional<Tally> tally) {
        this.link = link;
        this.judged = judged;
        this.tally = tally;
    }

    ForeignKey link() {
        return link;
    }

    LinkState state() {
        return rows() > 0 ? LinkState.THERE : judged;
    }

    long rows() {
        return tally.map(Tally::rows).orElse(0L);
    }

    /** The first parents' references. */
    long[] refs() {
        return tally.map(Tally::first).orElse(new long[0]);
    }

    /** The first parent. */
    Optional<RowAtHand> parent() {
        return found.stream().findFirst();
    }

    /** All rows that have the key, as far as they were read: more than one where it is no key in fact. */
    List<RowAtHand> found() {
        return found;
    }

    void setFound(List<RowAtHand> parents) {
        found = List.copyOf(parents);
    }

    Optional<Hint> hint() {
        return hint;
    }

    void setHint(Optional<Hint> found) {
        hint = found;
    }
}
