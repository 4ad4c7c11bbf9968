package taxiomet.cli;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.option.LinkTrials;
import taxiomet.cli.option.ResultOptions;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;
import taxiomet.finding.ActionComparison;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.LinkTrial;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.RehearsalJson;
import taxiomet.reports.text.ActionComparisonText;

/** The same proposal under each action that a link could have. */
record ActionTrials(Charter charter, Proposal proposed, Server whose, String compared, int examples) {
    /** Rehearses under each action, and tells what came of it. */
    int show(EngineOptions engine, ResultOptions wanted, CommonOptions common, Terminal terminal, Provenance provenance)
            throws IOException {
        boolean isUpdate = compared.endsWith(".on_update");
        ForeignKey link =
                LinkTrials.link(charter, compared.replaceFirst("\\.on_(update|delete)$", ""), "--compare-actions");
        ActionName declared = (isUpdate ? link.onUpdate() : link.onDelete()).name();
        List<ActionComparison.Entry> entries = new ArrayList<>();
        for (ActionName action : ActionName.values()) {
            Optional<Action> tried = Optional.of(new Action(action, List.of()));
            LinkTrial trial = new LinkTrial(
                    link.child(),
                    link.name(),
                    isUpdate ? Optional.empty() : tried,
                    isUpdate ? tried : Optional.empty(),
                    Optional.of(true));
            try (Rehearsal rehearsal = Rehearsal.start(
                    trial.in(charter),
                    proposed,
                    new RehearsalOptions(whose, examples, false, false, 0, false),
                    engine.open(terminal),
                    engine.context())) {
                entries.add(new ActionComparison.Entry(action.sql(), action == declared, rehearsal.result()));
            }
        }
        ActionComparison comparison =
                new ActionComparison(charter.name(), link.name(), isUpdate ? "on update" : "on delete", entries);
        if (wanted.isJson()) {
            RehearsalJson.write(comparison, provenance, terminal.out());
        } else {
            ActionComparisonText.write(
                    comparison, terminal.width(), terminal.hasColor(common.color()), terminal.out()::println);
        }
        return wanted.failOn()
                        .isMetBy(entries.stream()
                                .filter(ActionComparison.Entry::isDeclared)
                                .flatMap(entry -> entry.result().severities()))
                ? ExitStatus.FINDINGS
                : ExitStatus.SOUND;
    }
}
