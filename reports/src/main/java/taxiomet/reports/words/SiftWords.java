package taxiomet.reports.words;

import java.util.Map;
import java.util.stream.Collectors;
import taxiomet.finding.FindingKind;
import taxiomet.finding.settled.SiftResult;
import taxiomet.finding.settled.SiftResult.AsideRow;
import taxiomet.finding.settled.SiftResult.CauseRow;
import taxiomet.finding.settled.SiftResult.Reason;

/** How a sift of rows is told. */
public final class SiftWords {
    private SiftWords() {}

    /** What it came to, as a clause. */
    public static String answer(SiftResult result) {
        if (result.aside() == 0) {
            return "all " + Counted.of(result.rows(), "row") + " obey the charter together";
        }
        return Counted.grouped(result.rows() - result.aside()) + " of " + Counted.of(result.rows(), "row")
                + (result.rows() - result.aside() == 1 ? " obeys" : " obey") + " the charter together, "
                + Counted.grouped(result.aside()) + (result.aside() == 1 ? " is" : " are") + " set aside";
    }

    /** A reason, behind a count of rows. */
    public static String reason(Reason reason) {
        return switch (reason.why()) {
            case FAULT -> {
                FindingKind kind = reason.finding().orElseThrow();
                yield kind.words() + (kind == FindingKind.MALFORMED_ROW ? "" : " at " + reason.at());
            }
            case ANOTHER_STAYS -> "duplicate of " + reason.at() + ", another stays";
            case NONE_CHOSEN -> "duplicate of " + reason.at() + ", none chosen";
            case PARENT_ASIDE ->
                "whose parent in " + reason.causeTable().orElseThrow() + " is set aside, over " + reason.at();
        };
    }

    /** Why one row is set aside, as a clause with the row that caused it. */
    public static String reason(AsideRow row) {
        String by = row.cause().map(SiftWords::named).orElse("");
        return switch (row.reason().why()) {
            case FAULT -> reason(row.reason());
            case ANOTHER_STAYS -> "has the key " + row.reason().at() + " of " + by + ", which stays";
            case NONE_CHOSEN -> "has the key " + row.reason().at() + " of " + by + ", and none of them was chosen";
            case PARENT_ASIDE -> "points over " + row.reason().at() + " at " + by + ", which is set aside";
        };
    }

    private static String named(CauseRow row) {
        return row.table() + " row " + row.row() + (row.key().isEmpty() ? "" : " (" + key(row.key()) + ")");
    }

    /** A key, column by column. */
    public static String key(Map<String, String> key) {
        return key.entrySet().stream()
                .map(cell -> cell.getKey() + " " + CellText.of(cell.getValue()))
                .collect(Collectors.joining(", "));
    }
}
