package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.ProofResult;
import taxiomet.finding.ProofResult.ChangeProof;
import taxiomet.finding.ProofResult.TableProof;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** What a database made of a proposal, at the end of what the rehearsal tells. */
final class ProofText {
    private static final int INDENT = 4;

    private final ProofResult proof;
    private final Paper paper;

    ProofText(ProofResult proof, Paper paper) {
        this.proof = proof;
        this.paper = paper;
    }

    void write() {
        paper.gap();
        boolean agrees = proof.agrees();
        String answer = agrees ? "did as rehearsed" : "did otherwise than rehearsed";
        paper.paragraph(
                Style.STRONG.apply("proof", paper.hasColor()) + ": " + CellText.escaped(proof.server()) + " "
                        + (agrees ? Style.GOOD : Style.ERROR).apply(answer, paper.hasColor()),
                0,
                Paragraph.HANGING);
        for (int i = 0; i < proof.changes().size(); i++) {
            writeChange("change " + (i + 1), proof.changes().get(i));
        }
        proof.atEnd().ifPresent(end -> writeChange("at the end", end));
        long rows = 0;
        List<String> alike = new ArrayList<>();
        for (TableProof table : proof.tables()) {
            if (table.agrees()) {
                rows += table.rows();
                alike.add(table.table());
            } else {
                writeTable(table);
            }
        }
        if (!alike.isEmpty()) {
            line("rows as foreseen, value by value: " + Counted.of(rows, "row") + " of "
                    + Counted.of(alike.size(), "table"));
        }
        if (!proof.triggers().isEmpty()) {
            line("triggers that a rehearsal knows nothing of: " + String.join(", ", proof.triggers()));
        }
        line("all of it was taken back; numbers drawn from sequences meanwhile stay drawn");
    }

    private void line(String text) {
        paper.paragraph(CellText.escaped(text), INDENT, Paragraph.HANGING);
    }

    private void writeChange(String which, ChangeProof change) {
        if (!change.agrees()) {
            line(which + ": rehearsed as " + (change.isForeseen() ? "accepted, and refused" : "blocked, and accepted")
                    + (change.said().isEmpty() ? "" : " (" + change.said() + ")"));
        }
    }

    private void writeTable(TableProof table) {
        List<String> differences = new ArrayList<>();
        if (table.missing() > 0) {
            differences.add(Counted.of(table.missing(), "row") + " foreseen " + (table.missing() == 1 ? "was" : "were")
                    + " not there");
        }
        if (table.more() > 0) {
            differences.add(Counted.of(table.more(), "row") + (table.more() == 1 ? " was" : " were") + " there that "
                    + (table.more() == 1 ? "is" : "are") + " not foreseen");
        }
        line(table.table() + ": " + String.join(", ", differences));
        table.examples().forEach(example -> paper.paragraph(CellText.escaped(example), 2 * INDENT, Paragraph.HANGING));
    }
}
