package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.cli.option.BehaviourOptions;
import taxiomet.cli.option.CharterOptions;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.CsvOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.OutputOptions;
import taxiomet.cli.option.PageOptions;
import taxiomet.cli.option.PersonalOptions;
import taxiomet.cli.option.ProposalOptions;
import taxiomet.cli.option.ResultOptions;
import taxiomet.cli.option.UsableCharter;
import taxiomet.cli.output.CopyFolder;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.output.ReportFiles;
import taxiomet.cli.output.SqlOutput;
import taxiomet.cli.output.UndoRun;
import taxiomet.cli.settle.KeyOptions;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Progress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.terminal.Version;
import taxiomet.finding.ProofResult;
import taxiomet.finding.RehearsalResult;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;
import taxiomet.reports.csv.EffectsCsv;
import taxiomet.reports.html.TextHtml;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.RehearsalJson;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.text.RehearsalText;
import taxiomet.sources.jdbc.DatabaseSessions;
import taxiomet.work.CheckProgress;

/** What proposed changes would do. */
@Command(
        name = "rehearse",
        customSynopsis = "taxiomet rehearse [OPTION...] [CHARTER] PROPOSAL...",
        header = "Tell what proposed changes would do to the rows of all tables.",
        description = {
            "",
            "Carries the changes out on a copy in memory, row by row as a database would, and reports which rows would be"
                    + " deleted, emptied or re-pointed, by which link; what stands in the way; and which findings would be new."
                    + " The tables themselves are never touched."
        },
        parameterListHeading = "%nArguments:%n",
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet rehearse -e \"DELETE FROM hive WHERE hive_id = 44\"",
            "  taxiomet rehearse --delete hive=gone.csv --why visit 44,2024-05-30",
            "  taxiomet rehearse change.sql --server postgresql --write-sql out.sql",
            "  taxiomet rehearse change.sql --compare-actions hive_apiary"
        },
        optionListHeading = "%nOptions:%n",
        exitCodeListHeading = "%nExit status:%n",
        exitCodeList = {
            "0:accepted, without new findings",
            "1:a change is blocked, or there would be new findings",
            "2:wrong usage, or a charter or proposal that cannot be used",
            "3:data that cannot be read, or results that cannot be written"
        })
final class RehearseCommand implements ProposalOptions.Proposing, Callable<Integer> {
    private static final int MOST_EXAMPLES = 100_000;

    private final Terminal terminal;

    @Mixin
    private ProposalOptions proposal;

    @Mixin
    private BehaviourOptions behaviour;

    @Option(
            names = "--compare-actions",
            paramLabel = "LINK",
            description =
                    "Rehearse the same under each action that a link could have on delete, side by side; LINK.on_update"
                            + " for its actions on update.")
    private String compared;

    @Option(
            names = "--why",
            arity = "2",
            paramLabel = "TABLE KEY",
            hideParamSyntax = true,
            description =
                    "Tell why a row is touched: the way to it from the change, link by link. Write a composite key with commas.")
    private List<String> why;

    @Option(
            names = "--examples",
            paramLabel = "N",
            description = "Name at most so many rows of each kind. Default: ${DEFAULT-VALUE}",
            defaultValue = "3")
    private int examples;

    @Option(
            names = "--into",
            paramLabel = "DIR",
            description =
                    "Write the tables that change, as they would be, to a new folder, with a charter that reads them and all"
                            + " others, and an undo.json that leads back.")
    private Path into;

    @Option(names = "--whole", description = "With --into: write all tables, changed or not.")
    private boolean isWhole;

    @Option(
            names = "--undo",
            paramLabel = "FILE",
            description = "With --into: go back from the files beside an undo.json to those that were read.")
    private Path undo;

    @Option(
            names = "--write-sql",
            paramLabel = "[SERVER:]FILE",
            description =
                    "Write what is accepted as a SQL script: one transaction that rolls back when the rows are not as the"
                            + " rehearsal saw them; and beside it FILE.back.sql, which takes it back. Nothing is run."
                            + " postgresql:FILE writes it for another server than the one rehearsed (mariadb, sqlite);"
                            + " for the standard it is written for postgresql. With - for FILE the script alone is printed.")
    private String writeSql;

    @Option(
            names = "--prove",
            description =
                    "Run the proposal in the database that the rows live in, in a transaction that is rolled back, and compare."
                            + " Only where the charter's `database` says `prove: yes`; on a terminal it asks first.")
    private boolean isProved;

