package taxiomet.check.pass;

import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;

/**
 * Tells of each row the reason that was logged with it.
 *
 * @param declared what the charter asks for there; empty where the kind says it all
 */
public record Reasoned(FaultLog log, String declared) implements Telling {
    @Override
    public Finding.Details details() {
        return new Finding.Reasons(declared, log.reasons());
    }

    @Override
    public Evidence evidence(FoundRow row, long remark) {
        return row.evidence(log.reason(remark));
    }
}
