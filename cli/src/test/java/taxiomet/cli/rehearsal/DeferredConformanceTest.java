package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Charter.Behaviour;
import taxiomet.charters.Charters;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.rehearse.Proposal;
import taxiomet.rehearse.Rehearsal;

/** With all links waiting for the end of the proposal, as PostgreSQL has them in one transaction with a savepoint before each change. */
final class DeferredConformanceTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 40);
    private static final long SEED = Long.getLong("taxiomet.seed", 1_000L);

    private final Map<String, Integer> seen = new TreeMap<>();

    @TempDir
    Path folder;

    /** @param accepted for each change, and then for the whole at its end */
    private record End(List<Boolean> accepted, Map<String, List<String>> rows) {}

    @Test
    void links_that_wait_are_judged_at_the_end() throws Exception {
        List<String> differences = new ArrayList<>();
        try (PostgresServer server = new PostgresServer()) {
            for (long seed = SEED; seed < SEED + CASES; seed++) {
                RandomProposal proposal = new RandomProposal(seed);
                Path caseFolder = Files.createTempDirectory(folder, "case");
                Charter charter = Charters.read(CharterOfCase.write(proposal, caseFolder), Optional.empty())
                        .charter();
                End wanted = endOf(server, proposal);
                End got = endOf(charter, proposal);
                if (!wanted.equals(got)) {
                    differences.add("seed " + seed + ": " + proposal.changes + ": " + got + " instead of " + wanted
                            + "\n" + proposal.describe());
                }
            }
        }
        System.out.println("deferred: " + CASES + " cases from seed " + SEED + ", " + seen);
        assertThat(seen).containsKeys("refused at the end", "accepted at the end");
        assertThat(differences).isEmpty();
    }

    private End endOf(PostgresServer server, RandomProposal proposal) throws SQLException {
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
        boolean isKept = server.run("COMMIT").isAccepted();
        accepted.add(isKept);
        seen.merge(isKept ? "accepted at the end" : "refused at the end", 1, Integer::sum);
        return new End(accepted, server.rows(proposal));
    }

    private static End endOf(Charter charter, RandomProposal proposal) throws Exception {
        try (Rehearsal rehearsal =
                Rehearsals.start(charter, proposal.changes, Behaviour.POSTGRESQL, Proposal.Deferral.ALL)) {
            RehearsalResult result = rehearsal.result();
            List<Boolean> accepted = new ArrayList<>();
            result.changes().stream().map(ChangeResult::isAccepted).forEach(accepted::add);
            accepted.add(result.atEnd().isEmpty());
            return new End(accepted, Rehearsals.rows(rehearsal, proposal));
        }
    }
}