    @Option(
            names = "--report",
            paramLabel = "FILE",
            description =
                    "Write the result to a file as its ending says: .json, .html for people, or .csv with every effect on every row."
                            + " csv:- prints it, csv:FILE has any name. Can be repeated.")
    private List<String> reports = List.of();

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

    RehearseCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public ProposalOptions proposal() {
        return proposal;
    }

    @Override
    public Integer call() throws CharterException, IOException {
        try {
            return rehearse();
        } catch (ProposalException e) {
            if (wanted.isJson()) {
                RehearsalJson.writeFaults(e.faults(), provenance(), terminal.out());
            }
            throw e;
        }
    }

    /** An option that cannot be honoured is refused, never ignored. */
    private void requireSense() {
        Map<String, Object> others = new LinkedHashMap<>();
        others.put("--report", reports);
        others.put("--why", why);
        others.put("--write-sql", writeSql);
        others.put("--prove", isProved ? true : null);
        if (undo != null) {
            others.put("--try", behaviour.trials());
            others.put("a proposal", proposal.isEmpty() ? null : proposal);
            others.put("--compare-actions", compared);
            others.put("--whole", isWhole ? true : null);
            others.put("--json", wanted.isJson() ? true : null);
            others.forEach((name, other) -> refuse("--undo", other, name));
        } else if (compared != null) {
            others.put("--into", into);
            others.forEach((name, other) -> refuse("--compare-actions", other, name));
        }
        if (isProved) {
            refuse("--prove", behaviour.trials(), "--try");
        }
        csv.requireSense(reports, false);
        wanted.requireKnown();
        refuse("--why", output.isQuiet() ? why : null, "--quiet");
    }

    private static void refuse(String given, Object other, String name) {
        boolean isThere = other instanceof List<?> list ? !list.isEmpty() : other != null;
        if (isThere) {
            throw new UsageException(given + " does not go with " + name);
        }
    }

