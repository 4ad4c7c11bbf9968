package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
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
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.CsvOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.PersonalOptions;
import taxiomet.cli.option.ResultOptions;
import taxiomet.cli.option.UsableCharter;
import taxiomet.cli.output.CopyFolder;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.SiftFolder;
import taxiomet.cli.settle.KeepText;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.Version;
import taxiomet.finding.settled.SiftResult;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.SiftJson;
import taxiomet.reports.text.SiftText;
import taxiomet.rows.TableSource;
import taxiomet.settle.sift.Keeping;
import taxiomet.settle.sift.Keeping.Choice;
import taxiomet.settle.sift.Mending;
import taxiomet.settle.sift.Sift;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;

/** Sound rows apart from the others. */
@Command(
        name = "sift",
        customSynopsis = "taxiomet sift [OPTION...] [CHARTER] --into DIR",
        header = "Part the rows that obey the charter together from those that do not.",
        description = {
            "",
            "Writes each table in two parts, byte for byte as it was read: the rows that are sound together, with a charter that"
                    + " reads them, and those that are set aside, each with the reason and the row that caused it. First go rows at"
                    + " fault by themselves, then those that share a key but for the one chosen, then rows whose parent is gone, to"
                    + " the end of all links. What is left can be loaded with all constraints on."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet sift --into sifted                                the charter in this folder",
            "  taxiomet sift --into sifted --keep \"keeper=joined_on desc\"  of rows with one key the newest stays",
            "  taxiomet sift --into sifted --keep first --mend            mend first what leaves no doubt"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:no row was set aside",
            "1:rows were set aside",
            "2:wrong usage, or a charter that cannot be used",
            "3:data that cannot be read, or results that cannot be written"
        })
final class SiftCommand implements Callable<Integer> {
    /** Parents are looked for on behalf of so many different missing values. */
    private static final int HINTED = 10_000;

    private final Terminal terminal;

    @Parameters(
            arity = "0..1",
            paramLabel = "CHARTER",
            description =
                    "The charter to sift by, a SQL schema (.sql) or CSVW metadata; - for standard input. Default: ${DEFAULT-VALUE}",
            defaultValue = "charter.yaml")
    private Path charterFile;

    @Option(
            names = "--into",
            required = true,
            paramLabel = "DIR",
            description = "The folder to write: sound/ with charter.yaml, aside/, reasons.csv and sift.json.")
    private Path into;

    @Option(
            names = "--keep",
            paramLabel = "[TABLE=]CHOICE",
            description =
                    "Which row stays of several that share a key: first, last, most-complete, none, or that with the least value in a"
                            + " column (COLUMN asc) or the greatest (COLUMN desc). For all tables, or for one; can be repeated."
                            + " Default: none, but rows that are the same in every column count as one.")
    private List<String> kept = List.of();

    @Option(
            names = "--mend",
            description =
                    "First mend values that mean one key or one allowed value beyond doubt: but for blanks at an end, another case or"
                            + " leading zeros. mendings.csv lists each; sound/undo.json leads back to the files as they were read.")
    private boolean isMended;

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

    SiftCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        wanted.requireKnown();
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (wanted.isJson()) {
            outputs.claim(Outputs.JSON);
        }
        SiftFolder folder = new SiftFolder(into, csv.hasMark());
        folder.requireFree(outputs);
        Charter charter =
                personal.toldBy(new UsableCharter(terminal, source, charterFile, output.isQuiet()).forCheck());
        PersonalOptions.requireRevealed(
                charter, "--into", charter.tables().stream().map(Table::name).toList());
        Keeping keeping = keeping(charter);
        boolean showsProgress = terminal.isWatched() && !output.isQuiet();
        try (Progress progress = new Progress(terminal)) {
            RunContext context = engine.context().toldTo(showsProgress ? progress : CheckProgress.NONE);
            CheckOptions options = new CheckOptions(Set.of(), 0, isMended ? HINTED : 0);
            try (CheckRun read = CheckRun.start(charter, options, engine.open(terminal), context)) {
                Optional<Mending> mending = isMended ? Optional.of(Mending.of(charter, read)) : Optional.empty();
                if (mending.filter(all -> !all.mends().isEmpty()).isEmpty()) {
                    return sift(charter, read, read.sources(), mending, keeping, context, folder, outputs);
                }
                Map<String, TableSource> sources = read.sources();
                try (CheckRun mended = CheckRun.start(
                        charter,
                        new CheckOptions(Set.of(), 0, 0),
                        table -> mending.get().mended(table.name(), sources.get(table.name())),
                        context)) {
                    return sift(charter, mended, sources, mending, keeping, context, folder, outputs);
                }
            }
        }
    }

    private Keeping keeping(Charter charter) {
        Choice otherwise = new Choice.None();
        Map<String, Choice> byTable = new LinkedHashMap<>();
        for (String text : kept) {
            KeepText choice = KeepText.read(text, charter);
            if (choice.table().isPresent()) {
                byTable.put(choice.table().get(), choice.choice());
            } else {
                otherwise = choice.choice();
            }
        }
        return new Keeping(byTable, otherwise);
    }

    private int sift(
            Charter charter,
            CheckRun run,
            Map<String, TableSource> sources,
            Optional<Mending> mending,
            Keeping keeping,
            RunContext context,
            SiftFolder folder,
            Outputs outputs)
            throws IOException {
        try (Sift sift = Sift.of(charter, run, keeping, context)) {
            SiftResult result =
                    sift.result(mending.map(all -> (long) all.mends().size()).orElse(0L));
            Provenance provenance = Version.provenance(charterFile.toString());
            outputs.wrote(folder.write(charter, sift, sources, mending, provenance));
            if (wanted.isJson()) {
                new SiftJson(result, provenance).write(terminal.out());
            } else {
                outputs.show(
                        common.color(),
                        page.isPaged(),
                        output.isQuiet(),
                        paper -> new SiftText(result, paper),
                        "see reasons.csv, row by row");
            }
            if (!output.isQuiet()) {
                outputs.tell(
                        "next: taxiomet check " + into.resolve(SiftFolder.SOUND).resolve(CopyFolder.CHARTER));
            }
            Stream<Severity> aside = Stream.of(Severity.ERROR).filter(error -> result.aside() > 0);
            return wanted.failOn().isMetBy(aside) ? ExitStatus.FINDINGS : ExitStatus.SOUND;
        }
    }
}
