package taxiomet.cli.option;

import java.util.List;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;

/** The parts in which help lists the options of a command, each option in one of them. */
public enum OptionGroup {
    READ(
            "What is read",
            "-e",
            "--delete",
            "--update",
            "--insert",
            "--any-owner",
            "--rows",
            "--against",
            "--schema",
            "--user",
            "--password-file",
            "--driver",
            "--allow-database",
            "--only",
            "--sample",
            "--around",
            "--reach",
            "--check",
            "--since",
            "--key-file",
            "--count",
            "--through",
            "--where",
            "--where-child",
            "--childless",
            "--row",
            "--after",
            "--key",
            "--link",
            "--key-columns",
            "--delimiter",
            "--encoding"),
    RULES(
            "Under which rules",
            "--server",
            "--tables",
            "--deferred",
            "--all-or-nothing",
            "--now",
            "--try",
            "--keep",
            "--mend",
            "--today"),
    SHOWN(
            "What is shown",
            "--full",
            "--examples",
            "--reveal",
            "--why",
            "--load-order",
            "--columns",
            "--sort",
            "--up",
            "--down",
            "--compare-actions",
            "--queries",
            "--back",
            "--json",
            "--quiet",
            "--color",
            "--pager"),
    WRITTEN(
            "What is written",
            "--report",
            "--evidence",
            "--keep-history",
            "--per-owner",
            "--bom",
            "--into",
            "--per-heading",
            "--whole",
            "--undo",
            "--write-sql",
            "--prove",
            "--write-charter",
            "--force"),
    RUN("How it runs", "--inside", "--watch", "--fail-on", "--memory", "--threads", "--verbose", "--version", "--help");

    private final String title;

    @SuppressWarnings("ImmutableEnumChecker")
    private final List<String> options;

    OptionGroup(String title, String... options) {
        this.title = title;
        this.options = List.of(options);
    }

    public String title() {
        return title;
    }

    /** The options of a command that stand in this part, in its order. */
    public List<OptionSpec> of(CommandSpec command) {
        return options.stream()
                .filter(name -> command.findOption(name) != null)
                .map(command::findOption)
                .filter(option -> !option.hidden())
                .toList();
    }
}