    private Integer rehearse() throws CharterException, IOException {
        requireSense();
        if (examples < 0 || examples > MOST_EXAMPLES) {
            throw new UsageException(
                    "--examples is a number from 0 to " + MOST_EXAMPLES + "; --report FILE.csv writes all rows");
        }
        Outputs outputs = new Outputs(terminal, output.isForced());
        if (wanted.isJson()) {
            outputs.claim(Outputs.JSON);
        }
        proposal.files().forEach(terminal.files()::reads);
        if (undo != null) {
            terminal.files().reads(undo);
        }
        ReportFiles reportFiles = new ReportFiles(outputs, reports, List.of("json", "csv", "html"));
        Optional<CopyFolder> copies = Optional.ofNullable(into).map(folder -> new CopyFolder(folder));
        copies.ifPresent(folder -> folder.requireFree(outputs));
        if (undo != null) {
            return goBack(outputs);
        }
        Optional<SqlOutput> script = Optional.ofNullable(writeSql).map(name -> new SqlOutput(outputs, terminal, name));
        if (isWhole && into == null) {
            throw new UsageException("--whole goes with --into DIR");
        }
        Server asked = behaviour.behaviour(terminal);
        Charter declared =
                new UsableCharter(terminal, source, proposal.charter(), output.isQuiet()).forRehearsal(asked);
        Charter charter = behaviour.tried(personal.toldBy(declared));
        Server whose = asked == null ? charter.behavesAs() : asked;
        Optional<DecidedDockets> decided = DecidedDockets.of(proposal, charter, declared, keys, engine, terminal);
        Charter withAccepted = decided.map(all -> all.accepting(declared)).orElse(declared);
        Proposal given = proposedAt(charter, decided, behaviour.moment());
        if (decided.isPresent() && given.changes().isEmpty()) {
            refuse("a docket in which no decision changes a row", wanted.isJson() ? true : null, "--json");
            LinePaper paper =
                    new LinePaper(terminal.width(), terminal.hasColor(common.color()), terminal.out()::println);
            return decided.get().withoutChanges(withAccepted, copies, provenance(), paper, outputs, wanted.failOn());
        }
        if (compared != null) {
            return new ActionTrials(charter, given, whose, compared, examples)
                    .show(engine, wanted, common, terminal, provenance());
        }
        DatabaseSessions sessions = engine.sessions(terminal);
        Optional<ProofRun> proof =
                isProved ? Optional.of(ProofRun.begin(charter, given, whose, sessions, terminal)) : Optional.empty();
        // What is now for the database is now for the rehearsal.
        boolean hasOwnMoment = proof.isEmpty() || behaviour.hasMoment();
        Proposal proposed =
                hasOwnMoment ? given : proposedAt(charter, decided, proof.get().moment());
        boolean isOneTransaction = script.isPresent() || isProved;
        RehearsalOptions options =
                new RehearsalOptions(whose, examples, true, true, RehearsalOptions.USUALLY_NEAR, isOneTransaction);
        boolean showsProgress = terminal.isWatched() && !output.isQuiet();
        try (Progress progress = new Progress(terminal);
                Rehearsal rehearsal = Rehearsal.start(
                        charter,
                        proposed,
                        options,
                        engine.open(sessions, terminal),
                        engine.context().toldTo(showsProgress ? progress : CheckProgress.NONE))) {
            progress.concluding();
            RehearsalResult result = rehearsal.result();
            requireRevealed(charter, result);
            Optional<ProofResult> proved = proof.map(run -> run.of(rehearsal, proposed, output.isQuiet()));
            RehearsalJson asJson = new RehearsalJson(result, proved, decided.map(DecidedDockets::told), provenance());
            reportFiles.write((format, file) -> {
                if (format.equals("json")) {
                    asJson.write(file);
                } else if (format.equals("html")) {
                    TextHtml.write(
                            paper -> new RehearsalText(result, proved, decided.map(DecidedDockets::told), paper),
                            provenance().line(),
                            file);
                } else {
                    EffectsCsv.write(rehearsal.effects(), file, csv.hasMark());
                }
            });
            if (copies.isPresent()) {
                outputs.wrote(copies.get().write(withAccepted, rehearsal, isWhole, provenance()));
            }
            script.ifPresent(output -> output.write(charter, rehearsal, whose));
            if (why != null) {
                new RowWays(charter, why.get(0), why.get(1))
                        .write(rehearsal, wanted.isJson(), common, terminal, provenance());
            } else if (wanted.isJson()) {
                asJson.write(terminal.out());
            } else {
                show(outputs, result, proved, decided);
            }
            if (!output.isQuiet()) {
                outputs.tell(
                        copies.isEmpty()
                                ? ""
                                : "next: taxiomet check " + into.resolve(CopyFolder.CHARTER)
                                        + (result.isAccepted() ? "" : ", without what is blocked"));
            }
            Stream<Severity> unlike =
                    proved.filter(done -> !done.agrees()).stream().map(done -> Severity.ERROR);
            boolean areLeftOut =
                    decided.filter(all -> !all.told().remarks().isEmpty()).isPresent();
            Stream<Severity> leftOut = areLeftOut ? Stream.of(Severity.ERROR) : Stream.empty();
            return wanted.failOn()
                            .isMetBy(Stream.of(result.severities(), unlike, leftOut)
                                    .flatMap(each -> each))
                    ? ExitStatus.FINDINGS
                    : ExitStatus.SOUND;
        }
    }

    private Proposal proposedAt(Charter charter, Optional<DecidedDockets> decided, Instant moment)
            throws CharterException {
        List<Change> changes = new ArrayList<>(proposal.changes(charter, moment));
        decided.ifPresent(all -> changes.addAll(all.changes()));
        return behaviour.proposal(changes, moment);
    }

    /** Before anything is written. */
    private void requireRevealed(Charter charter, RehearsalResult result) {
        List<String> changed =
                result.tables().stream().map(RehearsalResult.TableChange::table).toList();
        if (into != null) {
            List<String> all = charter.tables().stream().map(Table::name).toList();
            PersonalOptions.requireRevealed(charter, "--into", isWhole ? all : changed);
        }
        if (writeSql != null) {
            PersonalOptions.requireRevealed(charter, "--write-sql", changed);
        }
    }

    private Provenance provenance() {
        return Version.provenance(proposal.charter().toString());
    }

    private int goBack(Outputs outputs) {
        if (into == null) {
            throw new UsageException("--undo FILE goes with --into DIR, the folder to write to");
        }
        outputs.wrote(new UndoRun(undo, into).run());
        if (!output.isQuiet()) {
            outputs.tell("");
        }
        return ExitStatus.SOUND;
    }

    private void show(
            Outputs outputs, RehearsalResult result, Optional<ProofResult> proved, Optional<DecidedDockets> decided)
            throws IOException {
        outputs.show(
                common.color(),
                page.isPaged(),
                output.isQuiet(),
                paper -> new RehearsalText(result, proved, decided.map(DecidedDockets::told), paper),
                result.isAccepted()
                        ? "--into DIR writes the tables as they would be, --write-sql FILE the SQL"
                        : "see what stands in the way above, change by change");
    }
}
