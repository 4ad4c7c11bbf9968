package taxiomet.check.rule;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.check.pass.Telling;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;

/** What rules declare: conditions over a row, its parents and its children. */
public final class RuleKinds implements Kind {
    private final Plan plan;
    private final List<PlannedRule> rules = new ArrayList<>();

    private record PlannedRule(Table table, RuleTally tally) {}

    /** @param plan gets the checks */
    public RuleKinds(Plan plan) {
        this.plan = plan;
    }

    @Override
    public void plan(Table table) {
        for (Rule rule : table.rules()) {
            List<String> columns = IntStream.of(rule.condition().columnsRead())
                    .mapToObj(column -> table.columns().get(column).name())
                    .toList();
            FaultLog log = plan.log(FindingKind.BROKEN_RULE, rule.severity(), table, rule.name(), columns);
            log.tellAs(new BrokenTold(log, rule, Optional.empty()));
            RuleTally tally = new RuleTally(rule, log);
            rules.add(new PlannedRule(table, tally));
            if (!rule.condition().readsRelatives()) {
                plan.look(table, new RuleCheck(tally));
            } else {
                JoinedRuleCheck check = new JoinedRuleCheck(tally, table, plan.charter(), plan.spill(), plan.secret());
                plan.look(table, check);
                plan.conclude(check);
                check.otherSides().forEach((side, other) -> plan.look(other, side));
                plan.atEnd(check::forgetFigures);
                log.tellAs(new BrokenTold(log, rule, Optional.of(check)));
            }
        }
    }

    private record BrokenTold(FaultLog log, Rule rule, Optional<JoinedRuleCheck> joined) implements Telling {
        @Override
        public Finding.Details details() {
            return new Finding.Broken(rule.text(), log.reasons());
        }

        @Override
        public Evidence evidence(FoundRow row, long remark) {
            String reason = log.reason(remark);
            String figures = joined.map(check -> check.figuresOf(row.ref())).orElse("");
            return row.evidence(figures.isEmpty() ? reason : reason + ": " + figures);
        }
    }

    /** How many rows each rule was judged for, as declared. */
    public List<RuleResult> results() {
        return rules.stream()
                .map(planned -> new RuleResult(
                        planned.table().name(),
                        planned.tally().rule().name(),
                        planned.tally().rule().text(),
                        !planned.tally().rule().condition().parentsRead().isEmpty(),
                        !planned.tally().rule().condition().childrenRead().isEmpty(),
                        planned.tally().judged(),
                        planned.tally().notJudged(),
                        planned.tally().unknown(),
                        planned.tally().faults().size()))
                .toList();
    }

    /** What is worth saying about the rules of a table. */
    public List<Remark> remarks(Table table) {
        return rules.stream()
                .filter(planned ->
                        planned.table().equals(table) && planned.tally().withTooManyParents() > 0)
                .map(planned -> undecided(planned.tally()))
                .toList();
    }

    private static Remark undecided(RuleTally rule) {
        long rows = rule.withTooManyParents();
        return new Remark(
                "rule not judged",
                "rule " + rule.rule().name() + " was not judged for " + rows + (rows == 1 ? " row" : " rows")
                        + ": keys of parents are repeated, and there are more than " + JoinedRuleCheck.MOST_PARENTS
                        + " different parents for one row");
    }
}
