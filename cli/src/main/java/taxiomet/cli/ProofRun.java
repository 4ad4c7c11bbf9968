package taxiomet.cli;

import java.io.Console;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.finding.ProofResult;
import taxiomet.finding.RehearsalResult;
import taxiomet.personal.PersonalFlow;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.proposal.Proposal.Deferral;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.proof.Proof;
import taxiomet.reports.sql.ChangeSql;
import taxiomet.reports.sql.Dialect;
import taxiomet.reports.words.Counted;
import taxiomet.sources.jdbc.DatabaseSessions;
import taxiomet.sources.jdbc.ProvingDatabase;
import taxiomet.work.Secret;

/** Carries a proposal out in its database, where that is allowed, and takes everything back. */
final class ProofRun {
    private final List<Table> tables;
    private final ProvingDatabase database;
    private final Terminal terminal;
    private final ChangeSql sql;
    private final Instant moment;

    private ProofRun(List<Table> tables, ProvingDatabase database, ChangeSql sql, Terminal terminal, Instant moment) {
        this.tables = tables;
        this.database = database;
        this.sql = sql;
        this.terminal = terminal;
        this.moment = moment;
    }

    /**
     * Begins the transaction.
     *
     * @throws UsageException when the charter does not allow it, or what is rehearsed is not what the database would do
     * @throws taxiomet.rows.SourceException when it cannot be connected to, or could not take everything back
     */
    static ProofRun begin(
            Charter declared, Proposal proposal, Server rehearsed, DatabaseSessions sessions, Terminal terminal) {
        Charter charter = PersonalFlow.through(declared, proposal.changes());
        List<Table> tables = charter.tables().stream()
                .filter(table -> table.rows() instanceof DatabaseRows rows && !rows.isQuery())
                .toList();
        requireTables(charter, proposal, tables);
        DatabaseRows rows = (DatabaseRows) tables.get(0).rows();
        if (!rows.database().mayBeProvedIn()) {
            throw new UsageException(
                    "--prove runs the proposal in " + rows.database().shown()
                            + ", and the charter does not allow it: write `prove: yes` under `database` where it may be done");
        }
        if (!rehearsed.isWritten()) {
            throw new UsageException("--prove compares with what the database does, and what is rehearsed is how the "
                    + rehearsed.word() + " has it: say --server postgresql, mariadb or sqlite");
        }
        boolean areDeferred = proposal.deferral() != Deferral.DECLARED;
        if (areDeferred && (rehearsed != Server.POSTGRESQL || proposal.deferral() == Deferral.ALL)) {
            throw new UsageException(
                    "--prove does not go with --deferred there: which links wait is the database's own");
        }
        ChangeSql sql = new ChangeSql(charter, Dialect.of(rehearsed));
        sql.of(proposal.changes());
        ProvingDatabase database = sessions.prove(
                rows,
                new ProvingDatabase.Plan(
                        sql.settings(), tables, proposal.now(), proposal.isAllOrNothing(), areDeferred));
        // Before the sessions, whatever becomes of the command.
        terminal.atEnd(database::close);
        if (database.behaviour() != rehearsed) {
            throw new UsageException("--prove compares with what the database does: it is one of "
                    + database.behaviour().word() + ", and rehearsed is what " + rehearsed.word()
                    + " would do; say --server "
                    + database.behaviour().word());
        }
        return new ProofRun(tables, database, sql, terminal, database.begin());
    }

    /** What actions of links do to rows elsewhere, no database shows. */
    private static void requireTables(Charter charter, Proposal proposal, List<Table> tables) {
        for (Change change : proposal.changes()) {
            if (tables.stream().noneMatch(table -> table.name().equals(change.table()))) {
                throw new UsageException("--prove runs the proposal in a database, and the rows of `" + change.table()
                        + "` are of no table in one");
            }
        }
        if (tables.isEmpty()) {
            throw new UsageException("--prove runs the proposal in a database, and no table's rows live in one");
        }
        long databases = tables.stream()
                .map(table -> ((DatabaseRows) table.rows()).database())
                .distinct()
                .count();
        if (databases > 1) {
            throw new UsageException(
                    "--prove runs the proposal in one database, and the charter's tables are in " + databases);
        }
        for (Table table : charter.tables()) {
            boolean isElsewhere = !tables.contains(table);
            boolean isTouched = table.links().stream()
                    .anyMatch(link -> link.isEnforced()
                            && proposal.changes().stream()
                                    .anyMatch(change -> change.table().equals(link.parent())));
            if (isElsewhere && isTouched) {
                throw new UsageException("--prove runs the proposal in a database, and rows of `" + table.name()
                        + "`, which point at rows that it changes, stand elsewhere");
            }
        }
    }

    /** What is now in the transaction: a rehearsal takes it for its own moment. */
    Instant moment() {
        return moment;
    }

    /**
     * Says what is about to happen, on a terminal asks, and carries it out.
     *
     * @throws UsageException when whoever is asked says no
     */
    ProofResult of(Rehearsal rehearsal, Proposal proposal, boolean isQuiet) {
        database.propose(sql.of(proposal.changes()));
        announce(rehearsal.result(), isQuiet);
        return Proof.of(rehearsal.result(), tables, rehearsal::after, database, Secret.random());
    }

    // Later versions of Java give a console that is none: whether somebody watches is known otherwise.
    @SuppressWarnings("SystemConsoleNull")
    private void announce(RehearsalResult result, boolean isQuiet) {
        String held = result.tables().stream()
                .map(table -> Counted.of(table.deleted() + table.changed() + table.inserted(), "row") + " of "
                        + table.table())
                .collect(Collectors.joining(", "));
        String what = "proving in " + database.server() + ": "
                + Counted.of(result.changes().size(), "change")
                + " in a transaction that is rolled back. Until then "
                + (held.isEmpty() ? "nothing is foreseen to be locked" : "it locks " + held)
                + (database.triggers().isEmpty()
                        ? ""
                        : ", and fires what it meets of " + String.join(", ", database.triggers()))
                + ".";
        Console console = System.console();
        if (console == null || !terminal.isWatched()) {
            if (!isQuiet) {
                terminal.say(what);
            }
            return;
        }
        terminal.say(what);
        String answer = console.readLine("Carry on? [y/N] ");
        if (answer == null || !answer.strip().toLowerCase(Locale.ROOT).matches("y|yes")) {
            throw new UsageException("not proved: nothing was done in the database");
        }
    }
}
