package taxiomet.cli.help;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine;
import picocli.CommandLine.Help;
import picocli.CommandLine.IHelpSectionRenderer;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.UsageMessageSpec;
import taxiomet.cli.option.OptionGroup;
import taxiomet.reports.text.Paragraph;

/** The help of a command: options in parts, lines broken between words alone. */
public final class HelpPage {
    private static final int INDENT = 2;
    private static final int TERM = 26;
    private static final int NARROW = 60;
    private static final int LEAST_OF_LIBRARY = 55;

    private final int width;
    private final boolean hasColor;

    private HelpPage(int width, boolean hasColor) {
        this.width = width;
        this.hasColor = hasColor;
    }

    /** Makes a command and those below it show their help so. */
    public static void install(CommandLine command, int width, boolean hasColor) {
        HelpPage page = new HelpPage(width, hasColor);
        page.installIn(command);
        command.getSubcommands().values().forEach(page::installIn);
    }

    private void installIn(CommandLine command) {
        command.setUsageHelpWidth(Math.max(LEAST_OF_LIBRARY, width));
        section(
                command,
                UsageMessageSpec.SECTION_KEY_HEADER,
                help -> paragraphs(spec(help).usageMessage().header(), 0));
        section(
                command,
                UsageMessageSpec.SECTION_KEY_DESCRIPTION,
                help -> paragraphs(spec(help).usageMessage().description(), 0));
        section(
                command,
                UsageMessageSpec.SECTION_KEY_PARAMETER_LIST,
                help -> spec(help).positionalParameters().stream()
                        .map(parameter -> item(parameter.paramLabel(), description(parameter)))
                        .collect(Collectors.joining()));
        section(command, UsageMessageSpec.SECTION_KEY_OPTION_LIST_HEADING, help -> "");
        section(command, UsageMessageSpec.SECTION_KEY_OPTION_LIST, help -> options(spec(help)));
        section(
                command,
                UsageMessageSpec.SECTION_KEY_COMMAND_LIST,
                help -> help.subcommands().entrySet().stream()
                        .map(sub -> item(
                                sub.getKey(),
                                String.join(
                                        " ", spec(sub.getValue()).usageMessage().header())))
                        .collect(Collectors.joining()));
    }

    private static void section(CommandLine command, String key, IHelpSectionRenderer renderer) {
        command.getHelpSectionMap().put(key, renderer);
    }

    private static CommandSpec spec(Help help) {
        return help.commandSpec();
    }

    private String options(CommandSpec command) {
        StringBuilder text = new StringBuilder();
        for (OptionGroup group : OptionGroup.values()) {
            List<OptionSpec> options = group.of(command);
            boolean isAll = options.size() == command.options().size();
            if (!options.isEmpty()) {
                text.append('\n').append(isAll ? "Options" : group.title()).append(":\n");
                options.forEach(option -> text.append(item(term(option), description(option))));
            }
        }
        return text.toString();
    }

    /** An option as it is written, with what follows it. */
    public static String term(OptionSpec option) {
        String names = String.join(", ", option.names());
        if (option.arity().max() == 0) {
            return names;
        }
        return option.arity().min() == 0 ? names + "[=" + option.paramLabel() + "]" : names + " " + option.paramLabel();
    }

    /** What an argument is for, its default and its words in place. */
    public static String description(ArgSpec argument) {
        return String.join(" ", argument.description())
                .replace("${DEFAULT-VALUE}", String.valueOf(argument.defaultValue()))
                .replace("${COMPLETION-CANDIDATES}", String.join(", ", words(argument)));
    }

    /** The words that an argument can be; empty where it can be anything. */
    public static List<String> words(ArgSpec argument) {
        List<String> words = new ArrayList<>();
        if (argument.completionCandidates() != null) {
            argument.completionCandidates().forEach(words::add);
        }
        return words;
    }

    private String item(String term, String words) {
        String shown = " ".repeat(INDENT) + (hasColor ? "\u001B[1m" + term + "\u001B[0m" : term);
        int column = width < NARROW ? 2 * INDENT : TERM;
        List<String> lines = Paragraph.lines(words, column, width);
        boolean isBeside = INDENT + term.length() + 2 <= column;
        String first = lines.get(0).strip();
        return (isBeside
                        ? Stream.concat(
                                Stream.of(shown + " ".repeat(column - INDENT - term.length()) + first),
                                lines.stream().skip(1))
                        : Stream.concat(Stream.of(shown), lines.stream()))
                .map(line -> line + "\n")
                .collect(Collectors.joining());
    }

    private String paragraphs(String[] texts, int indent) {
        return Stream.of(texts)
                .flatMap(text -> Paragraph.lines(text, indent, width).stream())
                .map(line -> line + "\n")
                .collect(Collectors.joining());
    }
}
