package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.FindingShift;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** What is new and what is gone since the last result, in lines. */
public final class ShiftsText {
    private static final int INDENT = 2;
    private static final int NAMED = 8;

    private ShiftsText() {}

    /** Writes all of them. */
    public static void write(List<FindingShift> shifts, Paper paper) {
        if (shifts.isEmpty()) {
            paper.paragraph("nothing is new, and nothing is gone", 0);
            return;
        }
        for (FindingShift shift : shifts) {
            String at = CellText.escaped(shift.table() + (shift.table().isEmpty() ? "" : ".") + shift.at());
            String head = shift.before() == 0 ? "new" : shift.now() == 0 ? "gone" : "changed";
            Style style = shift.now() > shift.before()
                    ? Style.of(shift.severity())
                    : shift.now() < shift.before() ? Style.GOOD : Style.NOTE;
            String rows = shift.before() == 0
                    ? Counted.of(shift.now(), "row")
                    : shift.now() == 0
                            ? "it had " + Counted.of(shift.before(), "row")
                            : Counted.of(shift.now(), "row") + ", before " + Counted.grouped(shift.before());
            paper.paragraph(
                    style.apply(head, paper.hasColor()) + "  " + shift.kind().words() + " at " + at + ": " + rows,
                    0,
                    Paragraph.HANGING);
            List<String> told = new ArrayList<>();
            if (!shift.newRows().isEmpty()) {
                told.add("at fault now: " + names(shift.newRows()));
            }
            if (!shift.goneRows().isEmpty() && shift.now() > 0) {
                told.add("no more: " + names(shift.goneRows()));
            }
            if (!shift.areRowsKnown()) {
                told.add("too many rows to compare them one by one");
            }
            told.forEach(line -> paper.paragraph(line, 2 * INDENT));
        }
    }

    private static String names(List<String> rows) {
        String named = rows.stream().limit(NAMED).map(CellText::shortened).collect(Collectors.joining(", "));
        long more = rows.size() - (long) NAMED;
        return more > 0 ? named + " and " + Counted.grouped(more) + " more" : named;
    }
}
