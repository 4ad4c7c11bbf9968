package taxiomet.cli.rehearsal;

import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.Rehearsal;

/** With all links waiting for the end of the proposal, as PostgreSQL has them in one transaction with a savepoint before each change. */
final class DeferredConformanceTest {
    @TempDir
    Path folder;

    /** @param accepted for each change, and then for the whole at its end */
    private record End(List<Boolean> accepted, Map<String, List<String>> rows) {}

    @Test
    void links_that_wait_are_judged_at_the_end() throws Exception {
        RandomCases cases = new RandomCases("deferred", folder);
        try (PostgresServer server = new PostgresServer()) {
            cases.compare(RandomCases.USUAL, server::takes, drawn -> {
                RandomProposal proposal = drawn.proposal();
                End wanted = endOf(server, proposal);
                boolean isKept = wanted.accepted().get(wanted.accepted().size() - 1);
                cases.note(isKept ? "accepted at the end" : "refused at the end");
                End got = endOf(drawn.charter(), proposal);
                return wanted.equals(got)
                        ? Optional.empty()
                        : Optional.of(proposal.changes + ": " + got + " instead of " + wanted);
            });
        }
        cases.requireSeen("refused at the end", "accepted at the end");
    }

    private static End endOf(PostgresServer server, RandomProposal proposal) throws SQLException {
        server.load(proposal);
        for (RandomProposal.LinkCase link : proposal.links) {
            server.execute("ALTER TABLE " + proposal.tables.get(link.child()).name + " ALTER CONSTRAINT " + link.name()
                    + " DEFERRABLE INITIALLY DEFERRED");
        }
        List<Boolean> accepted = new ArrayList<>();
        server.execute("BEGIN");
        for (String change : proposal.changes) {
            server.execute("SAVEPOINT before");
            accepted.add(server.run(change).isAccepted());
            if (!accepted.get(accepted.size() - 1)) {
                server.execute("ROLLBACK TO before");
            }
        }
        // A commit that is refused rolls back.
        accepted.add(server.run("COMMIT").isAccepted());
        return new End(accepted, server.rows(proposal));
    }

    private static End endOf(Charter charter, RandomProposal proposal) throws Exception {
        try (Rehearsal rehearsal =
                Rehearsals.start(charter, proposal.changes, Server.POSTGRESQL, Proposal.Deferral.ALL)) {
            RehearsalResult result = rehearsal.result();
            List<Boolean> accepted = new ArrayList<>();
            result.changes().stream().map(ChangeResult::isAccepted).forEach(accepted::add);
            accepted.add(result.atEnd().isEmpty());
            return new End(accepted, Rehearsals.rows(rehearsal, proposal));
        }
    }
}
