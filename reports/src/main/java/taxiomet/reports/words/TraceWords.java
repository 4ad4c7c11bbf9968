package taxiomet.reports.words;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import taxiomet.finding.TraceResult;
import taxiomet.finding.TraceResult.Below;
import taxiomet.finding.TraceResult.Children;
import taxiomet.finding.TraceResult.LinkState;
import taxiomet.finding.TraceResult.Parent;
import taxiomet.finding.TraceResult.RowFault;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.finding.TraceResult.TracedRow;
import taxiomet.finding.TraceResult.Twin;

/** A row and its relatives in words: once for all reports that people read. What stands in cells is escaped. */
public final class TraceWords {
    /** A row without a label is told by so many characters of what it holds, or few more. */
    private static final int ENOUGH_OF_CELLS = 100;

    private TraceWords() {}

    /** What is said of the row first. */
    public static String answer(TraceResult result) {
        if (result.found() == 0) {
            return "no such row"
                    + result.near()
                            .map(hint -> "; " + CellText.escaped(hint.words()))
                            .orElse("");
        }
        if (result.found() > 1 && !isOneTraced(result)) {
            return Counted.of(result.found(), "row") + " meet the condition; name one by its key to see its relatives";
        }
        TracedRow row = result.rows().get(0);
        List<String> said = new ArrayList<>();
        if (result.found() > 1) {
            said.add("the first of " + Counted.of(result.found(), "row") + " with this key");
        }
        said.add(
                row.faults().isEmpty()
                        ? "nothing is wrong with it"
                        : Counted.of(row.faults().size(), "fault"));
        return String.join("; ", said);
    }

    /** Whether the relatives of a row were followed, and not rows listed. */
    public static boolean isOneTraced(TraceResult result) {
        return result.found() == 1
                || result.rows().stream().anyMatch(row -> !row.twins().isEmpty());
    }

    /** A row as it is called: its table, its key, and its label. */
    public static String name(TracedRow row) {
        return CellText.escaped(row.table()) + " " + key(row) + label(row);
    }

    /** The key of a row; where it has none, its number. */
    public static String key(TracedRow row) {
        if (row.values().isEmpty() || row.key().isEmpty()) {
            return "row " + Counted.grouped(row.row());
        }
        String cells = row.keyValues().stream().map(CellText::of).collect(Collectors.joining(", "));
        return row.key().size() == 1 ? cells : "(" + cells + ")";
    }

    private static String label(TracedRow row) {
        boolean isSaid = row.label().isEmpty() || row.keyValues().contains(row.label());
        return isSaid ? "" : " (" + CellText.shortened(row.label()) + ")";
    }

    /** Where it stands. */
    public static String place(TracedRow row) {
        if (row.part().isEmpty()) {
            return "a row that the proposal makes";
        }
        return CellText.escaped(row.part()) + ", row " + Counted.grouped(row.row())
                + (row.line() > 0 ? ", line " + Counted.grouped(row.line()) : "");
    }

    /** One fault. */
    public static String fault(RowFault fault) {
        return fault.kind().words() + " at " + CellText.escaped(fault.at())
                + (fault.problem().isEmpty() ? "" : ": " + CellText.escaped(fault.problem()));
    }

    /** A parent, or why there is none. */
    public static String parent(Parent parent, TracedRow child) {
        String over = ", over " + CellText.escaped(parent.link());
        String table = CellText.escaped(parent.table());
        String columns = "(" + parent.columns().stream().map(CellText::escaped).collect(Collectors.joining(", ")) + ")";
        return switch (parent.state()) {
            case THERE ->
                parent.parent().map(TraceWords::name).orElse(table)
                        + over
                        + (parent.parents() > 1
                                ? "; " + Counted.of(parent.parents(), "row") + " have this key, this is the first"
                                : "");
            case NULL -> "no " + table + over + ": " + columns + " is null";
            case HALF_NULL -> "no " + table + over + ": " + columns + " is null in part, so it is not judged";
            case HALF_NULL_REFUSED -> "no " + table + over + ": " + columns + " is null in part, and the match is full";
            case ILL_TYPED -> "no " + table + over + ": " + value(parent, child) + " is not of its type" + hint(parent);
            case MISSING -> "no " + table + over + ": no row has " + value(parent, child) + hint(parent);
            case NOT_FOR_THIS_ROW -> "no " + table + over + ": the link is not declared for such a row";
        };
    }

