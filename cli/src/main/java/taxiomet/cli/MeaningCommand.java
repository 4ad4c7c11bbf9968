package taxiomet.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import taxiomet.charter.NearestWord;
import taxiomet.cli.help.Meanings;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.WordList;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.text.Paragraph;

/** Tells what a kind of finding means. */
@Command(
        name = "meaning",
        customSynopsis = "taxiomet meaning [KIND...]",
        header = "Tell what a kind of finding or refusal means and what to do about it.",
        description = {"", "Without KIND it lists all kinds."},
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {"  taxiomet meaning orphan", "  taxiomet meaning null-in-key key-taken"},
        optionListHeading = "%nOptions:%n")
final class MeaningCommand implements Callable<Integer> {
    private final Terminal terminal;

    @Parameters(
            arity = "0..*",
            paramLabel = "KIND",
            completionCandidates = Kinds.class,
            description = "Kinds of finding, such as orphan or null-in-key, and of refusal, such as key-taken.")
    private List<String> kind = List.of();

    @Mixin
    private CommonOptions common;

    MeaningCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() {
        Meanings meanings = new Meanings();
        if (kind.isEmpty()) {
            print("Kinds of finding, those first that hide others:", 0);
            Meanings.findings().forEach(each -> printSummary(meanings, each));
            terminal.out().println();
            print("Kinds of refusal, by which a change is blocked, beside those above:", 0);
            Meanings.refusals().forEach(each -> printSummary(meanings, each));
            return ExitStatus.SOUND;
        }
        // All are found before one is told.
        for (String wanted : find(kind)) {
            terminal.out().println(strong(wanted));
            for (String paragraph : meanings.of(wanted)) {
                print(paragraph, 4);
                terminal.out().println();
            }
        }
        return ExitStatus.SOUND;
    }

    private void printSummary(Meanings meanings, String kind) {
        terminal.out().println(strong(kind));
        print(meanings.summary(kind), 4);
    }

    /** The kinds that some words name: each word one kind, or several words together. */
    private static List<String> find(List<String> words) {
        List<String> found = new ArrayList<>();
        int next = 0;
        while (next < words.size()) {
            int end = words.size();
            while (end > next
                    && Meanings.find(String.join(" ", words.subList(next, end))).isEmpty()) {
                end--;
            }
            if (end == next) {
                throw unknown(String.join(" ", words.subList(next, words.size())), words.get(next));
            }
            found.add(Meanings.find(String.join(" ", words.subList(next, end))).orElseThrow());
            next = end;
        }
        return found;
    }

    private static UsageException unknown(String words, String first) {
        String near = NearestWord.of(words, Meanings.kinds())
                .or(() -> NearestWord.of(first, Meanings.kinds()))
                .map(nearest -> "did you mean " + Meanings.asWord(nearest) + "?")
                .orElse("there are "
                        + String.join(
                                ", ",
                                Meanings.kinds().stream().map(Meanings::asWord).toList()));
        return new UsageException("there is no kind of finding or refusal `" + words + "`; " + near);
    }

    /** For completion. */
    static final class Kinds extends WordList {
        private static final long serialVersionUID = 1;

        Kinds() {
            super(Meanings.kinds().stream().map(Meanings::asWord).toList());
        }
    }

    private String strong(String text) {
        return terminal.hasColor(common.color()) ? "\u001B[1m" + text + "\u001B[0m" : text;
    }

    private void print(String paragraph, int indent) {
        Paragraph.lines(paragraph, indent, Math.min(terminal.width(), 100)).forEach(terminal.out()::println);
    }
}
