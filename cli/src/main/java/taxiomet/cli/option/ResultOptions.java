package taxiomet.cli.option;

import picocli.CommandLine.Option;

/** What commands with findings ask about their result. */
public final class ResultOptions {
    @Option(names = "--json", description = "Print the result as JSON.")
    private boolean json;

    @Option(
            names = "--fail-on",
            paramLabel = "SEVERITY",
            description = "End with status 1 for findings of this severity or worse: error, warning or never."
                    + " Default: error",
            defaultValue = "error")
    private FailOn failOn;

    public boolean isJson() {
        return json;
    }

    public FailOn failOn() {
        return failOn;
    }
}
