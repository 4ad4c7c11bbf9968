package taxiomet.cli.option;

import picocli.CommandLine.Option;

/** How a long text is shown. */
public final class PageOptions {
    @Option(
            names = "--pager",
            description = "Show the text page by page with the program that the variable PAGER names.")
    private boolean isPaged;

    public boolean isPaged() {
        return isPaged;
    }
}
