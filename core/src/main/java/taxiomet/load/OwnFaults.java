package taxiomet.load;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Rule;
import taxiomet.check.pass.FaultLog;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult.Why;
import taxiomet.spill.SortedSpool;

/** The rows of a table that a check found at fault by themselves, asked about in the order in which they stand. */
final class OwnFaults {
    private final List<Cursor> cursors = new ArrayList<>();

    private static final class Cursor {
        private final Constraint constraint;
        private final SortedSpool.Reader reader;
        private long next;

        Cursor(Constraint constraint, FaultLog log) {
            this.constraint = constraint;
            this.reader = log.read();
            advance();
        }

        private void advance() {
            next = reader.next() ? reader.first() : Long.MAX_VALUE;
        }

        boolean isAt(long ref) {
            while (next < ref) {
                advance();
            }
            return next == ref;
        }
    }

    /** @param logs of all findings; those of the table that a constraint would refuse are taken */
    OwnFaults(Charter charter, String table, List<FaultLog> logs) {
        logs.stream()
                .filter(log -> log.table().equals(table) && isHeld(charter, log))
                .forEach(log ->
                        cursors.add(new Cursor(new Constraint(Why.OWN_FAULT, Optional.of(log.kind()), log.at()), log)));
    }

    /** Whether a database would hold it by itself: no rule over other rows. */
    private static boolean isHeld(Charter charter, FaultLog log) {
        return switch (log.kind()) {
            case TYPE_MISMATCH, NULL_IN_KEY, NULL_NOT_ALLOWED, WRONG_LENGTH, VALUE_NOT_ALLOWED, PATTERN_NOT_MET -> true;
            case BROKEN_RULE ->
                charter.table(log.table()).rules().stream()
                        .filter(rule -> rule.name().equals(log.at()))
                        .map(Rule::condition)
                        .anyMatch(condition -> condition.parentsRead().isEmpty()
                                && condition.childrenRead().isEmpty());
            default -> false;
        };
    }

    /** What a row that could be read is at fault for, the first that is declared; rows are asked for as they stand, each once. */
    Optional<Constraint> of(long ref) {
        Constraint found = null;
        for (Cursor cursor : cursors) {
            if (cursor.isAt(ref) && found == null) {
                found = cursor.constraint;
            }
        }
        return Optional.ofNullable(found);
    }

    /** Rows of one log, asked about in the same way. */
    static OwnFaults ofLog(FaultLog log) {
        OwnFaults faults = new OwnFaults();
        faults.cursors.add(new Cursor(new Constraint(Why.NO_PARENT, Optional.of(FindingKind.ORPHAN), log.at()), log));
        return faults;
    }

    private OwnFaults() {}
}
