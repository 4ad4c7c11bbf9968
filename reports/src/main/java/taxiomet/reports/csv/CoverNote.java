package taxiomet.reports.csv;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Finding;
import taxiomet.reports.OutputException;
import taxiomet.reports.text.Paragraph;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.FindingSentences;

/** What lies on top of a folder of evidence: for whoever gets it and does not know the program. */
final class CoverNote {
    /** Its name. */
    static final String FILE = "cover-note.txt";

    private static final int WIDTH = 90;
    private static final int INDENT = 4;

    private CoverNote() {}

    /** A file of the folder, and how many rows it lists. */
    record Listed(String file, Finding finding, long rows) {}

    /** @throws OutputException when it cannot be written */
    static void write(CheckResult result, List<Listed> files, Path folder) {
        List<String> lines = new ArrayList<>();
        lines.add(CellText.escaped(result.title()) + ": rows that need a decision");
        lines.add("");
        paragraph(
                lines,
                "The tables were checked against the rules that hold for them. Each file here lists the rows that break one"
                        + " rule, all of them. Nothing has been changed in the tables.",
                0);
        lines.add("");
        paragraph(
                lines,
                "In a file, `row` and `file` say where a row stands: row 1 is the first below the heading, `line` is what an"
                        + " editor shows. `rule` names the rule and `at_fault` the columns to look at; `problem` says what is"
                        + " wrong and `hint` what may have been meant. Rows with the same number in `group` belong together."
                        + " Behind them come the row's own columns, as they are. An apostrophe before a cell is no part of"
                        + " it: it keeps a spreadsheet from reckoning.",
                0);
        if (files.isEmpty()) {
            lines.add("");
            lines.add("There is no such row.");
        }
        FindingSentences sentences = new FindingSentences(result);
        for (Listed listed : files) {
            Finding finding = listed.finding();
            lines.add("");
            paragraph(
                    lines,
                    listed.file() + ": " + Counted.of(listed.rows(), "row") + ", "
                            + finding.severity().word() + ", "
                            + finding.kind().words() + " at " + FindingSentences.place(finding),
                    0);
            sentences.of(finding).forEach(sentence -> paragraph(lines, sentence, INDENT));
            lines.add(" ".repeat(INDENT) + "more: taxiomet meaning "
                    + finding.kind().words().replace(' ', '-'));
        }
        try {
            Files.write(folder.resolve(FILE), lines);
        } catch (IOException e) {
            throw OutputException.of(folder.resolve(FILE).toString(), e);
        }
    }

    private static void paragraph(List<String> lines, String text, int indent) {
        lines.addAll(Paragraph.lines(text, indent, WIDTH));
    }
}
