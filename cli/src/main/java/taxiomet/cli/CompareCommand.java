package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Severity;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.CsvOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.ResultOptions;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.settle.KeptFiles;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.finding.KeptResult;
import taxiomet.finding.ResultComparison;
import taxiomet.finding.settled.CharterComparison;
import taxiomet.reports.csv.TrendCsv;
import taxiomet.reports.html.TextHtml;
import taxiomet.reports.json.CharterComparisonJson;
import taxiomet.reports.json.CompareJson;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.text.CharterComparisonText;
import taxiomet.reports.text.CompareText;
import taxiomet.reports.text.ResultText;
import taxiomet.settle.compare.CharterComparing;
import taxiomet.settle.compare.Comparing;

/** What is new and what is gone. */
@Command(
        name = "compare",
        customSynopsis = "taxiomet compare [OPTION...] EARLIER LATER...",
        header = "Tell what is new and what is gone between results of checks, or between two charters.",
        description = {
            "",
            "Results are folders of `check --evidence`, or a folder of `check --keep-history`, which holds one after the other. Rows"
                    + " are known again by their primary key, or by all they hold; never by where they stand. Of more than two"
                    + " results it is told how it went on; what is new and gone is between the last two.",
            "Of two charters (.yaml, .json, .sql) it is told which keys, links and rules are lost, gained or changed."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet compare faults-may faults-june          two folders of evidence",
            "  taxiomet compare history --report trend.html     all results of a history, with a picture",
            "  taxiomet compare old/charter.yaml charter.yaml   two charters"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:the later result is sound, or has nothing new with --fail-on new",
            "1:it has findings, or with --fail-on new: some that are new",
            "2:wrong usage, or what is no result or charter",
            "3:results that cannot be read or written"
        })
final class CompareCommand implements Callable<Integer> {
    private static final List<String> OF_CHARTERS = List.of(".yaml", ".yml", ".json", ".sql");

    private final Terminal terminal;

    @Parameters(
            arity = "1..*",
            paramLabel = "RESULT",
            description = "Results in any order of time, or a history; or two charters, the earlier first.")
    private List<Path> paths;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the comparison to a file as its ending says: .html with a picture of how it went on, .csv with a row for"
                            + " each result, .json. csv:- prints it. Can be repeated.")
    private List<String> reports = List.of();

    @Mixin
    private OutputOptions output;

    @Mixin
    private CsvOptions csv;

    @Mixin
    private CharterOptions source;

    @Mixin
    private ResultOptions wanted;

    @Mixin
    private PageOptions page;

    @Mixin
    private CommonOptions common;

    CompareCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        csv.requireSense(reports, false);
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (wanted.isJson()) {
            outputs.claim(Outputs.JSON);
        }
        ReportFiles reportFiles = new ReportFiles(outputs, reports, List.of("json", "html", "csv"));
        long charters = paths.stream().filter(CompareCommand::isCharter).count();
        if (charters > 0) {
            return compareCharters(outputs, charters);
        }
        List<KeptResult> results = new ArrayList<>();
        paths.forEach(path -> results.addAll(KeptFiles.read(path)));
        if (results.size() < 2) {
            throw new UsageException("there is one result, and nothing to compare it with; name an earlier one, too");
        }
        results.sort(Comparator.comparing(KeptResult::made));
        List<ResultComparison> steps = new ArrayList<>();
        for (int i = 1; i < results.size(); i++) {
            steps.add(Comparing.of(results.get(i - 1), results.get(i)));
        }
        Provenance provenance = Version.provenance("");
        CompareJson asJson = new CompareJson(steps, provenance);
        reportFiles.write((format, file) -> {
            switch (format) {
                case "json" -> asJson.write(file);
                case "html" -> TextHtml.writeTrend(steps, provenance.line(), file);
                default -> TrendCsv.write(steps, file, csv.hasMark());
            }
        });
        if (wanted.isJson()) {
            asJson.write(terminal.out());
        } else {
            show(outputs, paper -> new CompareText(steps, paper));
        }
        if (!output.isQuiet()) {
            outputs.tell("");
        }
        ResultComparison last = steps.get(steps.size() - 1);
        return isBad(last) ? ExitStatus.FINDINGS : ExitStatus.SOUND;
    }

    private boolean isBad(ResultComparison last) {
        if (wanted.failsOnNew()) {
            return last.isAnythingNew();
        }
        Stream<Severity> found = Stream.concat(
                last.later().errors() > 0 ? Stream.of(Severity.ERROR) : Stream.empty(),
                last.later().warnings() > 0 ? Stream.of(Severity.WARNING) : Stream.empty());
        return wanted.failOn().isMetBy(found);
    }

    private void show(Outputs outputs, ResultText.Maker text) throws IOException {
        outputs.show(common.color(), page.isPaged(), output.isQuiet(), text, "");
    }

    private static boolean isCharter(Path path) {
        String name = path.toString().toLowerCase(Locale.ROOT);
        return OF_CHARTERS.stream().anyMatch(name::endsWith);
    }

    private int compareCharters(Outputs outputs, long charters) throws CharterException, IOException {
        if (charters != 2 || paths.size() != 2) {
            throw new UsageException("two charters are compared, the earlier first; results are compared with results");
        }
        if (!reports.isEmpty()) {
            throw new UsageException("--report goes with results; a comparison of charters is printed, or --json");
        }
        Charter earlier = source.read(paths.get(0), terminal).charter();
        Charter later = source.read(paths.get(1), terminal).charter();
        CharterComparison comparison = CharterComparing.of(earlier, later);
        if (wanted.isJson()) {
            new CharterComparisonJson(
                            comparison, Version.provenance(paths.get(1).toString()))
                    .write(terminal.out());
        } else {
            show(outputs, paper -> new CharterComparisonText(comparison, paper));
        }
        return wanted.failsOnNew() && !comparison.changes().isEmpty() ? ExitStatus.FINDINGS : ExitStatus.SOUND;
    }
}
