package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.browse.RowCount;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Table;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.finding.MapHealth;
import taxiomet.finding.MapResult;
import taxiomet.reports.html.MapHtml;
import taxiomet.reports.json.HealthReader;
import taxiomet.reports.json.MapJson;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.map.MapSvg;
import taxiomet.reports.markdown.MapMarkdown;
import taxiomet.reports.text.MapText;
import taxiomet.rows.TableSource;
import taxiomet.vet.TableMap;
import taxiomet.work.CheckProgress;

/** Draws the tables and their links. */
@Command(
        name = "map",
        customSynopsis = "taxiomet map [OPTION...] [CHARTER]",
        header = "Draw the tables of a charter and the links between them.",
        description = {
            "",
            "Each table with its columns, each link with how many belong to how many and what a delete does. With the result"
                    + " of a check it shows where the faults are."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet map                                   in the terminal",
            "  taxiomet map --report map.html                 a page to move about in",
            "  taxiomet map --around hive --reach 2 --report hive.svg",
            "  taxiomet map --check faults/result.json --report map.html"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:drawn",
            "2:wrong usage, or a charter that cannot be used",
            "3:data that cannot be read, or results that cannot be written"
        })
final class MapCommand implements Callable<Integer> {
    private static final int MOST_REACH = 100;

    private final Terminal terminal;

    @Parameters(
            arity = "0..1",
            paramLabel = "CHARTER",
            description =
                    "The charter to draw, or a SQL schema (.sql); - for standard input. Default: ${DEFAULT-VALUE}",
            defaultValue = "charter.yaml")
    private Path charterFile;

    @Option(names = "--around", paramLabel = "TABLE", description = "Draw this table and those near it alone.")
    private String around;

    @Option(
            names = "--reach",
            paramLabel = "N",
            description = "With --around: those that are at most so many links away. Default: 1")
    private Integer reach;

    @Option(
            names = "--check",
            paramLabel = "RESULT",
            description = "Show what a check found: its result as JSON, as --report and --evidence write it.")
    private Path check;

    @Option(names = "--count", description = "Read the tables and say how many rows each has.")
    private boolean counts;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the map to a file as its ending says: .svg, .html to move about in, .md, .json. Can be repeated.")
    private List<String> reports = List.of();

    @Option(names = "--json", description = "Print the map as JSON.")
    private boolean json;

    @Mixin
    private OutputOptions output;

    @Mixin
    private CharterOptions source;

    @Mixin
    private EngineOptions engine;

    @Mixin
    private PageOptions page;

    @Mixin
    private CommonOptions common;

    MapCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        if (reach != null && around == null) {
            throw new UsageException("--reach goes with --around TABLE");
        }
        if (reach != null && (reach < 0 || reach > MOST_REACH)) {
            throw new UsageException("--reach is a number from 0 to " + MOST_REACH);
        }
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (json) {
            outputs.claim(Outputs.JSON);
        }
        if (check != null) {
            terminal.files().reads(check);
        }
        ReportFiles reportFiles = new ReportFiles(outputs, reports, List.of("svg", "html", "md", "json"));
        Charter charter = source.read(charterFile, terminal).charter();
        if (around != null) {
            TableNames.require(charter, around);
        }
        TableMap tables = new TableMap(charter, health(charter), counts ? rows(charter) : Map.of());
        MapResult map = around == null ? tables.whole() : tables.around(around, reach == null ? 1 : reach);
        Provenance provenance = Version.provenance(charterFile.toString());
        reportFiles.write((format, file) -> write(map, provenance, format, file));
        if (json) {
            MapJson.write(map, provenance, terminal.out());
        } else {
            outputs.show(
                    common.color(),
                    page.isPaged(),
                    output.isQuiet(),
                    paper -> new MapText(map, paper),
                    "--report map.html draws it");
        }
        if (!output.isQuiet()) {
            outputs.tell("");
        }
        return ExitStatus.SOUND;
    }

    private static void write(MapResult map, Provenance provenance, String format, Path file) {
        switch (format) {
            case "svg" -> MapSvg.write(map, file);
            case "html" -> MapHtml.write(map, provenance.line(), file);
            case "md" -> MapMarkdown.write(map, file);
            default -> MapJson.write(map, provenance, file);
        }
    }

    private MapHealth health(Charter charter) {
        if (check == null) {
            return MapHealth.unknown();
        }
        try {
            MapHealth health = HealthReader.read(check);
            List<String> known = charter.tables().stream().map(Table::name).toList();
            if (health.tables().stream().noneMatch(known::contains)) {
                throw new UsageException("--check " + check + ": this is about none of the tables of " + charterFile
                        + "; name its charter");
            }
            return health;
        } catch (HealthReader.NoResult e) {
            throw new UsageException("--check " + check + ": " + e.getMessage()
                    + "; name a file that `taxiomet check --report result.json` wrote");
        }
    }

    private Map<String, Long> rows(Charter charter) {
        Map<String, Long> rows = new HashMap<>();
        try (Progress progress = new Progress(terminal)) {
            CheckProgress told = terminal.isWatched() && !output.isQuiet() ? progress : CheckProgress.NONE;
            for (Table table : charter.tables()) {
                told.reading(table.name());
                try (TableSource source = engine.open(terminal).apply(table)) {
                    rows.put(table.name(), RowCount.of(table, source, engine.context()));
                }
            }
            progress.concluding();
        }
        return rows;
    }
}
