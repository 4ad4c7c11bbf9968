package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.cli.help.Meanings;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.CsvOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.PersonalOptions;
import taxiomet.cli.option.ResultOptions;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.option.UsableCharter;
import taxiomet.cli.output.EvidenceOutput;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.output.WatchRun;
import taxiomet.cli.settle.HistoryOptions;
import taxiomet.cli.settle.KeptFiles;
import taxiomet.cli.settle.KeyFile;
import taxiomet.cli.settle.KeyOptions;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.RunFigures;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.finding.CheckResult;
import taxiomet.finding.KeptResult;
import taxiomet.finding.MapHealth;
import taxiomet.finding.ResultComparison;
import taxiomet.reports.csv.CsvReport;
import taxiomet.reports.html.CheckHtml;
import taxiomet.reports.json.CheckJson;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.markdown.CheckMarkdown;
import taxiomet.reports.text.CheckText;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.text.ShiftsText;
import taxiomet.reports.xlsx.CheckWorkbook;
import taxiomet.reports.xml.CheckXml;
import taxiomet.settle.compare.Comparing;
import taxiomet.settle.compare.ResultKeeper;
import taxiomet.vet.TableMap;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;

/** Judges the rows: the main job. */
@Command(
        name = "check",
        customSynopsis = "taxiomet check [OPTION...] [CHARTER]",
        header = "Check the rows of all tables against the charter.",
        description = {"", "Reads every row once and reports each fault with the rows behind it."},
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet check                                 the charter in this folder",
            "  taxiomet check schema.sql --rows extracts      rules from a SQL schema",
            "  taxiomet check --only hive --examples 50       one table, with more rows",
            "  taxiomet check --evidence faults --per-owner   every row, in a folder for each owner"
        },
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

    private final Terminal terminal;

    @Parameters(
            arity = "0..1",
            paramLabel = "CHARTER",
            description =
                    "The charter to check against, a SQL schema (.sql) or CSVW metadata; - for standard input. Default: ${DEFAULT-VALUE}",
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

    @Option(names = "--per-owner", description = "With --evidence: a folder for each owner.")
    private boolean isPerOwner;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the result to a file as its ending says: .json, .csv and .xlsx with every row, .html and .md for people, .xml for build servers. csv:- prints it, csv:FILE has any name. Can be repeated.")
    private List<String> reports = List.of();

    @Option(
            names = "--load-order",
            description =
                    "Say in which order tables can be loaded, and how many rows of each a database with all constraints would take.")
    private boolean showsLoad;

    @Option(
            names = "--inside",
            description =
                    "Have the database look for faults itself, and move the rows alone that may be at fault. What it cannot look for as it is done here is read.")
    private boolean isInside;

    @Option(
            names = "--watch",
            description =
                    "Check again when a file or the charter changes, and say what is new and gone, until interrupted.")
    private boolean watches;

    @Mixin
    private HistoryOptions past;

    @Mixin
    private KeyOptions keys;

    @Mixin
    private OutputOptions output;

    @Mixin
    private CsvOptions csv;

    @Mixin
    private CharterOptions source;

    @Mixin
    private ResultOptions wanted;

    @Mixin
    private PersonalOptions personal;

    @Mixin
    private EngineOptions engine;

    @Mixin
    private PageOptions page;

    @Mixin
    private CommonOptions common;

    private Optional<List<KeptResult>> earlier = Optional.empty();
    private Optional<KeyFile> key = Optional.empty();

    CheckCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        requireSense();
        past.since().ifPresent(terminal.files()::reads);
        earlier = past.since().map(KeptFiles::read);
        key = past.isAny()
                ? Optional.of(keys.needKey(terminal))
                : evidence == null ? Optional.empty() : keys.key(terminal);
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (wanted.isJson()) {
            outputs.claim(Outputs.JSON);
        }
        ReportFiles reportFiles =
                new ReportFiles(outputs, reports, List.of("json", "csv", "xlsx", "html", "md", "xml"));
        Optional<EvidenceOutput> evidenceOutput =
                Optional.ofNullable(evidence).map(folder -> new EvidenceOutput(folder, isPerOwner, csv.hasMark()));
        evidenceOutput.ifPresent(folder -> folder.requireFree(outputs));
        if (watches) {
            return watch();
        }
        Charter charter = charter();
        CheckOptions options = options(charter);
        boolean showsProgress = terminal.isWatched() && !output.isQuiet();
        try (Progress progress = new Progress(terminal)) {
            RunFigures figures = new RunFigures(showsProgress ? progress : CheckProgress.NONE);
            return check(charter, options, common.isVerbose() ? figures : figures.watched(), (result, kept) -> {
                Provenance provenance = Version.provenance(charterFile.toString());
                reportFiles.write((format, file) -> write(result, charter, provenance, format, file));
                evidenceOutput.ifPresent(output -> {
                    outputs.wrote(output.write(result, kept, provenance));
                });
                past.history()
                        .ifPresent(folder -> outputs.wrote(KeptFiles.keep(kept.orElseThrow(), folder, provenance)
                                .toString()));
                if (wanted.isJson()) {
                    CheckJson.write(result, provenance, List.of(), terminal.out());
                } else {
                    outputs.show(
                            common.color(),
                            page.isPaged(),
                            output.isQuiet(),
                            paper -> new CheckText(result, charterFile.toString(), paper),
                            next(result));
                }
                if (!output.isQuiet()) {
                    outputs.tell("");
                }
                if (common.isVerbose()) {
                    terminal.say(figures.line(result));
                }
            });
        }
    }

    private Charter charter() throws CharterException {
        Charter charter =
                personal.toldBy(new UsableCharter(terminal, source, charterFile, output.isQuiet()).forCheck());
        if (isInside && charter.tables().stream().noneMatch(table -> table.rows() instanceof DatabaseRows)) {
            throw new UsageException(
                    "--inside goes with tables on a database server, and " + charterFile + " has none");
        }
        return charter;
    }

    private CheckOptions options(Charter charter) {
        return new CheckOptions(
                tables(charter),
                examples,
                evidence == null && reports.isEmpty()
                        ? Math.max(CheckOptions.MOST_NAMED_VALUES, examples)
                        : HINTED_IN_EVIDENCE,
                isInside,
                Optional.of(keys.day()));
    }

    private int watch() throws IOException {
        // Pseudonyms stay the same from one check to the next.
        RunContext context = engine.context();
        new WatchRun(terminal, charterFile).run(new WatchRun.Check() {
            @Override
            public Charter charter() throws CharterException {
                return CheckCommand.this.charter();
            }

            @Override
            public KeptResult run(Charter charter, KeptResult last) throws IOException {
                try (CheckRun run = CheckRun.start(charter, options(charter), engine.open(terminal), context)) {
                    KeptResult now = new ResultKeeper(charter, run, context.secret()).keep(keys.moment(), false);
                    tell(run.result(), last, now);
                    return now;
                }
            }

            private void tell(CheckResult result, KeptResult last, KeptResult now) {
                LinePaper paper =
                        new LinePaper(terminal.width(), terminal.hasColor(common.color()), terminal.out()::println);
                CheckText text = new CheckText(result, charterFile.toString(), paper);
                if (last == null && !output.isQuiet()) {
                    text.write();
                    return;
                }
                text.writeAnswer();
                if (last != null) {
                    ShiftsText.write(Comparing.of(last, now).shifts(), paper);
                }
            }
        });
        return ExitStatus.SOUND;
    }

    /** What becomes of a result while its evidence can be had. */
    private interface Outlet {
        void take(CheckResult result, Optional<KeptResult> kept) throws IOException;
    }

    private int check(Charter charter, CheckOptions options, CheckProgress progress, Outlet outlet) throws IOException {
        RunContext own = engine.context().toldTo(progress);
        RunContext context = key.map(file -> own.under(file.secret())).orElse(own);
        try (CheckRun run = CheckRun.start(charter, options, engine.open(terminal), context)) {
            CheckResult checked = showsLoad ? run.result().with(run.load()) : run.result();
            Optional<KeptResult> kept = key.map(file -> new ResultKeeper(charter, run, context.secret())
                    .keep(keys.moment(), evidence != null || past.history().isPresent()));
            Optional<ResultComparison> since =
                    earlier.map(all -> Comparing.of(KeptFiles.before(keys.moment(), all), kept.orElseThrow()));
            CheckResult result = since.map(checked::with).orElse(checked);
            outlet.take(result, kept);
            if (wanted.failsOnNew()) {
                return since.orElseThrow().isAnythingNew() ? ExitStatus.FINDINGS : ExitStatus.SOUND;
            }
            return wanted.failOn().isMetBy(result.findings().stream().map(finding -> finding.severity()))
                    ? ExitStatus.FINDINGS
                    : ExitStatus.SOUND;
        }
    }

    private void requireSense() {
        past.requireSense();
        if (keys.isNamed() && evidence == null && !past.isAny()) {
            throw new UsageException("--key-file goes with --evidence, --since or --keep-history");
        }
        if (past.isAny() && !only.isEmpty()) {
            throw new UsageException(
                    "--only judges some tables, and a result that is kept or compared is about all; leave one of them out");
        }
        if (wanted.failsOnNew() && past.since().isEmpty()) {
            throw new UsageException("--fail-on new goes with --since RESULT");
        }
        if (examples < 0 || examples > MOST_EXAMPLES) {
            throw new UsageException(
                    "--examples is a number from 0 to " + MOST_EXAMPLES + "; --evidence writes all rows");
        }
        if (showsLoad && !only.isEmpty()) {
            throw new UsageException("--load-order is about all tables, and --only about some; leave one of them out");
        }
        if (showsLoad && isInside) {
            throw new UsageException("--load-order reads all rows, and --inside moves some; leave one of them out");
        }
        csv.requireSense(reports, evidence != null);
        if (watches
                && (wanted.isJson()
                        || past.isAny()
                        || evidence != null
                        || !reports.isEmpty()
                        || showsLoad
                        || page.isPaged())) {
            throw new UsageException(
                    "--watch tells what changes as text; leave out --json, --report, --evidence, --since, --keep-history, --load-order and --pager");
        }
        if (watches && charterFile.toString().equals("-")) {
            throw new UsageException("--watch looks at files, and standard input is none; name the charter");
        }
        if (isPerOwner && evidence == null) {
            throw new UsageException("--per-owner goes with --evidence DIR");
        }
    }

    /** The tables that --only names. */
    private Set<String> tables(Charter charter) {
        only.forEach(name -> TableNames.require(charter, name));
        return new LinkedHashSet<>(only);
    }

    private void write(CheckResult result, Charter charter, Provenance provenance, String format, Path file) {
        switch (format) {
            case "json" -> CheckJson.write(result, provenance, List.of(), file);
            case "xlsx" -> CheckWorkbook.write(result, charter, charterFile.toString(), file);
            case "html" ->
                CheckHtml.write(
                        result,
                        charterFile.toString(),
                        provenance.line(),
                        new TableMap(charter, MapHealth.of(result), Map.of()).whole(),
                        file);
            case "md" -> CheckMarkdown.write(result, charterFile.toString(), file);
            case "xml" ->
                CheckXml.write(
                        result,
                        severity -> !wanted.failsOnNew() && wanted.failOn().isMetBy(Stream.of(severity)),
                        file);
            default -> CsvReport.write(result, file, csv.hasMark());
        }
    }

    /** What to do first: what hides other faults stands before them. */
    private static String next(CheckResult result) {
        return result.findings().stream()
                .findFirst()
                .map(first -> "taxiomet meaning " + Meanings.asWord(first.kind().words()))
                .orElse("");
    }
}
