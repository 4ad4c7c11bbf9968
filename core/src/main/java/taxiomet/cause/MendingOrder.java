package taxiomet.cause;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.finding.Cause;
import taxiomet.finding.Cause.What;
import taxiomet.finding.FindingKind;

/**
 * The order in which causes are best mended: what cures most rows first, but before it what would undo it. Mending a parent's key comes before
 * what points at it, and counts and conditions come when all rows have their parents.
 * What is a guess comes behind all that is none.
 */
final class MendingOrder {
    private final Charter charter;

    MendingOrder(Charter charter) {
        this.charter = charter;
    }

    List<Cause> of(List<Cause> causes) {
        List<Cause> left = new ArrayList<>(causes);
        left.sort(Comparator.comparing((Cause cause) -> cause.finding() == FindingKind.LIKELY_DOUBLE)
                .thenComparing(Comparator.comparingLong(Cause::rows).reversed())
                .thenComparing(Cause::finding));
        List<Cause> ordered = new ArrayList<>();
        while (!left.isEmpty()) {
            Cause next = firstOf(left, left.get(0));
            ordered.add(next);
            left.remove(next);
        }
        return ordered;
    }

    /** What has to come before a cause, or itself. There are no circles: keys come before what points at them, and both before counts. */
    private Cause firstOf(List<Cause> left, Cause cause) {
        return left.stream()
                .filter(other -> isBefore(other, cause))
                .findFirst()
                .map(other -> firstOf(left, other))
                .orElse(cause);
    }

    private boolean isBefore(Cause one, Cause other) {
        if (isOfCounts(other)) {
            return !isOfCounts(one) && isOfLinkTo(one, other.table());
        }
        return changesKey(one) && pointsAt(other, one.table());
    }

    /** Whether mending it gives a parent another key, or takes one of several rows away. */
    private static boolean changesKey(Cause cause) {
        boolean isOfKeys = switch (cause.finding()) {
            case DUPLICATE, MALFORMED_ROW, NULL_IN_KEY -> true;
            default -> false;
        };
        return isOfKeys || cause.what() == What.KEEP_ONE || cause.what() == What.MEND_ROW;
    }

    /** Whether mending it gives rows a parent in a table. */
    private static boolean pointsAt(Cause cause, String parent) {
        return (cause.what() == What.ENTER_PARENT && cause.table().equals(parent))
                || ((cause.what() == What.RESPELL || cause.what() == What.EMPTY)
                        && cause.parent().equals(parent));
    }

    private static boolean isOfCounts(Cause cause) {
        return switch (cause.finding()) {
            case TOO_FEW_CHILDREN, TOO_MANY_CHILDREN, BROKEN_RULE, OWN_ANCESTOR -> true;
            default -> false;
        };
    }

    /** Whether mending it changes which rows of a table have parents, or which children they have. */
    private boolean isOfLinkTo(Cause cause, String table) {
        boolean isOfOrphans = cause.finding() == FindingKind.ORPHAN || cause.what() == What.MEND_ROW;
        return isOfOrphans
                && cause.cures().stream()
                        .anyMatch(cure -> cure.table().equals(table) || parentOf(cure.table(), cure.at(), table));
    }

    private boolean parentOf(String child, String link, String table) {
        return charter.table(child)
                .link(link)
                .map(ForeignKey::parent)
                .filter(table::equals)
                .isPresent();
    }
}
