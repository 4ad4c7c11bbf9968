package taxiomet.finding;

import java.util.List;
import java.util.stream.Stream;
import taxiomet.finding.TraceResult.Sum;

/**
 * What a roster lists, as a whole.
 *
 * @param title what the charter is called
 * @param table whose rows are the headings
 * @param rows how many rows it has, malformed ones too
 * @param headings how many of them are shown
 * @param leftOut how many do not meet the condition
 * @param spread how many of the headings shown have how many children; empty for a part
 * @param groups the children, link by link
 * @param remarks what else is worth saying
 */
public record RosterResult(
        String title,
        String table,
        long rows,
        long headings,
        long leftOut,
        List<ChildrenSpread> spread,
        List<Group> groups,
        List<String> remarks) {
    public RosterResult {
        spread = List.copyOf(spread);
        groups = List.copyOf(groups);
        remarks = List.copyOf(remarks);
    }

    /** One of its sections as a roster of its own: what was left out, and remarks, are said of the whole. */
    public RosterResult part(Section section, String name, List<Group> ofPart) {
        String called = section == Section.HEADING ? title + ": " + table + " " + name : title;
        int heading = section == Section.HEADING ? 1 : 0;
        return new RosterResult(called, table, heading, heading, 0, List.of(), ofPart, List.of());
    }

    /**
     * The children over one link. Each row of their table is in one of the numbers.
     *
     * @param linkColumns the link's own columns: they are shown before the others where the parent is missing
     * @param columns heads of the cells that are shown
     * @param totals the totals that are added up
     * @param rows all rows of the children's table
     * @param listed rows below a heading that is shown
     * @param orphans rows whose parent is missing
     * @param withoutParent rows that point at none
     * @param underLeftOut rows whose parent is there and is no heading that is shown
     * @param leftOut rows that do not meet the condition for children
     * @param malformed rows that cannot be read
     * @param sums what the totals come to over the rows listed, orphans and those without a parent too
     */
    public record Group(
            String link,
            String table,
            List<String> linkColumns,
            List<String> columns,
            List<String> totals,
            long rows,
            long listed,
            long orphans,
            long withoutParent,
            long underLeftOut,
            long leftOut,
            long malformed,
            List<Sum> sums) {
        public Group {
            linkColumns = List.copyOf(linkColumns);
            columns = List.copyOf(columns);
            totals = List.copyOf(totals);
            sums = List.copyOf(sums);
        }

        /** The children in one section alone. */
        public Group part(Section section, long children, List<Sum> ofChildren) {
            return new Group(
                    link,
                    table,
                    linkColumns,
                    columns,
                    totals,
                    children,
                    section == Section.HEADING ? children : 0,
                    section == Section.PARENT_MISSING ? children : 0,
                    section == Section.NO_PARENT ? children : 0,
                    0,
                    0,
                    0,
                    ofChildren);
        }

        /** The heads of the cells that are shown in a section. */
        public List<String> columns(Section section) {
            return section == Section.PARENT_MISSING
                    ? Stream.concat(linkColumns.stream(), columns.stream()).toList()
                    : columns;
        }
    }

    /** What a section of a roster is about. */
    public enum Section {
        HEADING,
        PARENT_MISSING,
        NO_PARENT
    }

    /** Takes a roster in its order. */
    public interface Reader {
        /**
         * A heading, or one of the two sections behind all of them.
         *
         * @param name what the heading is called; empty for the others
         * @param children how many rows come below it, over all links
         */
        void section(Section section, String name, long children);

        /**
         * A link's children come next.
         *
         * @param columns heads of their cells
         */
        void group(Group group, List<String> columns);

        /** One child; null for a null. */
        void row(List<String> cells);

        /** The children of the link are through. */
        void endGroup(Group group, long rows, List<Sum> subtotals);
    }
}
