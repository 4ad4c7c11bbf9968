package taxiomet.finding;

import java.time.Instant;
import java.util.List;
import taxiomet.charter.Severity;

/**
 * What is new and what is gone between two results.
 *
 * @param title what the later result's charter is called
 * @param shifts the findings that have come, gone or changed; those of the later result first
 * @param still rows that were at fault before and are still
 * @param areRowsKnown whether rows were looked at one by one: not where the results were kept under different keys
 */
public record ResultComparison(
        String title, Standing earlier, Standing later, List<FindingShift> shifts, long still, boolean areRowsKnown) {
    public ResultComparison {
        shifts = List.copyOf(shifts);
    }

    /** How it stood at one time. */
    public record Standing(
            Instant made, long errors, long warnings, long notes, long rows, long faultyRows, long accepted) {
        /** How it stands in a result. */
        public static Standing of(KeptResult result) {
            return new Standing(
                    result.made(),
                    result.count(Severity.ERROR),
                    result.count(Severity.WARNING),
                    result.count(Severity.NOTE),
                    result.rows(),
                    result.faultyRows(),
                    result.findings().stream()
                            .mapToLong(KeptResult.KeptFinding::accepted)
                            .sum());
        }
    }

    /** Faults, which are rows of findings, that were not there; of findings whose rows are not known, as many as there are more. */
    public long newFaults() {
        return shifts.stream()
                .filter(shift -> shift.areRowsKnown() || shift.severity() != Severity.NOTE)
                .mapToLong(shift -> shift.areRowsKnown()
                        ? shift.newRows().size() + shift.acceptedAgain().size()
                        : Math.max(0, shift.now() - shift.before()))
                .sum();
    }

    /** Faults that are there no more. */
    public long goneFaults() {
        return shifts.stream()
                .filter(shift -> shift.areRowsKnown() || shift.severity() != Severity.NOTE)
                .mapToLong(shift ->
                        shift.areRowsKnown() ? shift.goneRows().size() : Math.max(0, shift.before() - shift.now()))
                .sum();
    }

    /** Findings that were not there, those without rows among them. */
    public long newFindings() {
        return shifts.stream()
                .filter(shift -> shift.before() == 0 && shift.severity() != Severity.NOTE)
                .count();
    }

    /** Whether anything is wrong that was not. */
    public boolean isAnythingNew() {
        return shifts.stream()
                .filter(shift -> shift.severity() != Severity.NOTE)
                .anyMatch(shift -> shift.before() == 0
                        || !shift.newRows().isEmpty()
                        || !shift.acceptedAgain().isEmpty()
                        || (!shift.areRowsKnown() && shift.now() > shift.before()));
    }
}
