package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.charter.Severity;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.vet.Judgement;
import taxiomet.vet.LinkGraph.ManyToMany;
import taxiomet.vet.VetResult;
import taxiomet.vet.VetResult.LinkMeaning;
import taxiomet.vet.VetResult.Neighbour;

/** The result of vet for a person: the answer, what there is to say, then what the links mean and how the tables hang together. */
public final class VetText implements ResultText {
    private static final int INDENT = 4;

    private final VetResult result;
    private final Function<List<String>, String> places;
    private final Paper paper;

    /**
     * @param places gives the place of a declaration as file, line and column
     * @param paper takes it
     */
    public VetText(VetResult result, Function<List<String>, String> places, Paper paper) {
        this.result = result;
        this.places = places;
        this.paper = paper;
    }

    @Override
    public void writeAnswer() {
        Style style = result.count(Severity.ERROR) > 0 ? Style.ERROR : result.isSound() ? Style.GOOD : Style.WARNING;
        paper.answer(result.title(), result.answer(), style);
        String counts = Stream.of(Severity.values())
                .filter(severity -> result.count(severity) > 0)
                .map(severity -> Counted.of(result.count(severity), severity.word()))
                .collect(Collectors.joining(", "));
        sentence(
                Counted.of(result.tables(), "table") + ", "
                        + Counted.of(result.links().size(), "link")
                        + (counts.isEmpty() ? "; nothing to remark" : "; " + counts)
                        + (result.count(Severity.ERROR) > 0 ? "; check and rehearse refuse it as it is" : ""),
                0);
    }

    @Override
    public void write() {
        writeAnswer();
        result.judgements()
                .forEach(j -> writeFinding(j.kind(), j.severity(), places.apply(j.path()), j.problem(), j.remedy()));
        result.remarks()
                .forEach(r -> writeFinding(Judgement.Kind.REMARK, Severity.NOTE, r.place(), r.problem(), r.remedy()));
        result.around().ifPresent(this::writeAround);
        writeLinks();
        writePairs();
        writeOrder();
    }

    private void sentence(String text, int indent) {
        paper.paragraph(CellText.escaped(text), indent);
    }

    private void writeFinding(Judgement.Kind kind, Severity severity, String place, String problem, String remedy) {
        paper.gap();
        paper.paragraph(
                Style.of(severity).apply(severity.word(), paper.hasColor()) + "  "
                        + Style.STRONG.apply(kind.words() + " at " + CellText.escaped(place), paper.hasColor()),
                0,
                Paragraph.HANGING);
        sentence(problem, INDENT);
        if (!remedy.isEmpty()) {
            sentence("way out: " + remedy, INDENT);
        }
    }

    private void heading(String text) {
        paper.gap();
        paper.paragraph(Style.STRONG.apply(text, paper.hasColor()), 0, Paragraph.HANGING);
    }

    private void writeAround(VetResult.Around around) {
        heading("Around " + CellText.escaped(around.table()) + " (and how many steps away)");
        Grid grid = Grid.withoutHeads(2);
        grid.addRow(List.of(cell("is needed by"), cell(listed(around.dependants()))));
        grid.addRow(List.of(cell("needs"), cell(listed(around.supports()))));
        grid.addRow(List.of(cell("a delete reaches"), cell(listed(around.deletable()))));
        paper.grid(grid, INDENT);
    }

    private static Grid.Cell cell(String text) {
        return Grid.Cell.of(CellText.escaped(text));
    }

    private static String listed(List<Neighbour> neighbours) {
        return neighbours.isEmpty()
                ? "no table"
                : neighbours.stream()
                        .map(neighbour -> neighbour.table() + " " + neighbour.steps())
                        .collect(Collectors.joining(", "));
    }

    private void writeLinks() {
        if (result.links().isEmpty()) {
            return;
        }
        heading("What the links mean");
        for (LinkMeaning link : result.links()) {
            paper.paragraph(
                    Style.NOTE.apply(CellText.escaped(link.child() + "." + link.link()), paper.hasColor()), INDENT);
            sentence(link.sentence(), 2 * INDENT);
        }
    }

    private void writePairs() {
        if (result.pairs().isEmpty()) {
            return;
        }
        heading("Many to many");
        for (ManyToMany pair : result.pairs()) {
            sentence(pair.one() + " and " + pair.other() + ", through " + pair.through(), INDENT);
        }
    }

    private void writeOrder() {
        heading("Order to load; to delete, from the last step to the first");
        Grid grid = Grid.withoutHeads(2);
        List<List<String>> steps = new ArrayList<>(result.loadOrder());
        for (int i = 0; i < steps.size(); i++) {
            grid.addRow(List.of(cell(Integer.toString(i + 1)), cell(String.join(", ", steps.get(i)))));
        }
        paper.grid(grid, INDENT);
    }
}
