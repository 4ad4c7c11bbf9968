package taxiomet.check;

import java.util.List;
import taxiomet.charter.NotRead;
import taxiomet.charter.Table;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.Plan;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;

/** What a schema declares and nobody could read: it has no rows, and keeps the data from being called sound. */
final class RulesNotRead implements Kind {
    private final Plan plan;

    RulesNotRead(Plan plan) {
        this.plan = plan;
    }

    @Override
    public void plan(Table table) {
        // No row is looked at for it.
    }

    @Override
    public List<Finding> findingsWithoutRows() {
        return plan.charter().notRead().stream()
                .filter(lost -> lost.table().map(plan.options()::judges).orElse(true))
                .map(RulesNotRead::finding)
                .toList();
    }

    private static Finding finding(NotRead lost) {
        return new Finding(
                FindingKind.RULE_NOT_READ,
                lost.severity(),
                lost.table().orElse(""),
                lost.name(),
                List.of(),
                0,
                new Finding.Undeclared(lost.what().word(), lost.declared(), lost.problem(), lost.place()),
                List.of(),
                (most, all) -> {});
    }
}
