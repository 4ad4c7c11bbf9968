package taxiomet.check;

import taxiomet.charter.Rule;

/** A rule with the counts of its rows. */
interface JudgedRule {
    Rule rule();

    /** Rows for which the condition was evaluated. */
    long judged();

    /** Rows with an operand that is not of its type, or without the parent that the condition asks about. */
    long notJudged();

    /** Rows among the judged for which it is neither true nor false. */
    long unknown();

    FaultLog faults();
}
