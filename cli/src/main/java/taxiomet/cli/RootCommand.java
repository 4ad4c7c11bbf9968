package taxiomet.cli;

import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;
import taxiomet.cli.terminal.Version;

/** The program without a command. */
@Command(
        name = "taxiomet",
        versionProvider = Version.class,
        header = "Checks the rows of related tables against declared keys, links and rules, and rehearses changes.",
        description = {
            "",
            "The rules stand in a charter (charter.yaml). Input is never changed.",
        },
        customSynopsis = "taxiomet COMMAND [OPTION...]",
        commandListHeading = "%nCommands:%n",
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:sound",
            "1:there are findings",
            "2:wrong usage, or a charter that cannot be used",
            "3:data that cannot be read, or results that cannot be written",
            "130:interrupted"
        },
        footerHeading = "%nEnvironment:%n",
        footer = {
            "  COLUMNS, LINES           how large the window is, where it cannot be found out",
            "  NO_COLOR                 no colours, whatever it says",
            "  PAGER                    the program that --pager shows long texts with",
            "  TMPDIR                   where temporary files go",
            "  TAXIOMET_PASSWORD        of the user of a database that is named on the command line",
            "  TAXIOMET_ALLOW_DATABASE  addresses that a charter may name, with blanks between them",
            "  TAXIOMET_JAVA_OPTS       what Java is started with, such as -Xmx4g",
            "",
            "Start with `taxiomet demo`, or `taxiomet help check`."
        })
final class RootCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Option(
            names = {"-h", "--help"},
            usageHelp = true,
            description = "Show this help.")
    @SuppressWarnings("unused")
    private boolean help;

    @Option(
            names = {"-V", "--version"},
            versionHelp = true,
            description = "Show the version.")
    @SuppressWarnings("unused")
    private boolean version;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
