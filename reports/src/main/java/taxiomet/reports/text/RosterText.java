package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.RosterWords;

/** A roster for a person: how much it lists, then each heading with its children, then where all rows are. */
public final class RosterText implements ResultText {
    private static final int INDENT = 4;
    /** So many rows line up with one another; a longer list is written as it comes. */
    private static final int ROWS_AT_ONCE = 500;

    private final RosterResult roster;
    private final Consumer<RosterResult.Reader> content;
    private final Paper paper;
    private final long mostRows;

    /** @param content hands the roster over */
    public RosterText(RosterResult roster, Consumer<RosterResult.Reader> content, Paper paper) {
        this(roster, content, paper, Long.MAX_VALUE);
    }

    /** @param mostRows how many children and headings are written; it is said where the others are */
    public RosterText(RosterResult roster, Consumer<RosterResult.Reader> content, Paper paper, long mostRows) {
        this.roster = roster;
        this.content = content;
        this.paper = paper;
        this.mostRows = mostRows;
    }

    @Override
    public void writeAnswer() {
        paper.answer(roster.title(), RosterWords.answer(roster), Style.PLAIN);
    }

    @Override
    public void write() {
        writeAnswer();
        writeSpread();
        Lines lines = new Lines();
        content.accept(lines);
        paper.gap();
        if (lines.written > mostRows) {
            paper.paragraph(
                    "and " + Counted.of(lines.written - mostRows, "more line") + "; --report FILE.csv has them all", 0);
        }
        for (Group group : roster.groups()) {
            paper.paragraph(RosterWords.whole(group) + RosterWords.sums(group.sums()), 0, Paragraph.HANGING);
        }
        roster.remarks().forEach(remark -> paper.faint(CellText.escaped(remark), 0, Paragraph.HANGING));
    }

    private void writeSpread() {
        if (roster.spread().size() < 2) {
            return;
        }
        paper.gap();
        Grid grid = new Grid();
        grid.addColumn("children", Grid.Kind.TEXT);
        grid.addColumn("headings", Grid.Kind.NUMBER);
        roster.spread()
                .forEach(step -> grid.addRow(List.of(
                        new Cell(RosterWords.step(step), Style.PLAIN),
                        new Cell(Counted.grouped(step.headings()), Style.PLAIN))));
        paper.grid(grid, INDENT);
    }

    private final class Lines implements RosterResult.Reader {
        private Grid grid = new Grid();
        private int rows;
        private long written;

        private boolean isFull() {
            return written > mostRows;
        }

        @Override
        public void section(Section section, String name, long children) {
            written++;
            if (isFull()) {
                return;
            }
            paper.gap();
            Style style = section == Section.HEADING ? Style.STRONG : Style.WARNING;
            String what = section == Section.HEADING ? CellText.escaped(roster.table()) + " " : "";
            paper.paragraph(
                    style.apply(what + RosterWords.section(section, name), paper.hasColor()), 0, Paragraph.HANGING);
            if (children == 0) {
                paper.faint("no children", INDENT, INDENT);
            }
        }

        @Override
        public void group(Group group, List<String> columns) {
            if (isFull()) {
                return;
            }
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
            written++;
            if (isFull()) {
                return;
            }
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
            rows = 0;
            if (isFull()) {
                return;
            }
            paper.faint(RosterWords.subtotal(group, all, subtotals), INDENT, INDENT + Paragraph.HANGING);
        }
    }
}
