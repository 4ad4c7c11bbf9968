package taxiomet.reports.text;

import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.TraceResult;
import taxiomet.finding.TraceResult.Children;
import taxiomet.finding.TraceResult.Parent;
import taxiomet.finding.TraceResult.RowFault;
import taxiomet.finding.TraceResult.TracedRow;
import taxiomet.finding.TraceResult.Twin;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.TraceWords;

/** A row among its relatives for a person: what it holds, what is wrong with it, who is above and who is below. */
public final class TraceText implements ResultText {
    private static final int INDENT = 2;

    private final TraceResult result;
    private final Paper paper;

    /**
     * @param paper takes it
     */
    public TraceText(TraceResult result, Paper paper) {
        this.result = result;
        this.paper = paper;
    }

    @Override
    public void writeAnswer() {
        boolean isTraced = result.found() > 0 && TraceWords.isOneTraced(result);
        boolean isSound = result.found() > 0 && result.rows().get(0).faults().isEmpty();
        paper.answer(
                isTraced ? TraceWords.name(result.rows().get(0)) : result.table(),
                TraceWords.answer(result),
                result.found() == 0 ? Style.ERROR : isSound ? Style.PLAIN : Style.ERROR);
    }

    @Override
    public void write() {
        writeAnswer();
        if (result.found() == 0) {
            return;
        }
        if (!TraceWords.isOneTraced(result)) {
            for (TracedRow row : result.rows()) {
                line(TraceWords.name(row) + "  " + faint(TraceWords.place(row)), INDENT);
            }
            long more = result.found() - result.rows().size();
            if (more > 0) {
                line(faint("and " + Counted.of(more, "more row")), INDENT);
            }
            return;
        }
        TracedRow row = result.rows().get(0);
        line(faint(TraceWords.place(row)), 0);
        paper.gap();
        writeCells(row);
        writeFaults(row);
        writeParents(row);
        writeChildren(row);
    }

    private void line(String text, int indent) {
        paper.paragraph(text, indent, indent + Paragraph.HANGING);
    }

    private String faint(String text) {
        return Style.FAINT.apply(text, paper.hasColor());
    }

    private void head(String text) {
        paper.gap();
        paper.paragraph(Style.STRONG.apply(text, paper.hasColor()), 0);
    }

    private void writeCells(TracedRow row) {
        if (row.values().isEmpty()) {
            line(CellText.shortened(row.raw()), INDENT);
            return;
        }
        Grid grid = Grid.withoutHeads(3);
        for (String column : row.columns()) {
            String cell = row.value(column);
            boolean isAtFault =
                    row.faults().stream().anyMatch(fault -> fault.columns().contains(column));
            grid.addRow(List.of(
                    new Cell(CellText.escaped(column), Style.FAINT),
                    new Cell(CellText.of(cell), isAtFault ? Style.VALUE : cell == null ? Style.FAINT : Style.PLAIN),
                    new Cell(meanings(row, column), Style.PLAIN)));
        }
        paper.grid(grid, INDENT);
    }

    /** What the codes of a column stand for. */
    private static String meanings(TracedRow row, String column) {
        return row.parents().stream()
                .filter(parent -> parent.columns().contains(column) && row.value(column) != null)
                .map(TraceWords::meaning)
                .filter(meaning -> !meaning.isEmpty())
                .collect(Collectors.joining(", "));
    }

    private void writeFaults(TracedRow row) {
        if (row.faults().isEmpty() && row.notJudged().isEmpty() && row.twins().isEmpty()) {
            return;
        }
        head("at fault");
        for (RowFault fault : row.faults()) {
            line(
                    Style.of(fault.severity()).apply(fault.severity().word(), paper.hasColor()) + "  "
                            + TraceWords.fault(fault),
                    INDENT);
        }
        for (Twin twin : row.twins()) {
            line(TraceWords.twin(twin), INDENT);
            for (TracedRow other : twin.first()) {
                line(
                        TraceWords.place(other) + "  "
                                + Style.VALUE.apply(TraceWords.differences(row, other), paper.hasColor()),
                        INDENT + INDENT);
            }
            long more = twin.others() - twin.first().size();
            if (more > 0) {
                line(faint("and " + Counted.of(more, "more row")), INDENT + INDENT);
            }
        }
        if (!row.notJudged().isEmpty()) {
            line(faint(CellText.escaped(row.notJudged())), INDENT);
        }
    }

    private void writeParents(TracedRow row) {
        if (!row.parents().isEmpty()) {
            head("above");
            writeParents(row, INDENT);
        }
    }

    private void writeParents(TracedRow row, int indent) {
        for (Parent parent : row.parents()) {
            String text = TraceWords.parent(parent, row);
            Style style = TraceWords.isMissing(parent)
                    ? Style.ERROR
                    : parent.parent().isPresent() ? Style.PLAIN : Style.FAINT;
            line(style.apply(text, paper.hasColor()), indent);
            parent.parent().ifPresent(above -> writeParents(above, indent + INDENT));
        }
    }

    private void writeChildren(TracedRow row) {
        if (!row.children().isEmpty()) {
            head("below");
            writeChildren(row, INDENT);
        }
    }

    private void writeChildren(TracedRow row, int indent) {
        for (Children children : row.children()) {
            if (children.rows() == 0 && indent > INDENT) {
                continue;
            }
            String text = TraceWords.children(children);
            line(children.rows() == 0 ? faint(text) : text, indent);
            for (TracedRow child : children.first()) {
                writeChild(child, children.columns(), indent + INDENT);
            }
            long more = children.rows() - children.first().size();
            if (more > 0 && !children.first().isEmpty()) {
                line(faint("and " + Counted.of(more, "more row")), indent + INDENT);
            }
            if (!children.below().isEmpty()) {
                line("below all of them:", indent + INDENT);
                children.below().forEach(below -> line(TraceWords.below(below), indent + INDENT + INDENT));
            }
        }
    }

    private void writeChild(TracedRow child, List<String> known, int indent) {
        boolean isLabelSaid = child.keyValues().contains(child.label());
        String more = child.label().isEmpty() || isLabelSaid
                ? TraceWords.cells(child, known)
                : CellText.shortened(child.label());
        line(TraceWords.key(child) + (more.isEmpty() ? "" : "  " + faint(more)), indent);
        writeChildren(child, indent + INDENT);
    }
}
