package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.CsvOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.PersonalOptions;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.option.UsableCharter;
import taxiomet.cli.output.DocketFolder;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.settle.DocketRun;
import taxiomet.cli.settle.KeyOptions;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.finding.settled.Docket;
import taxiomet.reports.csv.DocketCsv;
import taxiomet.reports.text.DocketText;
import taxiomet.reports.xlsx.DocketWorkbook;
import taxiomet.work.CheckProgress;

/** Faulty rows laid out for those who decide. */
@Command(
        name = "docket",
        customSynopsis = "taxiomet docket [OPTION...] [CHARTER]",
        header = "Lay every faulty row out for the person who decides about it.",
        description = {
            "",
            "Writes a workbook or a CSV file with a line for each faulty row: what is wrong, the row itself, what is proposed, and a"
                    + " list of what can be decided. Filled in, it is a proposal: `taxiomet rehearse docket.xlsx` tells what the"
                    + " decisions would do, which are open, and which contradict each other."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet docket --report docket.xlsx          all of them in one workbook",
            "  taxiomet docket --into dockets --per-owner    a workbook for each owner",
            "  taxiomet rehearse docket.xlsx --into decided  what the decisions would do"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:whether there is anything to decide or not",
            "2:wrong usage, or a charter that cannot be used",
            "3:data that cannot be read, or results that cannot be written"
        })
final class DocketCommand implements Callable<Integer> {
    private final Terminal terminal;

    @Parameters(
            arity = "0..1",
            paramLabel = "CHARTER",
            description =
                    "The charter to check against, a SQL schema (.sql) or CSVW metadata; - for standard input. Default: ${DEFAULT-VALUE}",
            defaultValue = "charter.yaml")
    private Path charterFile;

    @Option(names = "--only", paramLabel = "TABLE", description = "Lay out rows of this table alone. Can be repeated.")
    private List<String> only = List.of();

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the docket to a file as its ending says: .xlsx with a list of choices in each line, .csv for those without a"
                            + " spreadsheet. csv:- prints it. Can be repeated.")
    private List<String> reports = List.of();

    @Option(
            names = "--into",
            paramLabel = "DIR",
            description = "Write a folder with the docket as a workbook and as CSV.")
    private Path into;

    @Option(names = "--per-owner", description = "With --into: a docket for each owner.")
    private boolean isPerOwner;

    @Mixin
    private KeyOptions keys;

    @Mixin
    private OutputOptions output;

    @Mixin
    private CsvOptions csv;

    @Mixin
    private CharterOptions source;

    @Mixin
    private PersonalOptions personal;

    @Mixin
    private EngineOptions engine;

    @Mixin
    private PageOptions page;

    @Mixin
    private CommonOptions common;

    DocketCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        if (isPerOwner && into == null) {
            throw new UsageException("--per-owner goes with --into DIR");
        }
        csv.requireSense(reports, into != null);
        Outputs outputs = new Outputs(terminal, output.isForced());
        ReportFiles reportFiles = new ReportFiles(outputs, reports, List.of("xlsx", "csv"));
        Optional<DocketFolder> folder = Optional.ofNullable(into).map(path -> new DocketFolder(path));
        folder.ifPresent(each -> each.requireFree(outputs));
        Charter charter =
                personal.toldBy(new UsableCharter(terminal, source, charterFile, output.isQuiet()).forCheck());
        only.forEach(name -> TableNames.require(charter, name));
        boolean showsProgress = terminal.isWatched() && !output.isQuiet();
        try (Progress progress = new Progress(terminal)) {
            Docket docket = DocketRun.make(
                            List.of(charter),
                            keys,
                            engine,
                            terminal,
                            keys.needKey(terminal).secret(),
                            showsProgress ? progress : CheckProgress.NONE,
                            table -> only.isEmpty() || only.contains(table))
                    .get(0);
            reportFiles.write((format, file) -> {
                if (format.equals("xlsx")) {
                    DocketWorkbook.write(docket, "", file);
                } else {
                    DocketCsv.write(docket, file, csv.hasMark());
                }
            });
            folder.ifPresent(each -> outputs.wrote(each.write(docket, isPerOwner, csv.hasMark())));
            outputs.show(
                    common.color(),
                    page.isPaged(),
                    output.isQuiet(),
                    paper -> new DocketText(docket, paper),
                    reports.isEmpty() && into == null ? "--report docket.xlsx writes it" : "");
        }
        if (!output.isQuiet()) {
            outputs.tell("next: fill it in, then taxiomet rehearse " + charterFile + " DOCKET");
        }
        return ExitStatus.SOUND;
    }
}
