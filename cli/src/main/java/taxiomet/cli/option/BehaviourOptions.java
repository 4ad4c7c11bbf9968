package taxiomet.cli.option;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Option;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.proposal.Proposal.Deferral;

/** Under which rules a proposal is rehearsed. */
public final class BehaviourOptions {
    @Option(
            names = "--server",
            paramLabel = "SERVER",
            completionCandidates = ServerOption.Rehearsed.class,
            description =
                    "Do as this server does: ${COMPLETION-CANDIDATES}. Default: what the charter says, else standard")
    private String server;

    @Option(names = "--all-or-nothing", description = "One blocked change blocks the lot.")
    private boolean isAllOrNothing;

    @Option(
            names = "--deferred",
            arity = "0..1",
            fallbackValue = "deferrable",
            paramLabel = "WHICH",
            description = "Check links at the end of the proposal: those declared deferrable, or all.")
    private Deferred deferred;

    @Option(
            names = "--now",
            paramLabel = "MOMENT",
            description = "The moment that current_date and current_timestamp mean, such as 2026-05-01T12:00:00Z."
                    + " Default: when the rehearsal starts")
    private String now;

    @Option(
            names = "--try",
            paramLabel = "LINK.KEY=VALUE",
            description = "Rehearse as though a link were declared otherwise: \"hive_queen.on_delete=set null\","
                    + " hive_queen.enforced=no. Can be repeated.")
    private List<String> trials = List.of();

    /** What --deferred can be. */
    enum Deferred {
        DEFERRABLE,
        ALL;

        /** The word as users type it. */
        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public List<String> trials() {
        return trials;
    }

    /** Whose behaviour was asked for; null for the charter's own. */
    public Server behaviour(Terminal terminal) {
        return server == null ? null : ServerOption.parse("--server", server, Server::isRehearsed, terminal);
    }

    /** The charter with what is tried. */
    public Charter tried(Charter charter) {
        Charter tried = charter;
        for (String trial : trials) {
            tried = LinkTrials.read(tried, trial).in(tried);
        }
        return tried;
    }

    public Proposal proposal(List<Change> changes, Instant moment) {
        Deferral deferral =
                deferred == null ? Deferral.DECLARED : deferred == Deferred.ALL ? Deferral.ALL : Deferral.DEFERRABLE;
        return new Proposal(changes, isAllOrNothing, deferral, moment);
    }

    /** Whether it was said which moment is current. */
    public boolean hasMoment() {
        return now != null;
    }

    /** The moment that is current throughout. */
    public Instant moment() {
        if (now == null) {
            return Instant.now().truncatedTo(ChronoUnit.MICROS);
        }
        try {
            return OffsetDateTime.parse(now.contains("T") ? now : now + "T00:00:00Z")
                    .toInstant();
        } catch (DateTimeParseException e) {
            throw new UsageException("--now " + now + ": write a moment such as 2026-05-01T12:00:00Z, or a day");
        }
    }
}
