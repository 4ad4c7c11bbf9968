package taxiomet.cli;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import picocli.CommandLine;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import taxiomet.cli.help.HelpPage;
import taxiomet.cli.option.OptionGroup;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.Version;

/** Writes a man page for each command, from the same words as its help. The build calls it. */
final class ManPages {
    private ManPages() {}

    /** @param arguments the folder to write to */
    public static void main(String[] arguments) throws IOException {
        Path folder = Files.createDirectories(Path.of(arguments[0]));
        PrintStream nowhere = new PrintStream(new ByteArrayOutputStream(), false, StandardCharsets.UTF_8);
        CommandLine root = Main.commandLine(Terminal.of(Map.of(), nowhere, nowhere));
        write(folder, root);
        for (CommandLine command : root.getSubcommands().values()) {
            write(folder, command);
        }
    }

    private static void write(Path folder, CommandLine command) throws IOException {
        CommandSpec spec = command.getCommandSpec();
        String name = spec.qualifiedName("-");
        StringBuilder page = new StringBuilder();
        page.append(".TH \"").append(name.toUpperCase(Locale.ROOT)).append("\" \"1\" \"\" \"");
        page.append(Version.line()).append("\" \"Taxiomet\"\n");
        section(page, "NAME");
        page.append(text(name))
                .append(" \\- ")
                .append(text(String.join(" ", spec.usageMessage().header())))
                .append('\n');
        section(page, "SYNOPSIS");
        String synopsis = command.getHelp().synopsis(0).replaceAll("\\s+", " ").strip();
        page.append(text(plain(synopsis))).append('\n');
        section(page, "DESCRIPTION");
        page.append(text(String.join(" ", spec.usageMessage().description()).strip()))
                .append('\n');
        if (!command.getSubcommands().isEmpty()) {
            section(page, "COMMANDS");
            command.getSubcommands()
                    .forEach((word, sub) -> item(
                            page,
                            word,
                            String.join(" ", sub.getCommandSpec().usageMessage().header())));
        }
        if (!spec.positionalParameters().isEmpty()) {
            section(page, "ARGUMENTS");
            for (PositionalParamSpec parameter : spec.positionalParameters()) {
                item(page, parameter.paramLabel(), HelpPage.description(parameter));
            }
        }
        section(page, "OPTIONS");
        for (OptionGroup group : OptionGroup.values()) {
            List<OptionSpec> options = group.of(spec);
            if (!options.isEmpty()) {
                page.append(".SS ").append(group.title()).append('\n');
                options.forEach(option -> item(page, HelpPage.term(option), HelpPage.description(option)));
            }
        }
        if (!spec.usageMessage().exitCodeList().isEmpty()) {
            section(page, "EXIT STATUS");
            spec.usageMessage().exitCodeList().forEach((code, meaning) -> item(page, code, meaning));
        }
        // Examples of a command, the environment of the program: as they stand in the help.
        String[] footer = spec.usageMessage().footer();
        if (footer.length > 0) {
            section(
                    page,
                    plain(spec.usageMessage().footerHeading())
                            .strip()
                            .replace(":", "")
                            .replace("%n", "")
                            .toUpperCase(Locale.ROOT));
            page.append(".nf\n");
            for (String line : footer) {
                page.append(text(line)).append('\n');
            }
            page.append(".fi\n");
        }
        Files.writeString(folder.resolve(name + ".1"), page.toString());
    }

    private static String plain(String markup) {
        return Ansi.OFF.string(markup);
    }

    private static void section(StringBuilder page, String title) {
        page.append(".SH ").append(title).append('\n');
    }

    private static void item(StringBuilder page, String term, String words) {
        page.append(".TP\n\\fB")
                .append(text(term))
                .append("\\fR\n")
                .append(text(words))
                .append('\n');
    }

    /** Escapes what roff would take for its own. */
    private static String text(String words) {
        String escaped = words.replace("\\", "\\e").replace("-", "\\-");
        return escaped.startsWith(".") || escaped.startsWith("'") ? "\\&" + escaped : escaped;
    }
}
