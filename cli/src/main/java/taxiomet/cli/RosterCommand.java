package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import taxiomet.charter.Charter;
import taxiomet.charter.Charter.KeptRoster;
import taxiomet.charter.CharterException;
import taxiomet.charter.Condition;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.CsvOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.PersonalOptions;
import taxiomet.cli.option.TableArguments;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.option.UsableCharter;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.output.RosterFolder;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.finding.RosterResult;
import taxiomet.reports.csv.RosterCsv;
import taxiomet.reports.html.TextHtml;
import taxiomet.reports.markdown.RosterMarkdown;
import taxiomet.reports.text.RosterText;
import taxiomet.reports.xlsx.RosterWorkbook;
import taxiomet.roster.Roster;
import taxiomet.roster.RosterOptions;
import taxiomet.work.CheckProgress;

/** Children listed under each parent. */
@Command(
        name = "roster",
        customSynopsis = "taxiomet roster [OPTION...] [CHARTER] TABLE",
        header = "List the children under each row of a table, names for codes, with totals.",
        description = {
            "",
            "Each row of the table is a heading; below it stand the rows that point at it, with the names of what they point"
                    + " at in place of codes. At the end come rows whose parent is missing, and rows without one, so that each"
                    + " row of the children's table is listed or counted."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet roster apiary --through hive_apiary   hives under their apiaries",
            "  taxiomet roster keeper --childless only        keepers without anything",
            "  taxiomet roster visit --through treated_at --columns treated_with.name,dose",
            "  taxiomet roster keeper --sort \"joined_on desc\" --report keepers.csv",
            "  taxiomet roster apiary --per-heading html --into apiaries"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:listed",
            "2:wrong usage, or a charter that cannot be used",
            "3:data that cannot be read, or results that cannot be written"
        })
final class RosterCommand implements Callable<Integer> {
    /** A page holds so many lines. */
    private static final long ROWS_IN_PAGE = 20_000;

    private static final List<String> FORMATS = List.of("csv", "xlsx", "html", "md");

    private final Terminal terminal;

    @Mixin
    private TableArguments arguments;

    @Option(
            names = "--through",
            paramLabel = "LINK",
            description = "List children over this link alone. Can be repeated. Default: all links to the table")
    private List<String> through = List.of();

    @Option(
            names = "--columns",
            split = ",",
            paramLabel = "COLUMN",
            description =
                    "Show these columns of the children, or of what they point at (LINK.COLUMN, or LINK for its name).")
    private List<String> columns = List.of();

    @Option(
            names = "--sort",
            split = ",",
            paramLabel = "COLUMN",
            description =
                    "Sort the headings by these columns; \"COLUMN desc\" the other way round. Default: as they stand")
    private List<String> sort = List.of();

    @Option(names = "--where", paramLabel = "CONDITION", description = "Only headings that meet a condition, in SQL.")
    private String where;

    @Option(
            names = "--where-child",
            paramLabel = "CONDITION",
            description = "Only children that meet a condition, in SQL; with one link.")
    private String whereChild;

    @Option(
            names = "--childless",
            paramLabel = "WHICH",
            description = "Headings without children: show, hide, or only these. Default: show")
    private RosterOptions.Childless childless;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the roster to a file as its ending says: .csv and .xlsx with a line for each child, .html and .md for people. Can be repeated.")
    private List<String> reports = List.of();

    @Option(
            names = "--per-heading",
            paramLabel = "FORMAT",
            description = "Write a file for each heading, as csv, xlsx, html or md, into the folder of --into.")
    private String perHeading;

    @Option(names = "--into", paramLabel = "DIR", description = "The folder for the files of --per-heading.")
    private Path into;

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

    RosterCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        csv.requireSense(reports, perHeading != null);
        Outputs outputs = new Outputs(terminal, output.isForced());
        ReportFiles reportFiles = new ReportFiles(outputs, reports, FORMATS);
        Optional<RosterFolder> folder = folder(outputs);
        Charter charter =
                personal.toldBy(new UsableCharter(terminal, source, arguments.charter(), output.isQuiet()).forCheck());
        String table = tableOf(charter);
        RosterOptions options = options(charter, charter.table(table));
        boolean showsProgress = terminal.isWatched() && !output.isQuiet();
        try (Progress progress = new Progress(terminal);
                Roster roster = Roster.of(
                        charter,
                        table,
                        options,
                        engine.open(terminal),
                        engine.context().toldTo(showsProgress ? progress : CheckProgress.NONE))) {
            progress.concluding();
            String made = Version.provenance(arguments.charter().toString()).line();
            Reports written = new Reports(charter, csv.hasMark(), made);
            reportFiles.write((format, file) -> written.write(roster.result(), roster::read, format, file));
            folder.ifPresent(place -> outputs.wrote(place.write(
                    roster,
                    csv.hasMark(),
                    (part, file) -> written.write(part.result(), part::read, place.format(), file))));
            outputs.show(
                    common.color(),
                    page.isPaged(),
                    output.isQuiet(),
                    paper -> new RosterText(roster.result(), roster::read, paper),
                    "");
            if (!output.isQuiet()) {
                outputs.tell("");
            }
        }
        return ExitStatus.SOUND;
    }

    /** Rosters in files. */
    private record Reports(Charter charter, boolean hasMark, String made) {
        void write(RosterResult roster, Consumer<RosterResult.Reader> content, String format, Path file) {
            switch (format) {
                case "csv" -> RosterCsv.write(roster, content, file, hasMark);
                case "xlsx" -> RosterWorkbook.write(roster, content, charter, file);
                case "md" -> RosterMarkdown.write(roster, content, file);
                default ->
                    TextHtml.writeSheets(paper -> new RosterText(roster, content, paper, ROWS_IN_PAGE), made, file);
            }
        }
    }

    private Optional<RosterFolder> folder(Outputs outputs) {
        if ((perHeading == null) != (into == null)) {
            throw new UsageException(
                    perHeading == null
                            ? "--into goes with --per-heading FORMAT, a file for each heading"
                            : "--per-heading needs a folder for its files: --into DIR");
        }
        Optional<RosterFolder> folder =
                Optional.ofNullable(into).map(place -> new RosterFolder(place, perHeading, FORMATS));
        folder.ifPresent(each -> each.requireFree(outputs));
        return folder;
    }

    /** The table that is named, or that of a roster which the charter keeps under the name; options that are given count before its own. */
    private String tableOf(Charter charter) {
        String name = arguments.table();
        Optional<KeptRoster> kept = charter.rosters().stream()
                .filter(roster -> roster.name().equals(name))
                .findFirst();
        if (kept.isEmpty()) {
            List<String> known =
                    charter.rosters().stream().map(KeptRoster::name).toList();
            if (charter.find(name).isEmpty() && !known.isEmpty()) {
                throw new UsageException("the charter has neither a table nor a roster `" + name + "`; its rosters are "
                        + String.join(", ", known));
            }
            TableNames.require(charter, name);
            return name;
        }
        KeptRoster roster = kept.get();
        through = through.isEmpty() ? roster.through() : through;
        columns = columns.isEmpty() ? roster.columns() : columns;
        sort = sort.isEmpty() ? roster.sort() : sort;
        where = where == null ? roster.where().orElse(null) : where;
        whereChild = whereChild == null ? roster.whereChild().orElse(null) : whereChild;
        if (childless == null) {
            childless = roster.childless()
                    .map(word -> RosterOptions.Childless.valueOf(word.toUpperCase(Locale.ROOT)))
                    .orElse(null);
        }
        return roster.table();
    }

    private RosterOptions options(Charter charter, Table table) {
        List<String> known = charter.links().stream()
                .filter(link -> link.parent().equals(table.name()))
                .map(ForeignKey::name)
                .toList();
        for (String name : through) {
            if (Roster.links(charter, table.name(), List.of(name)).isEmpty()) {
                throw new UsageException("--through " + name + ": no such link leads to " + table.name()
                        + near(name, known)
                        + (known.isEmpty() ? "; none does" : "; there are " + String.join(", ", known)));
            }
        }
        List<ForeignKey> links = Roster.links(charter, table.name(), through);
        if (links.isEmpty()) {
            throw new UsageException("no link leads to " + table.name() + ": it has no children to list");
        }
        requireColumns(charter, links);
        if (whereChild != null && links.size() > 1) {
            throw new UsageException(
                    "--where-child goes with one link; name it with --through: " + String.join(", ", known));
        }
        return new RosterOptions(
                through,
                columns,
                sorts(table),
                condition(charter, table.name(), "--where", where),
                condition(charter, links.get(0).child(), "--where-child", whereChild),
                childless == null ? RosterOptions.Childless.SHOW : childless);
    }

    private static String near(String name, List<String> known) {
        return NearestWord.of(name, known)
                .map(nearest -> "; did you mean " + nearest + "?")
                .orElse("");
    }

    private static Optional<Condition> condition(Charter charter, String table, String option, String sql) {
        if (sql == null) {
            return Optional.empty();
        }
        try {
            return Optional.of(Charters.condition(charter, table, sql));
        } catch (ExpressionException e) {
            throw new UsageException(option + ": " + e.words());
        }
    }

    private List<RosterOptions.Sort> sorts(Table table) {
        List<RosterOptions.Sort> sorts = new ArrayList<>();
        for (String each : sort) {
            String text = each.strip();
            boolean isDescending = text.toLowerCase(Locale.ROOT).endsWith(" desc");
            String column = isDescending
                    ? text.substring(0, text.length() - " desc".length()).strip()
                    : text;
            if (table.indexOf(column) < 0) {
                throw new UsageException("--sort " + text + ": " + table.name() + " has no column " + column
                        + near(column, names(table)));
            }
            if (table.column(column).isPersonal()) {
                throw new UsageException(
                        "--sort " + column + ": it is personal, and the order would tell of its values;"
                                + " add --reveal if that is meant");
            }
            sorts.add(new RosterOptions.Sort(column, isDescending));
        }
        return sorts;
    }

    private static List<String> names(Table table) {
        return table.columns().stream().map(column -> column.name()).toList();
    }

    /** A column that none of the tables of children has, nor any of their parents, is refused. */
    private void requireColumns(Charter charter, List<ForeignKey> links) {
        for (String column : columns) {
            List<String> known = new ArrayList<>();
            for (ForeignKey link : links) {
                Table child = charter.table(link.child());
                known.addAll(names(child));
                for (ForeignKey other : child.links()) {
                    known.add(other.name());
                    names(charter.table(other.parent())).forEach(name -> known.add(other.name() + "." + name));
                }
            }
            if (!known.contains(column)) {
                throw new UsageException("--columns " + column
                        + ": no table of children has it, nor has what they point at" + near(column, known));
            }
        }
    }
}
