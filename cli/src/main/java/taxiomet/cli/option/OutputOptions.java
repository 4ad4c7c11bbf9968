package taxiomet.cli.option;

import picocli.CommandLine.Option;

/** What commands ask about all that they write. */
public final class OutputOptions {
    @Option(names = "--force", description = "Replace what exists already.")
    private boolean isForced;

    @Option(names = "--quiet", description = "Print the answer alone, and no progress.")
    private boolean isQuiet;

    /** Whether files and folders that this program wrote are replaced. */
    public boolean isForced() {
        return isForced;
    }

    /** Whether the answer is printed alone, without progress. */
    public boolean isQuiet() {
        return isQuiet;
    }
}
