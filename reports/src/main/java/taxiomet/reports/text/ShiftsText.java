package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.Severity;
import taxiomet.finding.FindingShift;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** What is new and what is gone since an earlier result, in lines. */
public final class ShiftsText {
    private static final int INDENT = 4;
    private static final int NAMED = 8;

    private ShiftsText() {}

    /** Writes all of them. */
    public static void write(List<FindingShift> shifts, Paper paper) {
        if (shifts.isEmpty()) {
            paper.paragraph("nothing is new, and nothing is gone", 0);
            return;
        }
        for (FindingShift shift : shifts) {
            write(shift, paper);
        }
    }

    private static void write(FindingShift shift, Paper paper) {
        String at = CellText.escaped(shift.table() + (shift.table().isEmpty() ? "" : ".") + shift.at());
        String head = shift.before() == 0 ? "new" : shift.now() == 0 ? "gone" : "changed";
        paper.paragraph(
                style(shift).apply(head, paper.hasColor()) + "  " + shift.kind().words() + " at " + at + counts(shift),
                0,
                Paragraph.HANGING);
        List<String> told = new ArrayList<>();
        if (!shift.newRows().isEmpty()) {
            told.add("at fault now: " + names(shift.newRows()));
        }
        if (!shift.lostParents().isEmpty()) {
            told.add("the parent was there in the earlier result: " + names(shift.lostParents()));
        }
        if (!shift.goneRows().isEmpty() && shift.now() > 0) {
            told.add("no more: " + names(shift.goneRows()));
        }
        if (!shift.renumbered().isEmpty()) {
            told.add("the same rows under another key: "
                    + names(shift.renumbered().stream()
                            .map(row -> row.before() + " is " + row.now())
                            .toList()));
        }
        if (!shift.acceptedAgain().isEmpty()) {
            told.add("accepted no more: " + names(shift.acceptedAgain()));
        }
        if (shift.newlyAccepted() > 0) {
            told.add("newly accepted: " + Counted.of(shift.newlyAccepted(), "row"));
        }
        if (!shift.areRowsKnown() && shift.severity() != Severity.NOTE) {
            told.add("rows could not be compared one by one");
        }
        told.forEach(line -> paper.paragraph(line, INDENT));
    }

    private static Style style(FindingShift shift) {
        boolean isWorse = shift.now() > shift.before()
                || !shift.newRows().isEmpty()
                || !shift.acceptedAgain().isEmpty();
        return isWorse ? Style.of(shift.severity()) : shift.now() < shift.before() ? Style.GOOD : Style.NOTE;
    }

    private static String counts(FindingShift shift) {
        if (shift.kind().hasNoRows()) {
            return "";
        } else if (shift.before() == 0) {
            return ": " + Counted.of(shift.now(), "row");
        } else if (shift.now() == 0) {
            return ": it had " + Counted.of(shift.before(), "row");
        }
        return ": " + Counted.of(shift.now(), "row")
                + (shift.now() == shift.before()
                        ? ", as many as before"
                        : ", before " + Counted.grouped(shift.before()));
    }

    private static String names(List<String> rows) {
        String named = rows.stream().limit(NAMED).map(CellText::shortened).collect(Collectors.joining(", "));
        long more = rows.size() - (long) NAMED;
        return more > 0 ? named + " and " + Counted.grouped(more) + " more" : named;
    }
}
