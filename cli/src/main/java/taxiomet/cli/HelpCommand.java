package taxiomet.cli;

import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import taxiomet.cli.option.WordList;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.UsageException;

/** Shows the help of a command, as its option {@code --help} does. */
@Command(
        name = "help",
        customSynopsis = "taxiomet help [COMMAND]",
        header = "Show the help of a command, or the list of all.",
        parameterListHeading = "%nArguments:%n")
final class HelpCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(
            arity = "0..1",
            paramLabel = "COMMAND",
            completionCandidates = Commands.class,
            description = "The command. Default: all of them, in a list")
    private String name;

    @Override
    public Integer call() {
        CommandLine root = spec.parent().commandLine();
        CommandLine wanted = name == null ? root : root.getSubcommands().get(name);
        if (wanted == null) {
            throw new UsageException(Main.unknown(name, root));
        }
        wanted.usage(root.getOut());
        return ExitStatus.SOUND;
    }

    /** For completion. */
    static final class Commands extends WordList {
        private static final long serialVersionUID = 1;

        Commands() {
            super(List.of(
                    "survey",
                    "vet",
                    "check",
                    "trace",
                    "roster",
                    "rehearse",
                    "docket",
                    "sift",
                    "compare",
                    "map",
                    "ddl",
                    "meaning",
                    "demo",
                    "help"));
        }
    }
}
