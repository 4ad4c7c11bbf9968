package taxiomet.check.alike;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Alike;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.Plan;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.FindingKind;

/** What a charter says of rows that are probably one thing entered twice. */
public final class AlikeKinds implements Kind {
    private final Plan plan;
    private final List<AlikeCheck> checks = new ArrayList<>();

    /** @param plan gets the checks */
    public AlikeKinds(Plan plan) {
        this.plan = plan;
    }

    @Override
    public void plan(Table table) {
        for (Alike rule : table.alike()) {
            FaultLog log = plan.log(FindingKind.LIKELY_DOUBLE, rule.severity(), table, rule.name(), rule.columns());
            AlikeCheck check = new AlikeCheck(table, rule, plan.spill(), plan.budget(), plan.secret(), log);
            checks.add(check);
            plan.look(table, check);
            plan.lookUp(table, check::find);
            plan.atEnd(check.found()::close);
            log.tellAs(new AlikeTold(check));
        }
    }

    /** What is to be said of a table's rows beside those that were found. */
    public List<Remark> remarks(Table table) {
        List<Remark> remarks = new ArrayList<>();
        for (AlikeCheck check : checks) {
            if (!check.table().equals(table)) {
                continue;
            }
            String rule = "rule " + check.rule().name();
            if (check.areTooMany()) {
                remarks.add(new Remark(
                        "likely doubles not all found",
                        rule + " takes more than " + CandidatePairs.MOST_PAIRS
                                + " pairs of rows for one thing, and no more were looked for: let more columns agree"));
            } else if (check.largeBlocks() > 0) {
                remarks.add(new Remark(
                        "likely doubles not all found",
                        rule + ": so many rows are alike in several columns that in " + check.largeBlocks()
                                + (check.largeBlocks() == 1 ? " group" : " groups")
                                + " of them not every two were compared"));
            }
        }
        return remarks;
    }
}
