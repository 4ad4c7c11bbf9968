package taxiomet.cli.option;

import picocli.CommandLine.Option;
import taxiomet.cli.terminal.UsageException;

/** What commands with findings ask about their result. */
public final class ResultOptions {
    @Option(names = "--json", description = "Print the result as JSON.")
    private boolean json;

    @Option(
            names = "--fail-on",
            paramLabel = "SEVERITY",
            description =
                    "End with status 1 for findings of this severity or worse: error, warning or never; for new where an earlier"
                            + " result is known. Default: error",
            defaultValue = "error")
    private FailOn failOn;

    public boolean isJson() {
        return json;
    }

    /** What is grave enough; refuses what nobody could know here. */
    public FailOn failOn() {
        requireKnown();
        return failOn;
    }

    /** Refuses, before anything is read, what nobody could know here. */
    public void requireKnown() {
        if (failsOnNew()) {
            throw new UsageException("--fail-on new goes with an earlier result: `compare`, or `check --since`");
        }
    }

    /** Whether what is new is meant, and all else is not. */
    public boolean failsOnNew() {
        return failOn == FailOn.NEW;
    }
}
