package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.NearestWord;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charters.input.InputFile;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.DatabaseOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.StandardInput;
import taxiomet.cli.output.CharterOutput;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.reports.html.TextHtml;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.SurveyJson;
import taxiomet.reports.json.TrialsJson;
import taxiomet.reports.text.SurveyText;
import taxiomet.reports.text.TrialText;
import taxiomet.sources.DataFiles;
import taxiomet.sources.FilesWatched;
import taxiomet.survey.Survey;
import taxiomet.survey.SurveyOptions;
import taxiomet.survey.SurveyResult;
import taxiomet.survey.Trial;
import taxiomet.survey.profile.FoundTable;
import taxiomet.work.CheckProgress;

/** Looks at tables of which nothing is declared. */
@Command(
        name = "survey",
        customSynopsis = "taxiomet survey [OPTION...] DATA...",
        header = "Look at tables of which nothing is declared.",
        description = {
            "",
            "Tells what each column holds, what could identify a row, and what could point where; and writes a first charter"
                    + " to edit."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet survey extracts                       all tables of a folder",
            "  taxiomet survey extracts --only hives          what one of them holds",
            "  taxiomet survey extracts --write-charter charter.yaml",
            "  taxiomet survey extracts --link hives.apiary_id=apiaries.apiary_id"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:the survey was made",
            "1:a key or link that was tried does not hold",
            "2:wrong usage",
            "3:data that cannot be read, or results that cannot be written"
        })
final class SurveyCommand implements Callable<Integer> {
    private static final int WIDEST = 6;
    private static final int EXAMPLES = 5;

    private final Terminal terminal;

    @Parameters(
            arity = "1..*",
            paramLabel = "DATA",
            description =
                    "Folders with tables, or files: .csv, .tsv, .txt, .json, .jsonl, .parquet, .xlsx, .ods, .sqlite.")
    private List<Path> data;

    @Option(
            names = "--key",
            paramLabel = "TABLE=COLUMNS",
            description = "Try one key: hive=hive_id,season. Can be repeated.")
    private List<String> keys = List.of();

    @Option(
            names = "--link",
            paramLabel = "LINK",
            description = "Try one link: hive.apiary_id=apiary.apiary_id. Can be repeated.")
    private List<String> links = List.of();

    @Option(
            names = "--key-columns",
            paramLabel = "N",
            description = "Of how many columns a key may be made. Default: ${DEFAULT-VALUE}",
            defaultValue = "4")
    private int width;

    @Option(
            names = "--only",
            paramLabel = "TABLE",
            description = "Show what the columns of a table hold, its keys and its links. Can be repeated.")
    private List<String> only = List.of();

    @Option(names = "--full", description = "Show every table and every link.")
    private boolean full;

    @Option(
            names = "--sample",
            paramLabel = "N",
            description =
                    "Look at about the first N rows of each table, for a first look at something huge. Keys that links"
                            + " point at are read whole.")
    private long sample;

    @Option(
            names = "--delimiter",
            paramLabel = "C",
            description = "The delimiter of all files, where it is not found out.")
    private String delimiter;

    @Option(names = "--encoding", paramLabel = "NAME", description = "The encoding of all files, such as windows-1252.")
    private String encoding;

    @Option(
            names = "--write-charter",
            paramLabel = "FILE",
            description =
                    "Write a first charter, with comments that say why each line is there; - prints it. NAME-metadata.json is written in the W3C's words (CSVW).")
    private String writeCharter;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the result to a file as its ending says: .json, or .html for people. json:- prints it, json:FILE has any name. Can be repeated.")
    private List<String> reports = List.of();

    @Option(names = "--json", description = "Print the result as JSON.")
    private boolean json;

    @Mixin
    private DatabaseOptions database;

    @Mixin
    private OutputOptions output;

    @Mixin
    private EngineOptions engine;

    @Mixin
    private PageOptions page;

    @Mixin
    private CommonOptions common;

    SurveyCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws IOException, CharterException {
        if (width < 1 || width > WIDEST) {
            throw new UsageException("--key-columns is a number from 1 to " + WIDEST);
        }
        if (sample < 0) {
            throw new UsageException("--sample is a number of rows, at least 1");
        }
        if (json && (full || !only.isEmpty())) {
            throw new UsageException("--json holds all; --only and --full go with the text alone");
        }
        if (full && !only.isEmpty()) {
            throw new UsageException("--full shows every table; leave it or --only out");
        }
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (json) {
            outputs.claim(Outputs.JSON);
        }
        ReportFiles reportFiles = new ReportFiles(outputs, reports, List.of("json", "html"));
        Optional<CharterOutput> charterOutput =
                Optional.ofNullable(writeCharter).map(file -> new CharterOutput(outputs, file));
        Optional<Charter> declared = declared();
        DataFiles.Found all = declared.isPresent()
                ? new DataFiles.Found(tablesOf(declared.get()), List.of())
                : DataFiles.find(
                        data.stream()
                                .map(path -> StandardInput.isNamed(path)
                                        ? engine.standardInput(terminal).file()
                                        : path)
                                .toList(),
                        delimiterGiven(),
                        encodingGiven());
        List<FoundTable> found = all.tables();
        found.forEach(table -> FilesWatched.of(table.rows()).forEach(terminal.files()::reads));
        if (!all.passedOver().isEmpty() && !output.isQuiet()) {
            terminal.say("passed over: " + String.join(", ", all.passedOver()));
        }
        checkNames(found);
        boolean isTrial = !keys.isEmpty() || !links.isEmpty();
        if (isTrial && (!reports.isEmpty() || writeCharter != null)) {
            throw new UsageException(
                    "--key and --link print what they find; --report and --write-charter go with a survey of all");
        }
        if (isTrial && (sample > 0 || full || !only.isEmpty())) {
            throw new UsageException(
                    "--key and --link look at all rows; --sample, --only and --full go with a survey of all");
        }
        boolean showsProgress = terminal.isWatched() && !output.isQuiet();
        try (Progress bar = new Progress(terminal)) {
            if (isTrial) {
                return tryOut(found);
            }
            SurveyResult result = Survey.of(
                    titleOf(data.get(0)),
                    found,
                    new SurveyOptions(width, sample, EXAMPLES),
                    engine.open(terminal),
                    engine.context().toldTo(showsProgress ? bar : CheckProgress.NONE));
            charterOutput.ifPresent(file -> file.write(
                    engine.standardInput(terminal).told(declared.orElse(result.draft())),
                    result.comments(),
                    perhaps(result, declared)));
            Provenance provenance = Version.provenance("");
            reportFiles.write((format, file) -> {
                if (format.equals("html")) {
                    TextHtml.write(paper -> new SurveyText(result, only, true, paper), provenance.line(), file);
                } else {
                    SurveyJson.write(result, provenance, file);
                }
            });
            if (json) {
                SurveyJson.write(result, provenance, terminal.out());
            } else {
                outputs.show(
                        common.color(),
                        page.isPaged(),
                        output.isQuiet(),
                        paper -> new SurveyText(result, only, full, paper),
                        "--write-charter charter.yaml writes this down, to be corrected by hand");
            }
            if (!output.isQuiet()) {
                outputs.tell(
                        writeCharter == null
                                ? ""
                                : "next: read it, correct it, and `taxiomet vet " + writeCharter + "`");
            }
        }
        return ExitStatus.SOUND;
    }

    private void checkNames(List<FoundTable> found) {
        List<String> known = found.stream().map(FoundTable::name).toList();
        for (String name : only) {
            if (!known.contains(name)) {
                throw new UsageException("--only: there is no table `" + name + "`; "
                        + NearestWord.of(name, known)
                                .map(near -> "did you mean `" + near + "`?")
                                .orElse("there are " + String.join(", ", known)));
            }
        }
    }

