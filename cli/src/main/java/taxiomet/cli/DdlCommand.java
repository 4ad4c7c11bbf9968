package taxiomet.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Server;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.ServerOption;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.OutputException;
import taxiomet.reports.sql.SchemaPlan;
import taxiomet.reports.sql.SchemaScript;
import taxiomet.reports.words.Counted;
import taxiomet.vet.Catalogue;
import taxiomet.vet.CatalogueReview;

/** SQL that puts the rules of a charter into a database. */
@Command(
        name = "ddl",
        customSynopsis = "taxiomet ddl [OPTION...] [CHARTER]",
        header = "Write SQL that puts the rules of a charter into a database.",
        description = {
            "",
            "Keys, checks and links as statements for a server, in an order that works, each with what it locks; what the server"
                    + " does not take is said at the top. --queries lists the rows that stand in the way instead, --back is the"
                    + " way back. Nothing is run."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet ddl --server postgresql               its rules for tables that are there",
            "  taxiomet ddl --server mariadb --tables         with the tables",
            "  taxiomet ddl --server postgresql --queries     rows that stand in the way",
            "  taxiomet ddl --server sqlite --tables --report coop.sql"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:written",
            "2:wrong usage, or a charter that cannot be used",
            "3:results that cannot be written"
        })
final class DdlCommand implements Callable<Integer> {
    private final Terminal terminal;

    @Parameters(
            arity = "0..1",
            paramLabel = "CHARTER",
            defaultValue = "charter.yaml",
            description = "The charter, or a SQL schema. Default: charter.yaml")
    private Path charterFile;

    @Option(
            names = "--server",
            paramLabel = "NAME",
            description = "For which server: ${COMPLETION-CANDIDATES}. Default: the charter's",
            completionCandidates = ServerOption.Written.class)
    private String server;

    @Option(names = "--tables", description = "Make the tables, too.")
    private boolean makesTables;

    @Option(names = "--queries", description = "Write queries that list the rows in the way of each rule.")
    private boolean queries;

    @Option(names = "--back", description = "Write the way back: statements that take the rules away again.")
    private boolean back;

    @Option(
            names = "--against",
            paramLabel = "ADDRESS",
            description = "Write what the catalogue of a database (jdbc:...) lacks alone.")
    private String against;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description = "Write the script to a file that ends in .sql. Can be repeated.")
    private List<String> reports = List.of();

    @Mixin
    private OutputOptions output;

    @Mixin
    private CharterOptions source;

    // The parser fills it in: --help and --verbose.
    @SuppressWarnings("UnusedVariable")
    @Mixin
    private CommonOptions common;

    DdlCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() throws CharterException {
        if (queries && back) {
            throw new UsageException("--queries and --back are two scripts; ask for one");
        }
        Outputs outputs = new Outputs(terminal, output.isForced());
        ReportFiles files = new ReportFiles(outputs, reports, List.of("sql"));
        Charter charter =
                source.withAgainst(against != null).read(charterFile, terminal).charter();
        Optional<Catalogue> there = Optional.empty();
        if (against != null) {
            there = Optional.of(source.against(against, terminal));
        }
        SchemaPlan plan = new SchemaPlan(
                charter,
                wanted(charter, there.map(Catalogue::charter)),
                makesTables,
                there.map(other -> new CatalogueReview(charter, other).inPlace())
                        .orElse(Set.of()));
        SchemaScript.Part part =
                queries ? SchemaScript.Part.QUERIES : back ? SchemaScript.Part.BACK : SchemaScript.Part.RULES;
        String script = SchemaScript.of(plan, part, charter.name());
        files.write((format, file) -> {
            try {
                Files.writeString(file, script, StandardCharsets.UTF_8);
            } catch (IOException e) {
                throw OutputException.of(file.toString(), e);
            }
        });
        if (reports.isEmpty()) {
            terminal.out().print(script);
        }
        if (!output.isQuiet()) {
            if (!plan.left().isEmpty() && part == SchemaScript.Part.RULES && !reports.isEmpty()) {
                terminal.say(Counted.of(plan.steps().size(), "rule") + " put in place, "
                        + plan.left().size() + " not: the script says which, and why");
            }
            outputs.tell("nothing was run");
        }
        return ExitStatus.SOUND;
    }

    private Server wanted(Charter charter, Optional<Charter> there) {
        if (server != null) {
            return ServerOption.parse("--server", server, Server::isWritten, terminal);
        }
        return Optional.of(there.orElse(charter).behavesAs())
                .filter(Server::isWritten)
                .orElseThrow(() -> new UsageException(
                        "--server says for which: " + String.join(", ", Server.words(Server::isWritten))));
    }
}
