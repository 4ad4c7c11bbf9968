package taxiomet.reports.text;

import java.util.List;
import taxiomet.finding.Cause;
import taxiomet.reports.words.CauseWords;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** What to mend first, where that says more than the findings do. */
final class CausesText {
    private static final int SHOWN = 5;
    private static final int INDENT = 2;
    /** A number and two blanks. */
    private static final int BEHIND_NUMBER = INDENT + 3;

    private static final int COMMAND_GOES_ON = BEHIND_NUMBER + 4;

    private final List<Cause> causes;
    private final String charter;
    private final Paper paper;

    /** @param charter as it was named */
    CausesText(List<Cause> causes, String charter, Paper paper) {
        this.causes = causes;
        this.charter = charter;
        this.paper = paper;
    }

    void write() {
        boolean isSaidByFinding = causes.size() == 1 && causes.get(0).what() == Cause.What.MEND_EACH;
        if (causes.isEmpty() || isSaidByFinding) {
            return;
        }
        paper.gap();
        paper.paragraph(Style.STRONG.apply("where to begin", paper.hasColor()), 0);
        for (int i = 0; i < Math.min(SHOWN, causes.size()); i++) {
            Cause cause = causes.get(i);
            String sentence = (i + 1) + "  " + CauseWords.toDo(cause) + ": " + CauseWords.cures(cause);
            paper.paragraph(CellText.escaped(sentence), INDENT, BEHIND_NUMBER);
            writeFaint(CellText.escaped(CauseWords.command(cause, charter)), BEHIND_NUMBER, COMMAND_GOES_ON);
        }
        if (causes.size() > SHOWN) {
            writeFaint(
                    "and " + Counted.of(causes.size() - SHOWN, "more cause") + "; --json tells them all",
                    INDENT,
                    INDENT);
        }
    }

    private void writeFaint(String text, int indent, int hanging) {
        paper.faint(text, indent, hanging);
    }
}