    /** What the catalogue of a database declares, where one is surveyed. */
    private Optional<Charter> declared() throws CharterException {
        String address = DatabaseAddress.unmangled(data.get(0).toString());
        if (!DatabaseAddress.isOfDatabase(address)) {
            database.requireNone();
            database.requireNone(List.of());
            return Optional.empty();
        }
        if (data.size() > 1) {
            throw new UsageException("a database is surveyed alone: name its address, and no other place");
        }
        return Optional.of(database.charter(address, terminal).charter());
    }

    private static List<FoundTable> tablesOf(Charter declared) {
        return declared.tables().stream()
                .map(table -> new FoundTable(
                        table.name(),
                        table.rows(),
                        table.columns().stream().map(Column::name).toList(),
                        List.of()))
                .toList();
    }

    /** Links that may be meant: beside those that a catalogue declares also those that a draft would declare. */
    private static List<ForeignKey> perhaps(SurveyResult result, Optional<Charter> declared) {
        if (declared.isEmpty()) {
            return result.perhaps();
        }
        Charter known = declared.get();
        return Stream.concat(result.draft().links().stream(), result.perhaps().stream())
                .filter(link -> known.links().stream()
                        .noneMatch(other -> other.child().equals(link.child())
                                && (other.columns().equals(link.columns())
                                        || other.name().equals(link.name()))))
                .toList();
    }

    private Optional<Character> delimiterGiven() {
        if (delimiter == null) {
            return Optional.empty();
        }
        String one = delimiter.equals("tab") ? "\t" : delimiter;
        if (one.length() != 1 || "\"\r\n\0".indexOf(one.charAt(0)) >= 0) {
            throw new UsageException("--delimiter is one character, or the word tab");
        }
        return Optional.of(one.charAt(0));
    }

    private Optional<String> encodingGiven() {
        if (encoding == null) {
            return Optional.empty();
        }
        return Optional.of(DelimitedFiles.encodingNamed(encoding)
                .orElseThrow(() -> new UsageException("--encoding " + encoding + ": there are "
                        + String.join(", ", DelimitedFiles.USUAL_ENCODINGS) + " and others, such as windows-1250")));
    }

    private static String titleOf(Path first) {
        if (StandardInput.isNamed(first)) {
            return InputFile.name(first);
        }
        String address = DatabaseAddress.unmangled(first.toString());
        if (DatabaseAddress.isOfDatabase(address)) {
            return DatabaseAddress.masked(address);
        }
        Path name = first.toAbsolutePath().normalize().getFileName();
        return name == null ? "survey" : name.toString();
    }

    private int tryOut(List<FoundTable> found) throws IOException {
        boolean holds = true;
        List<Trial> trials = new ArrayList<>();
        try {
            for (String key : keys) {
                trials.add(Trial.ofKey(found, key, engine.open(terminal)));
            }
            for (String link : links) {
                trials.add(Trial.ofLink(found, link, engine.open(terminal)));
            }
        } catch (IllegalArgumentException e) {
            throw new UsageException(e.getMessage());
        }
        TrialsJson asJson = new TrialsJson(Version.provenance(""));
        for (Trial trial : trials) {
            CheckOptions options = new CheckOptions(java.util.Set.of(), 10, 10);
            try (CheckRun run = CheckRun.start(trial.charter(), options, engine.open(terminal), engine.context())) {
                holds &= Trial.faults(run.result()).isEmpty();
                if (json) {
                    asJson.add(trial, run.result());
                } else {
                    new TrialText(
                                    trial,
                                    run.result(),
                                    terminal.width(),
                                    terminal.hasColor(common.color()),
                                    terminal.out()::println)
                            .write();
                }
            }
        }
        if (json) {
            asJson.write(terminal.out());
        }
        return holds ? ExitStatus.SOUND : ExitStatus.FINDINGS;
    }
}
