package taxiomet.cli;

import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import taxiomet.charter.NearestWord;
import taxiomet.finding.FindingKind;
import taxiomet.reports.text.Paragraph;

/** Tells what a kind of finding means. */
@Command(
        name = "meaning",
        header = "Tell what a kind of finding means and what to do about it.",
        description = {"", "Without KIND it lists all kinds."},
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {"  taxiomet meaning orphan", "  taxiomet meaning null in key"},
        optionListHeading = "%nOptions:%n")
final class MeaningCommand implements Callable<Integer> {
    private final Terminal terminal;

    @Parameters(
            arity = "0..*",
            paramLabel = "KIND",
            description = "A kind of finding, such as orphan or \"null in key\".")
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
            for (FindingKind each : FindingKind.values()) {
                terminal.out().println(strong(each.words()));
                print(meanings.summary(each), 4);
            }
            return ExitStatus.SOUND;
        }
        FindingKind wanted = find(String.join(" ", kind));
        terminal.out().println(strong(wanted.words()));
        for (String paragraph : meanings.of(wanted)) {
            print(paragraph, 4);
            terminal.out().println();
        }
        return ExitStatus.SOUND;
    }

    private static FindingKind find(String words) {
        return FindingKind.parse(words).orElseThrow(() -> {
            List<String> known =
                    Arrays.stream(FindingKind.values()).map(FindingKind::words).toList();
            String near = NearestWord.of(words, known)
                    .map(nearest -> "did you mean `" + nearest + "`?")
                    .orElse("there are: " + String.join(", ", known));
            return new UsageException("there is no kind of finding `" + words + "`; " + near);
        });
    }

    private String strong(String text) {
        return terminal.hasColor(common.color()) ? "\u001B[1m" + text + "\u001B[0m" : text;
    }

    private void print(String paragraph, int indent) {
        Paragraph.lines(paragraph, indent, Math.min(terminal.width(), 100)).forEach(terminal.out()::println);
    }
}
