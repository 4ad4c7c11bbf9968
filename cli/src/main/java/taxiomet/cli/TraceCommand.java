package taxiomet.cli;

import java.io.IOException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.Function;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import taxiomet.browse.NoSuchPlace;
import taxiomet.browse.RowAsked;
import taxiomet.browse.Trace;
import taxiomet.browse.TraceOptions;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Table;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.PersonalOptions;
import taxiomet.cli.option.ProposalOptions;
import taxiomet.cli.option.RowArguments;
import taxiomet.cli.option.RowOptions;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.option.UsableCharter;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.finding.TraceResult;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;
import taxiomet.reports.html.TextHtml;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.TraceJson;
import taxiomet.reports.text.TraceText;
import taxiomet.rows.TableSource;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;

/** One row, its parents and its children. */
@Command(
        name = "trace",
        customSynopsis = "taxiomet trace [OPTION...] [CHARTER] TABLE KEY",
        header = "Show one row with its parents and its children, names beside the codes.",
        description = {
            "",
            "Looks a row up by its key and follows its links both ways: what it points at, what points at it, how much hangs"
                    + " below it, and what is wrong with it. Only the columns of keys are read for that."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet trace hive 118                        by its key",
            "  taxiomet trace visit \"44, 2024-05-30\" --down 2  two levels of children",
            "  taxiomet trace hive --row hives.csv:151        the second of two with one key",
            "  taxiomet trace keeper K-008 --after leaves.sql as it would be"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:the row is there",
            "1:there is no such row",
            "2:wrong usage, or a charter that cannot be used",
            "3:data that cannot be read, or results that cannot be written"
        })
final class TraceCommand implements Callable<Integer> {
    private static final int MOST_LEVELS = 20;
    private static final int MOST_EXAMPLES = 10_000;

    private final Terminal terminal;

    @Mixin
    private RowArguments arguments;

    @Mixin
    private RowOptions row;

    @Option(
            names = "--up",
            paramLabel = "N",
            description = "Follow so many levels of parents. Default: ${DEFAULT-VALUE}",
            defaultValue = "2")
    private int up;

    @Option(
            names = "--down",
            paramLabel = "N",
            description = "Follow so many levels of children. Default: ${DEFAULT-VALUE}",
            defaultValue = "1")
    private int down;

    @Option(
            names = "--examples",
            paramLabel = "N",
            description = "Show at most so many children of a row over each link. Default: ${DEFAULT-VALUE}",
            defaultValue = "5")
    private int examples;

    @Option(
            names = "--after",
            paramLabel = "PROPOSAL",
            description =
                    "The row as it would be after a proposal: a .sql or .yaml file, or a statement. Can be repeated.")
    private List<String> after = List.of();

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description = "Write the result to a file as its ending says: .json, or .html for people. Can be repeated.")
    private List<String> reports = List.of();

    @Option(names = "--json", description = "Print the result as JSON.")
    private boolean json;

    @Mixin
    private OutputOptions output;

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

    TraceCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        require("--up", up, MOST_LEVELS);
        require("--down", down, MOST_LEVELS);
        require("--examples", examples, MOST_EXAMPLES);
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (json) {
            outputs.claim(Outputs.JSON);
        }
        ReportFiles reportFiles = new ReportFiles(outputs, reports, List.of("json", "html"));
        Charter declared = new UsableCharter(terminal, source, arguments.charter(), output.isQuiet()).forCheck();
        Charter charter = personal.toldBy(declared);
        TableNames.require(charter, arguments.table());
        RowAsked asked = row.asked(charter, charter.table(arguments.table()), arguments.key());
        try (Progress progress = new Progress(terminal)) {
            boolean showsProgress = terminal.isWatched() && !output.isQuiet();
            RunContext context = engine.context().toldTo(showsProgress ? progress : CheckProgress.NONE);
            TraceResult result = trace(charter, asked, context);
            progress.concluding();
            Provenance provenance = Version.provenance(arguments.charter().toString());
            reportFiles.write((format, file) -> {
                if (format.equals("html")) {
                    TextHtml.write(paper -> new TraceText(result, paper), provenance.line(), file);
                } else {
                    TraceJson.write(result, provenance, file);
                }
            });
            if (json) {
                TraceJson.write(result, provenance, terminal.out());
            } else {
                outputs.show(
                        common.color(), page.isPaged(), output.isQuiet(), paper -> new TraceText(result, paper), "");
            }
            if (!output.isQuiet()) {
                outputs.tell("");
            }
            return result.found() > 0 ? ExitStatus.SOUND : ExitStatus.FINDINGS;
        }
    }

    private static void require(String option, int number, int most) {
        if (number < 0 || number > most) {
            throw new UsageException(option + " is a number from 0 to " + most);
        }
    }

    private TraceResult trace(Charter charter, RowAsked asked, RunContext context) throws CharterException {
        if (after.isEmpty()) {
            return trace(charter, asked, engine.open(terminal), context);
        }
        Instant now = Instant.now().truncatedTo(ChronoUnit.MICROS);
        List<Change> changes = new ArrayList<>();
        for (String proposed : after) {
            changes.addAll(ProposalOptions.changesOf(charter, proposed, "--after", now));
        }
        RehearsalOptions options = new RehearsalOptions(charter.behavesAs(), 0, false, false, 0, false);
        try (Rehearsal rehearsal = Rehearsal.start(
                charter,
                new Proposal(changes, false, Proposal.Deferral.DECLARED, now),
                options,
                engine.open(terminal),
                context)) {
            if (!rehearsal.result().isAccepted() && !output.isQuiet()) {
                terminal.say("A change is blocked, and the row is shown without it; `taxiomet rehearse` says by what.");
            }
            return trace(charter, asked, table -> rehearsal.after(table.name()), context);
        }
    }

    private TraceResult trace(Charter charter, RowAsked asked, Function<Table, TableSource> open, RunContext context) {
        try {
            return Trace.of(charter, arguments.table(), asked, new TraceOptions(up, down, examples), open, context);
        } catch (NoSuchPlace e) {
            throw new UsageException(e.getMessage());
        }
    }
}
