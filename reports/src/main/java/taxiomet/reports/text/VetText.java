package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.charter.Severity;
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
    private final int width;
    private final boolean hasColor;
    private final Consumer<String> out;

    /**
     * @param places gives the place of a declaration as file, line and column
     * @param width of a line, in columns of a terminal
     * @param out takes one line at a time, without its end
     */
    public VetText(
            VetResult result,
            Function<List<String>, String> places,
            int width,
            boolean hasColor,
            Consumer<String> out) {
        this.result = result;
        this.places = places;
        this.width = width;
        this.hasColor = hasColor;
        this.out = out;
    }

    @Override
    public void writeAnswer() {
        Style style = result.count(Severity.ERROR) > 0 ? Style.ERROR : result.isSound() ? Style.GOOD : Style.WARNING;
        Paragraph.answer(result.title(), result.answer(), style, hasColor, width)
                .forEach(out);
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
        Paragraph.lines(CellText.escaped(text), indent, width).forEach(out);
    }

    private void writeFinding(Judgement.Kind kind, Severity severity, String place, String problem, String remedy) {
        out.accept("");
        Paragraph.lines(
                        Style.of(severity).apply(severity.word(), hasColor) + "  "
                                + Style.STRONG.apply(kind.words() + " at " + CellText.escaped(place), hasColor),
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
        sentence(problem, INDENT);
        if (!remedy.isEmpty()) {
            sentence("way out: " + remedy, INDENT);
        }
    }

    private void heading(String text) {
        out.accept("");
        Paragraph.lines(Style.STRONG.apply(text, hasColor), 0, Paragraph.HANGING, width)
                .forEach(out);
    }

    private void writeAround(VetResult.Around around) {
        heading("Around " + CellText.escaped(around.table()) + " (and how many steps away)");
        Grid grid = Grid.withoutHeads(2);
        grid.addRow(List.of(cell("is needed by"), cell(listed(around.dependants()))));
        grid.addRow(List.of(cell("needs"), cell(listed(around.supports()))));
        grid.addRow(List.of(cell("a delete reaches"), cell(listed(around.deletable()))));
        grid.lines(INDENT, width, hasColor).forEach(out);
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
            Paragraph.lines(
                            Style.NOTE.apply(CellText.escaped(link.child() + "." + link.link()), hasColor),
                            INDENT,
                            width)
                    .forEach(out);
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
        grid.lines(INDENT, width, hasColor).forEach(out);
    }
}
