package taxiomet.load;

import java.util.Optional;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult.Why;

/** What a row can be refused for: one place of the charter and why. */
record Constraint(Why why, Optional<FindingKind> finding, String at) {
    static Constraint of(Why why, String at) {
        return new Constraint(why, Optional.empty(), at);
    }
}
