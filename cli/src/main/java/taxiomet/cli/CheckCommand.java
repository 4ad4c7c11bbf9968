package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;
import taxiomet.check.CheckOptions;
import taxiomet.check.CheckRun;
import taxiomet.finding.CheckResult;
import taxiomet.reports.OutputException;
import taxiomet.reports.json.JsonReport;
import taxiomet.reports.text.TextReport;
import taxiomet.sources.RowSources;
import taxiomet.spill.MemoryBudget;

/** Judges the rows: the main job. */
@Command(
        name = "check",
        header = "Check the rows of all tables against the charter.",
        description = {"", "Reads every row once and reports each fault with the rows behind it."},
        parameterListHeading = "%nArguments:%n",
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:sound, or nothing as bad as --fail-on says",
            "1:there are findings",
            "2:wrong usage, or a charter that cannot be used",
            "3:data that cannot be read, or results that cannot be written"
        })
final class CheckCommand implements Callable<Integer> {
    private static final int MOST_EXAMPLES = 100_000;
    /** With all evidence to be written, parents are looked for on behalf of so many different missing values. */
    private static final int HINTED_IN_EVIDENCE = 10_000;

    /** What is grave enough for an exit status of 1. */
    enum FailOn {
        ERROR,
        WARNING,
        NEVER;

        /** The word as users type it. */
        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** How the rows of findings are put into folders. */
    enum SplitBy {
        OWNER
    }

    private final Terminal terminal;

    @Parameters(
            arity = "0..1",
            paramLabel = "CHARTER",
            description = "The charter to check against. Default: ${DEFAULT-VALUE}",
            defaultValue = "charter.yaml")
    private Path charterFile;

    @Option(
            names = "--only",
            paramLabel = "TABLE",
            description = "Judge this table alone; its parents are read for their keys. Can be repeated.")
    private List<String> only = List.of();

    @Option(
            names = "--examples",
            paramLabel = "N",
            description = "Show at most so many rows of each finding. Default: ${DEFAULT-VALUE}",
            defaultValue = "5")
    private int examples;

    @Option(
            names = "--evidence",
            paramLabel = "DIR",
            description = "Write a folder with the result as JSON and a CSV file with every row of each finding.")
    private Path evidence;

    @Option(
            names = "--split-by",
            paramLabel = "WHAT",
            description = "With --evidence: a folder for each ${COMPLETION-CANDIDATES}.",
            completionCandidates = OwnerOnly.class)
    private SplitBy splitBy;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the result to a file as its ending says: .json, or .csv with every row. Can be repeated.")
    private List<Path> reports = List.of();

    @Option(names = "--json", description = "Print the result as JSON.")
    private boolean json;

    @Option(
            names = "--fail-on",
            paramLabel = "WEIGHT",
            description = "End with status 1 for findings of this weight or worse: error, warning or never."
                    + " Default: error",
            defaultValue = "error")
    private FailOn failOn;

    @Option(names = "--force", description = "Replace results that exist already.")
    private boolean force;

    @Option(names = "--quiet", description = "Print the answer alone, and no progress.")
    private boolean quiet;

    @Mixin
    private CommonOptions common;

    /** What --split-by can be. */
    static final class OwnerOnly extends ArrayList<String> {
        private static final long serialVersionUID = 1;

        OwnerOnly() {
            super(List.of("owner"));
        }
    }

    CheckCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        requireSense();
        ResultOutputs outputs = new ResultOutputs(reports, evidence, splitBy == SplitBy.OWNER, force);
        outputs.requireFree();
        Charter charter = Charters.read(charterFile);
        CheckOptions options = new CheckOptions(
                tables(charter), examples, evidence == null && reports.isEmpty() ? examples : HINTED_IN_EVIDENCE);
        boolean showsProgress = terminal.isWatched() && !quiet;
        try (Progress progress = new Progress(terminal);
                CheckRun run = CheckRun.start(
                        charter,
                        options,
                        RowSources::open,
                        temporaryFolder(),
                        MemoryBudget.ofThisProcess(),
                        showsProgress ? progress : Progress.NONE)) {
            CheckResult result = run.result();
            outputs.write(result);
            print(result);
            return status(result);
        }
    }

    private void requireSense() {
        if (examples < 0 || examples > MOST_EXAMPLES) {
            throw new UsageException(
                    "--examples is a number from 0 to " + MOST_EXAMPLES + "; --evidence writes all rows");
        }
        if (splitBy != null && evidence == null) {
            throw new UsageException("--split-by goes with --evidence DIR");
        }
    }

    /** The tables that --only names. */
    private Set<String> tables(Charter charter) {
        List<String> names = charter.tables().stream().map(Table::name).toList();
        for (String name : only) {
            if (!names.contains(name)) {
                String near = NearestWord.of(name, names)
                        .map(nearest -> "did you mean `" + nearest + "`?")
                        .orElse("there are " + String.join(", ", names));
                throw new UsageException("the charter has no table `" + name + "`; " + near);
            }
        }
        return new LinkedHashSet<>(only);
    }

    private static Path temporaryFolder() throws IOException {
        Path folder = Path.of(System.getProperty("java.io.tmpdir"));
        if (!Files.isDirectory(folder)) {
            throw new OutputException(
                    folder.toString(),
                    "there is no such folder for temporary files",
                    "set TMPDIR to a folder that exists");
        }
        return folder;
    }

    private void print(CheckResult result) throws IOException {
        boolean hasColor = terminal.hasColor(common.color());
        if (json) {
            JsonReport.write(result, List.of(), terminal.out());
        } else if (quiet) {
            TextReport.writeAnswer(result, terminal.width(), hasColor, terminal.out()::println);
        } else {
            TextReport.write(result, terminal.width(), hasColor, terminal.out()::println);
        }
    }

    private int status(CheckResult result) {
        Severity worst = failOn == FailOn.WARNING ? Severity.WARNING : Severity.ERROR;
        boolean fails = failOn != FailOn.NEVER
                && result.findings().stream()
                        .anyMatch(finding -> finding.severity().isAtLeast(worst));
        return fails ? ExitStatus.FINDINGS : ExitStatus.SOUND;
    }
}