    /** Whether there should be a parent, and is none. */
    public static boolean isMissing(Parent parent) {
        return parent.state() == LinkState.MISSING
                || parent.state() == LinkState.ILL_TYPED
                || parent.state() == LinkState.HALF_NULL_REFUSED;
    }

    private static String value(Parent parent, TracedRow child) {
        List<String> cells = new ArrayList<>();
        parent.columns().forEach(column -> cells.add(CellText.of(child.value(column))));
        return cells.size() == 1 ? cells.get(0) : "(" + String.join(", ", cells) + ")";
    }

    private static String hint(Parent parent) {
        return parent.hint().map(hint -> "; " + CellText.escaped(hint.words())).orElse("");
    }

    /** How many children there are over a link, and what their totals come to. */
    public static String children(Children children) {
        return CellText.escaped(children.table()) + ": " + Counted.of(children.rows(), "row") + ", over "
                + CellText.escaped(children.link()) + sums(children.totals());
    }

    /** What hangs below them; the first link of the way is known. */
    public static String below(Below below) {
        List<String> links = below.links().subList(1, below.links().size());
        return CellText.escaped(below.table()) + ": " + Counted.of(below.rows(), "row") + ", over "
                + links.stream().map(CellText::escaped).collect(Collectors.joining(", "))
                + sums(below.totals());
    }

    /** What the code of a parent stands for; empty where its key is all that is known of it. */
    public static String meaning(Parent parent) {
        if (isMissing(parent)) {
            return "no such " + CellText.escaped(parent.table());
        }
        return parent.parent()
                .filter(row -> !row.label().isEmpty() && !row.keyValues().contains(row.label()))
                .map(row -> CellText.escaped(row.table()) + " " + CellText.shortened(row.label()))
                .orElse("");
    }

    private static String sums(List<Sum> totals) {
        return totals.stream()
                .map(sum -> "; " + CellText.escaped(sum.text()) + " = " + Counted.amount(sum.sum()))
                .collect(Collectors.joining());
    }

    /** Who shares a key. */
    public static String twin(Twin twin) {
        return Counted.of(twin.others(), "other row") + (twin.others() == 1 ? " has" : " have") + " the same ("
                + twin.columns().stream().map(CellText::escaped).collect(Collectors.joining(", ")) + ")";
    }

    /** In which columns one of two rows is not a copy of the other. */
    public static String differences(TracedRow row, TracedRow other) {
        List<String> columns = new ArrayList<>();
        for (String column : other.columns()) {
            if (!Objects.equals(row.value(column), other.value(column))) {
                columns.add(CellText.escaped(column) + " = " + CellText.of(other.value(column)));
            }
        }
        return columns.isEmpty() ? "a copy" : "differs: " + String.join(", ", columns);
    }

    /**
     * What a row without a label holds, to be told from others.
     *
     * @param known columns that need not be said
     */
    public static String cells(TracedRow row, List<String> known) {
        if (row.values().isEmpty()) {
            return CellText.shortened(row.raw());
        }
        StringBuilder cells = new StringBuilder();
        for (String column : row.columns()) {
            boolean isSaid = row.key().contains(column) || known.contains(column);
            if (isSaid || row.value(column) == null) {
                continue;
            }
            if (cells.length() > ENOUGH_OF_CELLS) {
                return cells + ", ...";
            }
            cells.append(cells.length() == 0 ? "" : ", ")
                    .append(CellText.escaped(column))
                    .append(' ')
                    .append(CellText.of(row.value(column)));
        }
        return cells.toString();
    }
}
