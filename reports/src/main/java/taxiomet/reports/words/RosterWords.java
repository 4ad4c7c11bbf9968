package taxiomet.reports.words;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.ChildrenSpread;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;

/** A roster in words: once for all reports that people read. Names in them are escaped. */
public final class RosterWords {
    private RosterWords() {}

    /** How much it lists. */
    public static String answer(RosterResult roster) {
        long children = roster.groups().stream().mapToLong(Group::listed).sum();
        if (roster.rows() == 0) {
            return apart(roster);
        }
        return Counted.of(roster.headings(), "heading") + ", "
                + Counted.of(children, "row") + (roster.headings() == 1 ? " below it" : " below them")
                + (roster.leftOut() == 0
                        ? ""
                        : "; " + Counted.of(roster.leftOut(), "row") + " of " + CellText.escaped(roster.table())
                                + " left out");
    }

    /** How much a roster without headings lists. */
    private static String apart(RosterResult roster) {
        List<String> parts = new ArrayList<>();
        add(parts, roster.groups().stream().mapToLong(Group::orphans).sum(), "whose parent is missing");
        add(parts, roster.groups().stream().mapToLong(Group::withoutParent).sum(), "without a parent");
        return parts.isEmpty() ? "no rows" : "rows: " + String.join(", ", parts);
    }

    /** How many children a step of headings has. */
    public static String step(ChildrenSpread step) {
        return step.from() == step.to()
                ? Counted.grouped(step.from())
                : Counted.grouped(step.from()) + " to " + Counted.grouped(step.to());
    }

    /** Where all rows of a table of children are. */
    public static String whole(Group group) {
        List<String> parts = new ArrayList<>();
        parts.add(Counted.grouped(group.listed()) + " below a heading");
        add(parts, group.orphans(), "whose parent is missing");
        add(parts, group.withoutParent(), "without a parent");
        add(parts, group.underLeftOut(), "below a heading that is left out");
        add(parts, group.leftOut(), "left out by the condition for children");
        add(parts, group.malformed(), "malformed");
        return CellText.escaped(group.table()) + " over " + CellText.escaped(group.link()) + ": "
                + Counted.of(group.rows(), "row") + ", of them " + String.join(", ", parts);
    }

    private static void add(List<String> parts, long rows, String what) {
        if (rows > 0) {
            parts.add(Counted.grouped(rows) + " " + what);
        }
    }

    /** What a section is called. */
    public static String section(Section section, String name) {
        return switch (section) {
            case HEADING -> CellText.shortened(name);
            case PARENT_MISSING -> "parent missing";
            case NO_PARENT -> "no parent";
        };
    }

    /** The rows of a group and what their totals come to. */
    public static String subtotal(Group group, long rows, List<Sum> sums) {
        return Counted.of(rows, "row") + " of " + CellText.escaped(group.table()) + sums(sums);
    }

    /** What totals come to, as the end of a sentence. */
    public static String sums(List<Sum> sums) {
        return sums.stream()
                .map(sum -> "; " + CellText.escaped(sum.text()) + " = " + Counted.amount(sum.sum()))
                .collect(Collectors.joining());
    }
}
