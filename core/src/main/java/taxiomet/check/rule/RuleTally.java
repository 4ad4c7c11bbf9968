package taxiomet.check.rule;

import taxiomet.charter.Rule;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.StateExchange;

/** A rule with the counts of its rows and the log of those that break it. */
public final class RuleTally {
    private final Rule rule;
    private final FaultLog faults;
    private long judged;
    private long notJudged;
    private long unknown;
    private long withTooManyParents;

    /** @param faults gets the rows that break the rule */
    public RuleTally(Rule rule, FaultLog faults) {
        this.rule = rule;
        this.faults = faults;
    }

    public Rule rule() {
        return rule;
    }

    public FaultLog faults() {
        return faults;
    }

    /** Counts rows for which the condition was evaluated. */
    void addJudged(long rows) {
        judged += rows;
    }

    /** Counts rows with an operand that is not of its type, or without the parent that the condition asks about. */
    void addNotJudged(long rows) {
        notJudged += rows;
    }

    /** Counts rows among the judged for which the condition is neither true nor false. */
    void addUnknown(long rows) {
        unknown += rows;
    }

    /** Counts a row among those not judged that has more different parents than are looked at, since their keys are repeated. */
    void addWithTooManyParents() {
        withTooManyParents++;
    }

    public long judged() {
        return judged;
    }

    public long notJudged() {
        return notJudged;
    }

    public long unknown() {
        return unknown;
    }

    public long withTooManyParents() {
        return withTooManyParents;
    }

    void exchange(StateExchange state) {
        judged = state.count(judged);
        notJudged = state.count(notJudged);
        unknown = state.count(unknown);
    }
}
