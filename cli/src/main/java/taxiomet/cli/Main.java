package taxiomet.cli;

import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import picocli.CommandLine;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.ParameterException;
import taxiomet.charter.CharterException;
import taxiomet.charter.NearestWord;
import taxiomet.cli.help.HelpPage;
import taxiomet.cli.terminal.ColorChoice;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.StandardOutput;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.cli.trust.TypedSecrets;
import taxiomet.proposal.ProposalException;
import taxiomet.reports.OutputException;
import taxiomet.rows.SourceException;
import taxiomet.spill.SpillException;

/** Where the program starts. */
public final class Main {
    private static final Pattern CHOICES = Pattern.compile("expected one of \\[(.*?)] \\(case-insensitive\\)");

    private static final int WIDEST_HELP = 100;

    private final Terminal terminal;

    private Main(Terminal terminal) {
        this.terminal = terminal;
    }

    /** @param arguments as typed */
    public static void main(String[] arguments) {
        StandardOutput out = new StandardOutput(new FileOutputStream(FileDescriptor.out));
        PrintStream err = new PrintStream(new FileOutputStream(FileDescriptor.err), true, StandardCharsets.UTF_8);
        int status =
                run(arguments, Terminal.of(System.getenv(), new PrintStream(out, false, StandardCharsets.UTF_8), err));
        System.exit(out.isLost() ? ExitStatus.UNREADABLE : status);
    }

    /** Runs one command and gives the exit status. */
    static int run(String[] arguments, Terminal terminal) {
        int status = new Main(terminal).run(arguments);
        terminal.end();
        terminal.out().flush();
        terminal.err().flush();
        return status;
    }

    private int run(String[] typed) {
        if (Arrays.asList(typed).contains("--verbose")) {
            terminal.beVerbose();
        }
        String[] arguments;
        try {
            arguments = TypedSecrets.keptApart(typed, terminal);
        } catch (UsageException e) {
            return failed(e, typed);
        }
        // The parser of the command line takes longer to load than this takes in all.
        if (arguments.length == 1 && (arguments[0].equals("--version") || arguments[0].equals("-V"))) {
            terminal.out().println(Version.line());
            return ExitStatus.SOUND;
        }
        // No option is a date or an address of the network: looking for those types costs 20 ms.
        System.setProperty("picocli.converters.excludes", "java[.](time|sql|net|security)[.].*");
        System.setProperty("picocli.disable.closures", "true");
        CommandLine commands = commandLine(terminal, arguments.length == 0 ? "" : arguments[0]);
        commands.setOut(new PrintWriter(terminal.out(), true, StandardCharsets.UTF_8));
        commands.setErr(new PrintWriter(terminal.err(), true, StandardCharsets.UTF_8));
        HelpPage.install(commands, Math.min(terminal.width(), WIDEST_HELP), terminal.hasColor(ColorChoice.AUTO));
        commands.setColorScheme(
                CommandLine.Help.defaultColorScheme(terminal.hasColor(ColorChoice.AUTO) ? Ansi.ON : Ansi.OFF));
        commands.setParameterExceptionHandler(this::wrongUsage);
        commands.setExecutionExceptionHandler((e, command, parsed) -> failed(e, arguments));
        try {
            return commands.execute(arguments);
        } catch (Error e) {
            return failed(e, arguments);
        }
    }

    /** All commands, before anything is parsed. */
    static CommandLine commandLine(Terminal terminal) {
        return commandLine(terminal, "");
    }

