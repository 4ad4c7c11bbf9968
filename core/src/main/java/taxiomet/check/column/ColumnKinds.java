package taxiomet.check.column;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Column;
import taxiomet.charter.IntRange;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.Reasoned;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.values.TypedColumn;

/** What columns declare: type, not null, length, allowed values, pattern, gaps. */
public final class ColumnKinds implements Kind {
    private final Plan plan;
    private final List<PlannedGaps> gaps = new ArrayList<>();

    private record PlannedGaps(Table table, Column column, GapCheck check) {}

    /** @param plan gets the checks */
    public ColumnKinds(Plan plan) {
        this.plan = plan;
    }

    @Override
    public void plan(Table table) {
        for (int place = 0; place < table.columns().size(); place++) {
            Column column = table.columns().get(place);
            planType(table, column, place);
            // A null in the primary key is a finding of its own already.
            if (column.isRequired() && !table.isOfPrimaryKey(column.name())) {
                plan.look(
                        table,
                        new StateCheck(
                                place, column, TypedColumn.NULL, log(FindingKind.NULL_NOT_ALLOWED, table, column, "")));
            }
            planValues(table, column, place);
            if (column.notesGaps()) {
                GapCheck check = new GapCheck(place, plan.spill());
                gaps.add(new PlannedGaps(table, column, check));
                plan.look(table, check);
                plan.conclude(check);
            }
        }
    }

    private void planType(Table table, Column column, int place) {
        String declared = column.type().sql()
                + column.format().map(format -> ", written " + format).orElse("")
                + (column.decimalComma() ? ", written with a decimal comma" : "");
        plan.look(table, new TypeCheck(place, column, log(FindingKind.TYPE_MISMATCH, table, column, declared)));
        plan.look(
                table,
                new StateCheck(place, column, TypedColumn.ODD, log(FindingKind.ODD_SPELLING, table, column, "")));
    }

    private void planValues(Table table, Column column, int place) {
        if (column.length().isPresent()) {
            IntRange length = column.length().get();
            FaultLog log = log(FindingKind.WRONG_LENGTH, table, column, length + " characters");
            plan.look(table, new LengthCheck(place, length, log));
        }
        if (!column.values().isEmpty()) {
            FaultLog log =
                    log(FindingKind.VALUE_NOT_ALLOWED, table, column, "one of " + String.join(", ", column.values()));
            plan.look(table, new AllowedValuesCheck(place, column, plan.secret(), log));
        }
        if (column.pattern().isPresent()) {
            String pattern = column.pattern().get();
            FaultLog log = log(FindingKind.PATTERN_NOT_MET, table, column, "pattern " + pattern);
            plan.look(table, new PatternCheck(place, pattern, log));
        }
    }

    private FaultLog log(FindingKind kind, Table table, Column column, String declared) {
        FaultLog log = plan.log(kind, column.severity(), table, column.name(), List.of(column.name()));
        log.tellAs(new Reasoned(log, declared));
        return log;
    }

    @Override
    public List<Finding> findingsWithoutRows() {
        return gaps.stream()
                .filter(planned -> planned.check().found().ranges() > 0)
                .map(planned -> new Finding(
                        FindingKind.GAP_IN_KEY,
                        Severity.NOTE,
                        planned.table().name(),
                        planned.column().name(),
                        List.of(planned.column().name()),
                        0,
                        planned.check().found(),
                        List.of(),
                        (most, all) -> {}))
                .toList();
    }
}
