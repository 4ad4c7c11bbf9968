package taxiomet.reports.text;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.finding.settled.DocketDecisions;
import taxiomet.finding.settled.DocketDecisions.Remark;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** What a docket lays out, and for whom, in lines; and what became of the decisions in one. */
public final class DocketText implements ResultText {
    private static final int INDENT = 2;
    private static final int REMARKS = 12;

    private final Docket docket;
    private final Paper paper;

    /** @param paper takes it */
    public DocketText(Docket docket, Paper paper) {
        this.docket = docket;
        this.paper = paper;
    }

    @Override
    public void writeAnswer() {
        long owners = docket.items().stream().map(Item::owner).distinct().count();
        paper.answer(
                docket.title(),
                docket.items().isEmpty()
                        ? "nothing to decide"
                        : Counted.of(docket.items().size(), "decision") + " to take, by " + Counted.of(owners, "owner"),
                docket.items().isEmpty() ? Style.GOOD : Style.ERROR);
    }

    @Override
    public void write() {
        writeAnswer();
        if (docket.items().isEmpty()) {
            return;
        }
        paper.gap();
        Map<String, List<Item>> byOwner = docket.items().stream()
                .collect(Collectors.groupingBy(item -> item.owner().orElse(""), TreeMap::new, Collectors.toList()));
        Grid grid = new Grid();
        grid.addColumn("owner", Grid.Kind.TEXT);
        grid.addColumn("decisions", Grid.Kind.NUMBER);
        grid.addColumn("proposed", Grid.Kind.NUMBER);
        grid.addColumn("about", Grid.Kind.TEXT);
        byOwner.forEach((owner, items) -> grid.addRow(List.of(
                owner.isEmpty() ? new Cell("without owner", Style.FAINT) : Cell.of(CellText.escaped(owner)),
                Cell.of(Counted.grouped(items.size())),
                Cell.of(proposed(items)),
                Cell.of(about(items)))));
        paper.grid(grid, INDENT);
    }

    private static String proposed(List<Item> items) {
        long proposed = items.stream().filter(Item::hasProposal).count();
        return proposed == 0 ? "" : Counted.grouped(proposed);
    }

    private static String about(List<Item> items) {
        Map<String, Map<String, Integer>> tables = new LinkedHashMap<>();
        items.forEach(item -> tables.computeIfAbsent(CellText.escaped(item.table()), table -> new LinkedHashMap<>())
                .merge(item.kind().words(), 1, Integer::sum));
        return tables.entrySet().stream()
                .map(table -> table.getKey() + ": "
                        + table.getValue().entrySet().stream()
                                .map(kind -> kind.getKey() + " " + Counted.grouped(kind.getValue()))
                                .collect(Collectors.joining(", ")))
                .collect(Collectors.joining("; "));
    }

    /** What became of the decisions in a filled docket. */
    public static void writeDecisions(DocketDecisions decisions, Paper paper) {
        paper.paragraph(
                Style.STRONG.apply("docket", paper.hasColor()) + ": "
                        + Counted.of(decisions.decided(), "decision") + " of " + Counted.of(decisions.items(), "row")
                        + (decisions.borne() > 0 ? ", " + Counted.grouped(decisions.borne()) + " to bear a fault" : "")
                        + (decisions.elsewhere() > 0
                                ? ", " + Counted.grouped(decisions.elsewhere()) + " to mend it where it comes from"
                                : "")
                        + "; " + Counted.grouped(decisions.open().size()) + " open, "
                        + Counted.grouped(decisions.remarks().size()) + " left out"
                        + (decisions.notInDocket() > 0
                                ? "; " + Counted.of(decisions.notInDocket(), "fault") + " not in it"
                                : ""),
                0,
                Paragraph.HANGING);
        decisions.remarks().stream().limit(REMARKS).forEach(remark -> write(remark, paper));
        long more = decisions.remarks().size() - (long) REMARKS;
        if (more > 0) {
            paper.faint(
                    "and " + Counted.grouped(more) + " more are left out; --json tells all", 2 * INDENT, 2 * INDENT);
        }
    }

    private static void write(Remark remark, Paper paper) {
        paper.paragraph(
                Style.WARNING.apply(remark.why().word(), paper.hasColor()) + "  " + CellText.escaped(remark.place())
                        + ": " + CellText.escaped(remark.words()),
                2 * INDENT,
                2 * INDENT + 2);
    }
}
