package taxiomet.cli.option;

import picocli.CommandLine.Option;
import taxiomet.cli.terminal.ColorChoice;

/** Options that every command has. */
public final class CommonOptions {
    @Option(
            names = "--color",
            paramLabel = "WHEN",
            description = "Colour the text: auto, always or never. Default: auto",
            defaultValue = "auto")
    private ColorChoice color = ColorChoice.AUTO;

    @Option(names = "--verbose", description = "Say more when something goes wrong, and how quickly a check went.")
    private boolean verbose;

    @Option(
            names = {"-h", "--help"},
            usageHelp = true,
            description = "Show this help.")
    @SuppressWarnings("unused")
    private boolean help;

    public boolean isVerbose() {
        return verbose;
    }

    public ColorChoice color() {
        return color;
    }
}
