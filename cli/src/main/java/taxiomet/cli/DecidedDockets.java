package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import taxiomet.charter.Accepted;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Severity;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.FailOn;
import taxiomet.cli.option.FilledDocket;
import taxiomet.cli.option.ProposalOptions;
import taxiomet.cli.output.CopyFolder;
import taxiomet.cli.output.Outputs;
import taxiomet.cli.settle.DocketRun;
import taxiomet.cli.settle.KeyOptions;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.DocketDecisions;
import taxiomet.proposal.Change;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.text.DocketText;
import taxiomet.reports.text.Paper;
import taxiomet.settle.docket.Deciding;
import taxiomet.sources.jdbc.DatabaseSessions;
import taxiomet.work.CheckProgress;

/** What was decided in the dockets of a proposal, held against the rows as they are. */
final class DecidedDockets {
    private final Deciding.Outcome outcome;

    private DecidedDockets(Deciding.Outcome outcome) {
        this.outcome = outcome;
    }

    /**
     * Reads them; empty where the proposal has none.
     *
     * @param charter by which rows are told here
     * @param declared by which they were told where nothing was revealed
     */
    static Optional<DecidedDockets> of(
            ProposalOptions proposal,
            Charter charter,
            Charter declared,
            KeyOptions keys,
            EngineOptions engine,
            Terminal terminal)
            throws IOException {
        if (proposal.dockets().isEmpty()) {
            return Optional.empty();
        }
        boolean isRevealed = hasPersonal(declared) && !hasPersonal(charter);
        List<Docket> now = DocketRun.make(
                isRevealed ? List.of(charter, declared) : List.of(charter),
                keys,
                engine,
                terminal,
                keys.needKey(terminal).secret(),
                CheckProgress.NONE,
                table -> true);
        Deciding deciding = new Deciding(charter, now.get(0));
        now.stream().skip(1).forEach(deciding::orTold);
        DatabaseSessions sessions = engine.sessions(terminal);
        for (Path file : proposal.dockets()) {
            new FilledDocket(file).read(deciding, sessions, proposal.takesAnyOwner());
        }
        return Optional.of(new DecidedDockets(deciding.outcome()));
    }

    private static boolean hasPersonal(Charter charter) {
        return charter.tables().stream()
                .flatMap(table -> table.columns().stream())
                .anyMatch(Column::isPersonal);
    }

    /** What became of the decisions. */
    DocketDecisions told() {
        return outcome.told();
    }

    /** What they would change. */
    List<Change> changes() {
        return outcome.changes();
    }

    /** The charter with what is to be borne. */
    Charter accepting(Charter declared) {
        List<Accepted> all = new ArrayList<>(declared.accepted());
        all.addAll(outcome.accepted());
        return declared.withAccepted(all);
    }

    /**
     * Tells what became of the decisions, where none changes a row, and writes what is to be borne.
     *
     * @param charter with what is to be borne
     */
    int withoutChanges(
            Charter charter,
            Optional<CopyFolder> copies,
            Provenance provenance,
            Paper paper,
            Outputs outputs,
            FailOn failOn) {
        DocketText.writeDecisions(outcome.told(), paper);
        paper.paragraph("no decision changes a row", 0);
        copies.ifPresent(folder -> outputs.wrote(folder.writeCharter(charter, provenance)));
        outputs.tell("");
        return failOn.isMetBy(severities()) ? ExitStatus.FINDINGS : ExitStatus.SOUND;
    }

    /** How grave it is that decisions are left out. */
    Stream<Severity> severities() {
        return outcome.told().remarks().stream().map(remark -> Severity.ERROR);
    }
}