    /** The command of a name, or all of them where none has it: each takes 20 ms to make. */
    private static CommandLine commandLine(Terminal terminal, String name) {
        CommandLine commands = new CommandLine(new RootCommand());
        switch (name) {
            case "check" -> commands.addSubcommand(new CheckCommand(terminal));
            case "survey" -> commands.addSubcommand(new SurveyCommand(terminal));
            case "vet" -> commands.addSubcommand(new VetCommand(terminal));
            case "trace" -> commands.addSubcommand(new TraceCommand(terminal));
            case "roster" -> commands.addSubcommand(new RosterCommand(terminal));
            case "map" -> commands.addSubcommand(new MapCommand(terminal));
            case "ddl" -> commands.addSubcommand(new DdlCommand(terminal));
            case "rehearse" -> commands.addSubcommand(new RehearseCommand(terminal));
            case "compare" -> commands.addSubcommand(new CompareCommand(terminal));
            case "docket" -> commands.addSubcommand(new DocketCommand(terminal));
            case "sift" -> commands.addSubcommand(new SiftCommand(terminal));
            case "demo" -> commands.addSubcommand(new DemoCommand(terminal));
            default -> {
                commands.addSubcommand(new SurveyCommand(terminal));
                commands.addSubcommand(new VetCommand(terminal));
                commands.addSubcommand(new CheckCommand(terminal));
                commands.addSubcommand(new TraceCommand(terminal));
                commands.addSubcommand(new RosterCommand(terminal));
                commands.addSubcommand(new RehearseCommand(terminal));
                commands.addSubcommand(new DocketCommand(terminal));
                commands.addSubcommand(new SiftCommand(terminal));
                commands.addSubcommand(new CompareCommand(terminal));
                commands.addSubcommand(new MapCommand(terminal));
                commands.addSubcommand(new DdlCommand(terminal));
                commands.addSubcommand(new MeaningCommand(terminal));
                commands.addSubcommand(new DemoCommand(terminal));
                commands.addSubcommand(new HelpCommand());
            }
        }
        commands.setCaseInsensitiveEnumValuesAllowed(true);
        commands.setAbbreviatedOptionsAllowed(false);
        return commands;
    }

    private int wrongUsage(ParameterException e, String[] arguments) {
        CommandLine command = e.getCommandLine();
        terminal.complain(
                e instanceof CommandLine.UnmatchedArgumentException unmatched
                        ? unknown(unmatched.getUnmatched().get(0), command)
                        : inUsersWords(e.getMessage()));
        terminal.err().println("See `" + command.getCommandSpec().qualifiedName() + " --help`.");
        return ExitStatus.WRONG_USAGE;
    }

    /** What is not known, and what is known that is like it. */
    static String unknown(String word, CommandLine command) {
        boolean isOption = word.startsWith("-");
        String name = word.replaceFirst("=.*", "");
        List<String> known = isOption
                ? command.getCommandSpec().options().stream()
                        .filter(option -> !option.hidden())
                        .map(option -> option.longestName())
                        .toList()
                : List.copyOf(command.getSubcommands().keySet());
        String near = NearestWord.of(name, known)
                .map(nearest -> "; did you mean " + nearest + "?")
                .orElse("");
        return isOption
                ? "there is no option " + name + near
                : known.isEmpty() ? "`" + word + "` is one word too many" : "there is no command " + name + near;
    }

    /** The words that an option knows, as users type them. */
    private static String inUsersWords(String message) {
        return CHOICES.matcher(message).replaceFirst(found -> "expected one of " + found.group(1));
    }

    private int failed(Throwable e, String[] arguments) {
        if (e instanceof UsageException) {
            terminal.complain(e.getMessage());
            return ExitStatus.WRONG_USAGE;
        } else if (e instanceof CharterException charter) {
            charter.problems().forEach(problem -> terminal.complain(problem.toString()));
            int count = charter.problems().size();
            if (count > 1) {
                terminal.err().println(count + " problems; nothing was done.");
            }
            return ExitStatus.WRONG_USAGE;
        } else if (e instanceof ProposalException) {
            terminal.complain(e.getMessage());
            terminal.err().println("Nothing was rehearsed, and nothing was written.");
            return ExitStatus.WRONG_USAGE;
        } else if (e instanceof SourceException || e instanceof OutputException || e instanceof SpillException) {
            terminal.complain(e.getMessage());
        } else if (e instanceof OutOfMemoryError) {
            terminal.complain(
                    "there is not enough memory; give the program more in the environment: TAXIOMET_JAVA_OPTS=-Xmx4g");
        } else if (e instanceof StackOverflowError) {
            terminal.complain(
                    "something that is read is nested deeper than can be followed; look for long rows of brackets in it");
        } else {
            terminal.complain(
                    "this should not have happened (" + e + "); please report it with the output of --verbose");
        }
        if (Arrays.asList(arguments).contains("--verbose")) {
            e.printStackTrace(terminal.err());
        }
        return ExitStatus.UNREADABLE;
    }
}
