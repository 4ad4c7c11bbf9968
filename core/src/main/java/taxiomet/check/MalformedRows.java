package taxiomet.check;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.Plan;
import taxiomet.finding.FindingKind;

/** Rows that could not be taken apart: the pass itself finds them. */
final class MalformedRows implements Kind {
    private final Plan plan;
    private final Map<String, FaultLog> logs = new HashMap<>();

    MalformedRows(Plan plan) {
        this.plan = plan;
    }

    @Override
    public void plan(Table table) {
        plan.read(table);
        logs.put(table.name(), plan.log(FindingKind.MALFORMED_ROW, Severity.ERROR, table, table.name(), List.of()));
    }

    /** Where malformed rows of a table are logged; empty when the table is read for its keys alone. */
    Optional<FaultLog> of(Table table) {
        return Optional.ofNullable(logs.get(table.name()));
    }
}
