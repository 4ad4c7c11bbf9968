package taxiomet.survey.choice;

import java.util.List;
import taxiomet.finding.Evidence;

/**
 * Columns that identify a row, or nearly so.
 *
 * @param excess rows beyond the first of each value
 * @param nulls rows with a null in the columns
 * @param illTyped whether there are values among them that are not of their column's type, and identify nothing
 * @param score 0 to 1: how likely a person would declare it
 * @param reasons what speaks for it, as clauses
 * @param isChosen whether it is the table's key in the draft: as its primary key, or as one that links point at
 * @param isPrimary whether it is the one that ranks first
 * @param duplicates some of the rows that share a value
 */
public record CandidateKey(
        String table,
        List<String> columns,
        long excess,
        long nulls,
        boolean illTyped,
        double score,
        List<String> reasons,
        boolean isChosen,
        boolean isPrimary,
        List<Evidence> duplicates) {
    public CandidateKey {
        columns = List.copyOf(columns);
        reasons = List.copyOf(reasons);
        duplicates = List.copyOf(duplicates);
    }

    /** Whether it is unique and without nulls. */
    public boolean isExact() {
        return excess == 0 && nulls == 0 && !illTyped;
    }

    public CandidateKey asChosen() {
        return marked(true, isPrimary);
    }

    CandidateKey asOther() {
        return marked(false, false);
    }

    CandidateKey asPrimary() {
        return marked(true, true);
    }

    public CandidateKey withDuplicates(List<Evidence> rows) {
        return new CandidateKey(table, columns, excess, nulls, illTyped, score, reasons, isChosen, isPrimary, rows);
    }

    private CandidateKey marked(boolean chosen, boolean primary) {
        return new CandidateKey(table, columns, excess, nulls, illTyped, score, reasons, chosen, primary, duplicates);
    }
}
