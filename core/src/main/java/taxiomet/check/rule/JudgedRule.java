package taxiomet.check.rule;

import taxiomet.charter.Rule;
import taxiomet.check.pass.FaultLog;

/** A rule with the counts of its rows. */
public interface JudgedRule {
    Rule rule();

    /** Rows for which the condition was evaluated. */
    long judged();

    /** Rows with an operand that is not of its type, or without the parent that the condition asks about. */
    long notJudged();

    /** Rows among the judged for which it is neither true nor false. */
    long unknown();

    /** Rows among those not judged that have more different parents than are looked at, since keys of parents are repeated. */
    default long withTooManyParents() {
        return 0;
    }

    FaultLog faults();
}
