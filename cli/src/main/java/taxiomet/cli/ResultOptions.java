package taxiomet.cli;

import picocli.CommandLine.Option;

/** What commands with findings ask about their result. */
final class ResultOptions {
    @Option(names = "--json", description = "Print the result as JSON.")
    private boolean json;

    @Option(
            names = "--fail-on",
            paramLabel = "SEVERITY",
            description = "End with status 1 for findings of this severity or worse: error, warning or never."
                    + " Default: error",
            defaultValue = "error")
    private FailOn failOn;

    boolean isJson() {
        return json;
    }

    FailOn failOn() {
        return failOn;
    }
}
