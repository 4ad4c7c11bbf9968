package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charter.Server;
import taxiomet.charters.input.ReadCharter;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.ResultOptions;
import taxiomet.cli.option.ServerOption;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.output.CharterOutput;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.Version;
import taxiomet.reports.html.TextHtml;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.VetJson;
import taxiomet.reports.text.VetText;
import taxiomet.vet.CatalogueReview;
import taxiomet.vet.VetResult;

/** Judges the declarations alone. */
@Command(
        name = "vet",
        customSynopsis = "taxiomet vet [OPTION...] [CHARTER]",
        header = "Judge the declarations of a charter; no row is read.",
        description = {
            "",
            "Tells what is wrong or doubtful in the charter itself, what each link means in a sentence, which tables are"
                    + " joined many to many, and in which order tables can be loaded."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet vet --around hive                     what depends on a table",
            "  taxiomet vet schema.sql --write-charter charter.yaml",
            "  taxiomet vet --server postgresql               what that server would not take"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:nothing as bad as --fail-on says",
            "1:there are findings",
            "2:wrong usage, or a charter that cannot be used",
            "3:results that cannot be written"
        })
final class VetCommand implements Callable<Integer> {
    private final Terminal terminal;

    @Parameters(
            arity = "0..1",
            paramLabel = "CHARTER",
            description =
                    "The charter to judge, a SQL schema (.sql) or CSVW metadata; - for standard input. Default: ${DEFAULT-VALUE}",
            defaultValue = "charter.yaml")
    private Path charterFile;

    @Option(
            names = "--around",
            paramLabel = "TABLE",
            description = "Show what depends on this table, near and far, and what it depends on.")
    private String around;

    @Option(
            names = "--server",
            paramLabel = "SERVER",
            completionCandidates = ServerOption.Vetted.class,
            description = "Say too what this database server would not take: ${COMPLETION-CANDIDATES}.")
    private String server;

    @Option(
            names = "--against",
            paramLabel = "ADDRESS",
            description =
                    "Compare with the catalogue of a database (jdbc:...): what is missing there, what is otherwise, what is"
                            + " there alone.")
    private String against;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the result to a file as its ending says: .json, or .html for people. json:- prints it, json:FILE has any name. Can be repeated.")
    private List<String> reports = List.of();

    @Option(
            names = "--write-charter",
            paramLabel = "FILE",
            description =
                    "Write the same rules as a charter: for those that come from a SQL schema; - prints it. NAME-metadata.json is written in the W3C's words (CSVW).")
    private String writeCharter;

    @Mixin
    private OutputOptions output;

    @Mixin
    private CharterOptions source;

    @Mixin
    private ResultOptions wanted;

    @Mixin
    private PageOptions page;

    @Mixin
    private CommonOptions common;

    VetCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        wanted.requireKnown();
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (wanted.isJson()) {
            outputs.claim(Outputs.JSON);
        }
        ReportFiles reportFiles = new ReportFiles(outputs, reports, List.of("json", "html"));
        Optional<CharterOutput> charterOutput =
                Optional.ofNullable(writeCharter).map(file -> new CharterOutput(outputs, file));
        ReadCharter read = source.withAgainst(against != null).read(charterFile, terminal);
        if (around != null) {
            TableNames.require(read.charter(), around);
        }
        VetResult result = VetResult.of(
                        read.charter(),
                        read.remarks(),
                        Optional.ofNullable(server)
                                .map(name -> ServerOption.parse("--server", name, Server::isVetted, terminal)),
                        Optional.ofNullable(around))
                .with(
                        against == null
                                ? List.of()
                                : new CatalogueReview(read.charter(), source.against(against, terminal)).judgements());
        Provenance provenance = Version.provenance(charterFile.toString());
        VetJson asJson = new VetJson(result, provenance, read::place);
        reportFiles.write((format, file) -> {
            if (format.equals("html")) {
                TextHtml.write(paper -> new VetText(result, read::place, paper), provenance.line(), file);
            } else {
                asJson.write(file);
            }
        });
        charterOutput.ifPresent(output -> output.write(
                read.charter(),
                Map.of(
                        List.of(),
                        read.remarks().stream().map(VetCommand::comment).toList()),
                List.of()));
        if (wanted.isJson()) {
            asJson.write(terminal.out());
        } else {
            outputs.show(
                    common.color(),
                    page.isPaged(),
                    output.isQuiet(),
                    paper -> new VetText(result, read::place, paper),
                    result.isSound() ? "taxiomet check " + charterFile : "correct " + charterFile);
        }
        if (!output.isQuiet()) {
            outputs.tell(writeCharter == null ? "" : "next: taxiomet check " + writeCharter);
        }
        return wanted.failOn().isMetBy(result.judgements().stream().map(judgement -> judgement.severity()))
                ? ExitStatus.FINDINGS
                : ExitStatus.SOUND;
    }

    private static String comment(Problem remark) {
        return (remark.line() == 0 ? "" : remark.line() + ":" + remark.column() + " ") + remark.problem();
    }
}
