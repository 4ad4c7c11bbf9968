package taxiomet.cli;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import picocli.AutoComplete;
import picocli.CommandLine;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import taxiomet.cli.help.HelpPage;
import taxiomet.cli.terminal.Terminal;

/** Writes the completion of commands, options and the words that these can be, for three shells. The build calls it. */
final class Completion {
    private final CommandLine root;
    private final StringBuilder script = new StringBuilder();

    private Completion(CommandLine root) {
        this.root = root;
    }

    /** @param arguments the folder to write to */
    public static void main(String[] arguments) throws IOException {
        PrintStream nowhere = new PrintStream(new ByteArrayOutputStream(), false, StandardCharsets.UTF_8);
        CommandLine root = Main.commandLine(Terminal.of(Map.of(), nowhere, nowhere));
        Path folder = Files.createDirectories(Path.of(arguments[0]));
        Files.writeString(folder.resolve("taxiomet.bash"), AutoComplete.bash("taxiomet", root));
        Files.writeString(folder.resolve("_taxiomet"), new Completion(root).zsh());
        Files.writeString(folder.resolve("taxiomet.fish"), new Completion(root).fish());
    }

    private static String summary(CommandLine command) {
        return String.join(" ", command.getCommandSpec().usageMessage().header());
    }

    /** The first sentence of what an argument is for. */
    private static String summary(ArgSpec argument) {
        String words = HelpPage.description(argument);
        int end = words.indexOf(". ");
        return end < 0 ? words : words.substring(0, end);
    }

    private static List<OptionSpec> options(CommandSpec command) {
        return command.options().stream().filter(option -> !option.hidden()).toList();
    }

    private static boolean isPath(ArgSpec argument) {
        return argument.paramLabel()
                .matches(".*(FILE|DIR|CHARTER|DATA|PROPOSAL)].*|.*(FILE|DIR|CHARTER|DATA|PROPOSAL)");
    }

    private static String quoted(String text) {
        return "'" + text.replace("'", "'\\''") + "'";
    }

    private String zsh() {
        script.append("#compdef taxiomet\n\n_taxiomet() {\n    local -a commands\n    commands=(\n");
        root.getSubcommands()
                .forEach((name, command) -> script.append("        ")
                        .append(quoted(name + ":" + summary(command).replace(":", "\\:")))
                        .append('\n'));
        script.append("    )\n    if (( CURRENT == 2 )); then\n        _describe -t commands command commands\n")
                .append("        return\n    fi\n    local command=$words[2]\n    shift words\n    (( CURRENT-- ))\n")
                .append("    case $command in\n");
        root.getSubcommands().forEach((name, command) -> {
            script.append("        ").append(name).append(")\n            _arguments");
            CommandSpec spec = command.getCommandSpec();
            options(spec).forEach(option -> zsh(option));
            spec.positionalParameters().forEach(this::zsh);
            script.append("\n            ;;\n");
        });
        return script.append("    esac\n}\n\ncompdef _taxiomet taxiomet\n").toString();
    }

    private void line(String words) {
        script.append(" \\\n                ").append(words);
    }

    private void zsh(OptionSpec option) {
        String about = "[" + summary(option).replaceAll("[\\[\\]]", "") + "]";
        String again = option.isMultiValue() && option.arity().max() == 1 ? "*" : "";
        for (String name : option.names()) {
            boolean isOptional = option.arity().min() == 0 && option.arity().max() > 0;
            line(quoted(again + name + (isOptional ? "=-" : "") + about + values(option)));
        }
    }

    private static String values(OptionSpec option) {
        StringBuilder values = new StringBuilder();
        for (int i = 0; i < option.arity().max(); i++) {
            values.append(option.arity().min() == 0 ? "::" : ":").append(zshWords(option));
        }
        return values.toString();
    }

    /** What follows: what it is called, and the words or files that it can be. */
    private static String zshWords(ArgSpec argument) {
        List<String> words = HelpPage.words(argument);
        String label = argument.paramLabel().replaceAll("[\\[\\]:]", " ").strip();
        return label + ":"
                + (!words.isEmpty() ? "(" + String.join(" ", words) + ")" : isPath(argument) ? "_files" : "");
    }

    private void zsh(PositionalParamSpec parameter) {
        line(quoted((parameter.arity().max() > 1 ? "*:" : "1:") + zshWords(parameter)));
    }

    private String fish() {
        script.append("# Completion of taxiomet for fish.\n");
        root.getSubcommands()
                .forEach((name, command) -> script.append("complete -c taxiomet -n __fish_use_subcommand -f -a ")
                        .append(name)
                        .append(" -d ")
                        .append(fishQuoted(summary(command)))
                        .append('\n'));
        root.getSubcommands().forEach((name, command) -> {
            CommandSpec spec = command.getCommandSpec();
            String where = "complete -c taxiomet -n '__fish_seen_subcommand_from " + name + "'";
            options(spec).forEach(option -> fish(where, option));
            spec.positionalParameters().stream()
                    .filter(parameter -> !HelpPage.words(parameter).isEmpty())
                    .forEach(parameter -> script.append(where)
                            .append(" -f -a ")
                            .append(fishQuoted(String.join(" ", HelpPage.words(parameter))))
                            .append('\n'));
        });
        return script.toString();
    }

    private void fish(String where, OptionSpec option) {
        script.append(where);
        for (String name : option.names()) {
            script.append(name.startsWith("--") ? " -l " + name.substring(2) : " -s " + name.substring(1));
        }
        List<String> words = HelpPage.words(option);
        if (option.arity().min() > 0) {
            script.append(isPath(option) ? " -r" : " -x");
        }
        if (!words.isEmpty()) {
            script.append(" -a ").append(fishQuoted(String.join(" ", words)));
        }
        script.append(" -d ").append(fishQuoted(summary(option))).append('\n');
    }

    private static String fishQuoted(String text) {
        return "'" + text.replace("\\", "\\\\").replace("'", "\\'") + "'";
    }
}
