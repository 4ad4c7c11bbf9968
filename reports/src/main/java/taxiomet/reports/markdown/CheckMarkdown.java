package taxiomet.reports.markdown;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.Cause;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.LoadResult;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.OutputException;
import taxiomet.reports.text.CheckText;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.words.CauseWords;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.FindingSentences;
import taxiomet.reports.words.LoadWords;

/** The result of a check as Markdown, to be put into a page or a message: the same words as on a terminal. Nothing in a cell is markup. */
public final class CheckMarkdown {
    private static final int CAUSES_SHOWN = 20;

    private final CheckResult result;
    private final String charter;
    private final List<String> lines = new ArrayList<>();

    private CheckMarkdown(CheckResult result, String charter) {
        this.result = result;
        this.charter = charter;
    }

    /**
     * Writes a result.
     *
     * @param charter as it was named
     * @throws OutputException when the file cannot be written
     */
    public static void write(CheckResult result, String charter, Path file) {
        try {
            Files.write(file, new CheckMarkdown(result, charter).lines());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private List<String> lines() {
        List<String> answer = new ArrayList<>();
        new CheckText(result, LinePaper.unbroken(answer::add)).writeAnswer();
        lines.add("# " + Markdown.plain(answer.get(0)));
        lines.add("");
        answer.stream().skip(1).forEach(line -> lines.add(Markdown.plain(line) + "."));
        lines.add("");
        row("table", "rows", "at fault", "rows by kind");
        row("---", "---:", "---:", "---");
        FindingSentences sentences = new FindingSentences(result);
        for (TableResult table : result.tables()) {
            String kinds = sentences.kindsOf(table);
            row(
                    Markdown.plain(CellText.escaped(table.name())),
                    Counted.grouped(table.rows()),
                    table.faultyRows() == 0 ? "" : Counted.grouped(table.faultyRows()),
                    kinds.isEmpty() ? "sound" : Markdown.plain(kinds));
        }
        addCauses();
        result.load().ifPresent(this::addLoad);
        result.findings().forEach(finding -> addFinding(finding, sentences));
        return lines;
    }

    private void addCauses() {
        if (result.causes().isEmpty()) {
            return;
        }
        lines.add("");
        lines.add("## Where to begin");
        lines.add("");
        for (Cause cause : result.causes()
                .subList(0, Math.min(CAUSES_SHOWN, result.causes().size()))) {
            lines.add("1. " + Markdown.plain(CellText.escaped(CauseWords.toDo(cause))) + ": "
                    + Markdown.plain(CellText.escaped(CauseWords.cures(cause))) + "  ");
            String command = CellText.escaped(CauseWords.command(cause, charter));
            lines.add("   " + (command.contains("`") ? Markdown.plain(command) : "`" + command + "`"));
        }
        int more = result.causes().size() - CAUSES_SHOWN;
        if (more > 0) {
            lines.add("");
            lines.add("And " + Counted.of(more, "more cause") + ".");
        }
    }

    private void addLoad(LoadResult load) {
        lines.add("");
        lines.add("## A load in this order");
        lines.add("");
        lines.add(Markdown.plain(LoadWords.answer(load)) + ".");
        lines.add("");
        row("table", "rows", "get in", "refused");
        row("---", "---:", "---:", "---");
        for (LoadResult.LoadedTable table : load.tables()) {
            row(
                    Markdown.plain(CellText.escaped(table.name())),
                    Counted.grouped(table.rows()),
                    Counted.grouped(table.loaded()),
                    table.refusals().stream()
                            .map(refusal -> Markdown.plain(CellText.escaped(LoadWords.refused(refusal))))
                            .collect(Collectors.joining("; ")));
        }
        for (String remark : LoadWords.remarks(load)) {
            lines.add("");
            lines.add(Markdown.plain(CellText.escaped(remark)) + ".");
        }
    }

    private void addFinding(Finding finding, FindingSentences sentences) {
        lines.add("");
        lines.add("## " + finding.severity().word() + ": " + finding.kind().words() + " at "
                + Markdown.plain(FindingSentences.place(finding)) + ", "
                + Markdown.plain(FindingSentences.rows(finding)));
        List<String> said = sentences.of(finding);
        if (!said.isEmpty()) {
            lines.add("");
            said.forEach(sentence -> lines.add(Markdown.plain(sentence) + "  "));
        }
        if (finding.examples().isEmpty()) {
            return;
        }
        lines.add("");
        EvidenceFields fields = new EvidenceFields(result, finding);
        List<String> shown = finding.kind() == FindingKind.MALFORMED_ROW ? List.of() : fields.shown();
        boolean areNumbered = fields.areNumbered();
        List<String> head = new ArrayList<>(areNumbered ? List.of("file", "row") : List.of());
        List<String> rule = new ArrayList<>(areNumbered ? List.of("---", "---:") : List.of());
        shown.forEach(column -> {
            head.add(Markdown.plain(CellText.escaped(column)));
            rule.add("---");
        });
        head.add("");
        rule.add("---");
        row(head.toArray(new String[0]));
        row(rule.toArray(new String[0]));
        for (Evidence evidence : finding.examples()) {
            List<String> cells = new ArrayList<>();
            if (areNumbered) {
                cells.add(Markdown.plain(CellText.escaped(evidence.part())));
                cells.add(Counted.grouped(evidence.row()));
            }
            shown.forEach(column -> cells.add(
                    Markdown.plain(CellText.of(fields.cell(evidence, column).orElse(null)))));
            String remark = CellText.escaped(EvidenceFields.remark(evidence));
            cells.add(Markdown.plain(
                    evidence.raw().isEmpty() ? remark : remark + ": " + CellText.shortened(evidence.raw())));
            row(cells.toArray(new String[0]));
        }
        long more = finding.rows() - finding.examples().size();
        if (more > 0) {
            lines.add("");
            lines.add("And " + Counted.of(more, "more row") + ".");
        }
    }

    private void row(String... cells) {
        lines.add(Markdown.row(cells));
    }
}
