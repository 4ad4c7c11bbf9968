package taxiomet.finding;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/**
 * One row behind a finding.
 *
 * @param part the file that the row stands in
 * @param row its number in that file, 1 for the first data row
 * @param line the line it begins in, 1 for the first of the file; 0 where there are no lines
 * @param values the row's cells, one for each declared column of its table, null where null; empty for a malformed row
 * @param group for rows that stand in groups, the number of the row's group, 1 for the first; otherwise 0
 * @param problem what is wrong with the row, as a clause; may be empty where the finding says it all
 * @param hint for an orphan, the parent that was probably meant
 * @param differsIn for a duplicate that is not the first of its group, the columns beside the key that differ from the first; for a likely double
 *     those of its rule that are not written as in the row it is likest to
 * @param raw for a malformed row, the line it begins in as it stands there, of a long one its beginning; otherwise empty
 * @param isAccepted whether the charter says that the row is known and borne
 */
public record Evidence(
        String part,
        long row,
        long line,
        List<String> values,
        long group,
        String problem,
        Optional<Hint> hint,
        List<String> differsIn,
        String raw,
        boolean isAccepted) {
    /** A row that is not accepted. */
    public Evidence(
            String part,
            long row,
            long line,
            List<String> values,
            long group,
            String problem,
            Optional<Hint> hint,
            List<String> differsIn,
            String raw) {
        this(part, row, line, values, group, problem, hint, differsIn, raw, false);
    }

    /** The same row, accepted or not. */
    public Evidence accepted(boolean isSo) {
        return isSo == isAccepted
                ? this
                : new Evidence(part, row, line, values, group, problem, hint, differsIn, raw, isSo);
    }

    public Evidence {
        differsIn = List.copyOf(differsIn);
        values = Collections.unmodifiableList(new ArrayList<>(values));
    }
}
