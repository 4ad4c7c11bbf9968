package taxiomet.reports.words;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Choice;
import taxiomet.finding.settled.Docket.Item;

/** The columns of a docket, and what stands in them: the same in a workbook and in a CSV file. */
public final class DocketWords {
    public static final String REFERENCE = "reference";
    public static final String DECISION = "decision";
    public static final String NEW_VALUE = "new value";
    public static final String UNTIL = "until";
    public static final String REASON = "reason";
    public static final String DECIDED_BY = "decided by";
    /** The columns to fill in. */
    public static final List<String> TO_FILL = List.of(DECISION, NEW_VALUE, UNTIL, REASON, DECIDED_BY);

    private static final String WHOLE_ROW = "the whole row";

    /** All columns: those shown, those to be filled in, and what a row is known by. */
    public static final List<String> COLUMNS = List.of(
            "finding",
            "table",
            "row",
            "at fault",
            "holds",
            "what is wrong",
            "proposed",
            DECISION,
            NEW_VALUE,
            UNTIL,
            REASON,
            DECIDED_BY,
            WHOLE_ROW,
            REFERENCE);

    private static final int LONGEST_ROW = 1_500;

    private DocketWords() {}

    /** What is shown of an item, column by column: all that is not to be filled in. */
    public static Map<String, String> shown(Item item) {
        Map<String, String> shown = new LinkedHashMap<>();
        shown.put("finding", item.kind().words() + " at " + CellText.escaped(item.at()));
        shown.put("table", CellText.escaped(item.table()));
        shown.put("row", CellText.shortened(item.name()));
        shown.put("at fault", CellText.escaped(String.join(", ", item.columns())));
        shown.put("holds", CellText.shortened(item.holds()));
        shown.put("what is wrong", CellText.shortened(item.problem()));
        shown.put("proposed", item.hasProposal() ? words(item.choices().get(0)) : "");
        shown.put(WHOLE_ROW, wholeRow(item));
        return shown;
    }

    private static String wholeRow(Item item) {
        String row = item.cells().entrySet().stream()
                .map(cell -> CellText.escaped(cell.getKey()) + " = " + CellText.of(cell.getValue()))
                .collect(Collectors.joining("; "));
        return row.length() <= LONGEST_ROW ? row : row.substring(0, LONGEST_ROW) + " ...";
    }

    /** A choice as it stands in a list. */
    public static String words(Choice choice) {
        return CellText.escaped(choice.words());
    }

    /** What a docket is for, in plain words, for somebody who does not know the program. */
    public static List<String> cover(Docket docket, String owner) {
        List<String> lines = new ArrayList<>();
        lines.add(CellText.escaped(docket.title()) + ": rows that need a decision"
                + (owner.isEmpty() ? "" : " by " + CellText.escaped(owner)));
        lines.add(Counted.of(docket.items().size(), "decision")
                + " to take. Nothing has been changed in the tables, and nothing"
                + " will be before somebody has rehearsed what the decisions would do.");
        lines.add(
                "Each line of \"decisions\" is a row that breaks a rule. The first columns say which row it is, and what is wrong"
                        + " with it.");
        lines.add(
                "Choose in \"decision\" what is to be done; the list is the row's own. What is proposed stands before it, where"
                        + " something leaves little doubt.");
        lines.add(
                "Where a choice speaks of the new value, write it into \"new value\", as it is to stand in the table.");
        lines.add("A fault that is borne for a while needs a day in \"until\" (2027-05-31) and a \"reason\".");
        lines.add("Leave a decision empty that you cannot take: it stays open, and comes back.");
        lines.add(
                "Other columns are not read. Lines may be sorted, hidden and left out; the reference at the end says which row each"
                        + " is.");
        return lines;
    }
}
