package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.reports.text.Grid.Cell;

/** A roster for a person: how much it lists, then each heading with its children, then where all rows are. */
public final class RosterText implements ResultText {
    private static final int INDENT = 4;
    /** So many rows line up with one another; a longer list is written as it comes. */
    private static final int ROWS_AT_ONCE = 500;

    private final RosterResult roster;
    private final Consumer<RosterResult.Reader> content;
    private final Paper paper;

    /** @param content hands the roster over */
    public RosterText(RosterResult roster, Consumer<RosterResult.Reader> content, Paper paper) {
        this.roster = roster;
        this.content = content;
        this.paper = paper;
    }

    @Override
    public void writeAnswer() {
        paper.answer(roster.title(), RosterWords.answer(roster), Style.PLAIN);
    }

    @Override
    public void write() {
        writeAnswer();
        content.accept(new Lines());
        paper.gap();
        for (Group group : roster.groups()) {
            paper.paragraph(RosterWords.whole(group) + RosterWords.sums(group.sums()), 0, Paragraph.HANGING);
        }
        roster.remarks().forEach(remark -> paper.faint(CellText.escaped(remark), 0, Paragraph.HANGING));
    }

    private final class Lines implements RosterResult.Reader {
        private Grid grid = new Grid();
        private int rows;

        @Override
        public void section(Section section, String name, long children) {
            paper.gap();
            Style style = section == Section.HEADING ? Style.STRONG : Style.WARNING;
            String what = section == Section.HEADING ? CellText.escaped(roster.table()) + " " : "";
            paper.paragraph(
                    style.apply(what + RosterWords.section(section, name), paper.hasColor())
                            + (children == 0 ? Style.FAINT.apply("  no children", paper.hasColor()) : ""),
                    0,
                    Paragraph.HANGING);
        }

        @Override
        public void group(Group group, List<String> columns) {
            if (roster.groups().size() > 1) {
                paper.paragraph(
                        CellText.escaped(group.table()) + " over " + CellText.escaped(group.link()), INDENT / 2);
            }
            grid = new Grid();
            rows = 0;
            columns.forEach(column -> grid.addColumn(CellText.escaped(column), Grid.Kind.TEXT));
        }

        @Override
        public void row(List<String> cells) {
            List<Cell> texts = new ArrayList<>();
            cells.forEach(cell -> texts.add(new Cell(CellText.of(cell), cell == null ? Style.FAINT : Style.PLAIN)));
            grid.addRow(texts);
            if (++rows == ROWS_AT_ONCE) {
                Grid full = grid;
                paper.grid(full, INDENT);
                grid = full.empty();
                rows = 0;
            }
        }

        @Override
        public void endGroup(Group group, long all, List<Sum> subtotals) {
            if (rows > 0 && !grid.columns().isEmpty()) {
                paper.grid(grid, INDENT);
            }
            paper.faint(RosterWords.subtotal(group, all, subtotals), INDENT, INDENT + Paragraph.HANGING);
        }
    }
}
