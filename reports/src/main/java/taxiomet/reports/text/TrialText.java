package taxiomet.reports.text;

import java.util.List;
import java.util.function.Consumer;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.finding.Finding;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.survey.Trial;

/** What became of a key or link that was tried by hand. */
public final class TrialText {
    private static final int INDENT = 4;

    private final Trial trial;
    private final CheckResult result;
    private final int width;
    private final boolean hasColor;
    private final Consumer<String> out;

    public TrialText(Trial trial, CheckResult result, int width, boolean hasColor, Consumer<String> out) {
        this.trial = trial;
        this.result = result;
        this.width = width;
        this.hasColor = hasColor;
        this.out = out;
    }

    /** Writes it, with the rows that break it. Gives whether it holds. */
    public boolean write() {
        List<Finding> faults = Trial.faults(result);
        boolean holds = faults.isEmpty();
        String answer = trial.link().isPresent() ? holds ? "covered" : "not covered" : holds ? "unique" : "not unique";
        Paragraph.lines(
                        Style.STRONG.apply(CellText.escaped(trial.words()), hasColor) + ": "
                                + (holds ? Style.GOOD : Style.ERROR).apply(answer, hasColor),
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
        trial.link().ifPresent(name -> result.links().forEach(this::writeLink));
        CheckText.writeFindings(result, faults, new LinePaper(width, hasColor, out));
        return holds;
    }

    private void writeLink(LinkResult link) {
        ChildrenTally tally = link.children().orElseThrow();
        sentence(Counted.grouped(link.judged() - link.orphans()) + " of " + Counted.of(link.judged(), "judged row")
                + " of " + link.child() + " have a parent; " + Counted.grouped(link.nulls() + link.halfNulls())
                + " null");
        sentence("each row of " + link.parent() + " has from " + tally.least() + " to " + tally.most()
                + " children, median " + tally.median() + "; " + Counted.grouped(tally.childless()) + " of "
                + Counted.grouped(tally.parents()) + " have none");
        long matched = link.judged() - link.orphans();
        String times = matched == 0 || tally.pairs() == matched
                ? ""
                : ": each row of " + link.child() + " would stand "
                        + String.format(java.util.Locale.ROOT, "%.1f", (double) tally.pairs() / matched)
                        + " times, since this is no key of " + link.parent();
        sentence("a join over it would make " + Counted.of(tally.pairs(), "row") + times);
    }

    private void sentence(String text) {
        Paragraph.lines(CellText.escaped(text), INDENT, width).forEach(out);
    }
}
