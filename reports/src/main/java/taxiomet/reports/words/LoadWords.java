package taxiomet.reports.words;

import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult;
import taxiomet.finding.LoadResult.LoadRefusal;

/** What a load would come to, in words: once for all reports that people read. Values in them are as they are, to be escaped. */
public final class LoadWords {
    private LoadWords() {}

    /** What it comes to in all. */
    public static String answer(LoadResult load) {
        return Counted.grouped(load.loaded()) + " of " + Counted.of(load.rows(), "row")
                + " would get in with all constraints on"
                + (load.loaded() == load.rows()
                        ? ""
                        : "; " + Counted.grouped(load.rows() - load.loaded()) + " refused");
    }

    /** One reason with its rows and the first of them. */
    public static String refused(LoadRefusal refusal) {
        return Counted.grouped(refusal.rows()) + " " + why(refusal) + ", "
                + (refusal.rows() == 1 ? "row " : "the first in row ") + Counted.grouped(refusal.first());
    }

    private static String why(LoadRefusal refusal) {
        return switch (refusal.why()) {
            case OWN_FAULT -> {
                FindingKind kind = refusal.finding().orElseThrow();
                yield kind.words() + (kind == FindingKind.MALFORMED_ROW ? "" : " at " + refusal.at());
            }
            case DUPLICATE -> "duplicate of " + refusal.at();
            case NO_PARENT -> "without a parent over " + refusal.at();
            case PARENT_NOT_IN -> "whose parent over " + refusal.at() + " is not in";
            case HALF_NULL -> "half-null over " + refusal.at();
        };
    }

    /** What else is worth saying. */
    public static List<String> remarks(LoadResult load) {
        List<String> remarks = new ArrayList<>();
        if (!load.inCircle().isEmpty()) {
            remarks.add("in a circle of tables: " + String.join(", ", load.inCircle())
                    + "; the parents come later, so only rows with nulls there get in");
        }
        if (!load.notHeld().isEmpty()) {
            remarks.add("not enforced, and in no load's way: " + String.join(", ", load.notHeld()));
        }
        return remarks;
    }
}
