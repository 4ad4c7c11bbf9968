package taxiomet.cli.rehearsal;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.LinkTrial;
import taxiomet.rehearse.Rehearsal;

/**
 * The standard leaves no room for the order of declarations, nor for when no action is judged: where neither decides in PostgreSQL, the
 * two agree.
 */
final class StandardConformanceTest {
    @TempDir
    Path folder;

    private RandomCases cases;

    @BeforeEach
    void start() {
        cases = new RandomCases("standard", folder);
    }

    @Test
    void the_standard_agrees_with_postgresql_where_order_and_timing_do_not_decide() throws Exception {
        try (RealServer server = new PostgresServer()) {
            cases.compare(RandomCases.USUAL, server::takes, drawn -> {
                RandomProposal proposal = drawn.proposal();
                Charter charter = drawn.charter();
                List<String> differences = new ArrayList<>();
                for (String change : proposal.changes) {
                    if (!isOrderIndifferent(charter, proposal, change)) {
                        cases.note("order or timing decides");
                        continue;
                    }
                    server.load(proposal);
                    RealServer.Answer answer = server.run(change);
                    cases.note(answer.isAccepted() ? "accepted" : "refused");
                    if (!isSame(charter, proposal, change, answer, server.rows(proposal))) {
                        differences.add(change + ": server " + answer);
                    }
                }
                return differences.isEmpty() ? Optional.empty() : Optional.of(String.join("\n", differences));
            });
        }
        cases.requireSeen("accepted", "refused");
    }

    private boolean isSame(
            Charter charter,
            RandomProposal proposal,
            String change,
            RealServer.Answer answer,
            Map<String, List<String>> rows)
            throws IOException {
        boolean isAccepted = answer.isAccepted();
        try (Rehearsal rehearsal = Rehearsals.start(charter, List.of(change), Server.STANDARD)) {
            RehearsalResult result = rehearsal.result();
            List<RefusalResult> refusals = result.changes().get(0).refusals();
            if (isAccepted && refusals.stream().anyMatch(refusal -> refusal.kind() == RefusalKind.TWO_VALUES)) {
                // The standard's triggered data change violation (S4), which PostgreSQL does not know.
                cases.note("two roads write different values");
                return true;
            }
            if (!isAccepted && result.isAccepted() && isRefusedForRowsThatGo(charter, answer, result)) {
                cases.note("set default looks before a cascade");
                return true;
            }
            if (!isAccepted
                    && result.isAccepted()
                    && answer.refusedBy().isEmpty()
                    && isRefusedForNoRow(charter, change)) {
                cases.note("a new key must fit though no child has the old one");
                return true;
            }
            boolean isRestricted = isAccepted
                    && !result.isAccepted()
                    && refusals.stream().allMatch(refusal -> refusal.kind() == RefusalKind.STILL_REFERENCED);
            if (!isRestricted) {
                return result.isAccepted() == isAccepted
                        && Rehearsals.rows(rehearsal, proposal).equals(rows);
            }
        }
        // Restrict looks before the children go by another link (S2), PostgreSQL afterwards: with no action in its
        // place they agree.
        cases.note("restrict looks before a cascade");
        try (Rehearsal rehearsal = Rehearsals.start(withoutRestrict(charter), List.of(change), Server.STANDARD)) {
            return rehearsal.result().isAccepted()
                    && Rehearsals.rows(rehearsal, proposal).equals(rows);
        }
    }

    /**
     * Whether the server refuses for a link that sets defaults, though in the end no row gets one: it looks for the default parent at once,
     * for rows too that another link deletes later; a row both written and deleted is deleted (S1).
     */
    private static boolean isRefusedForRowsThatGo(Charter charter, RealServer.Answer answer, RehearsalResult result) {
        return charter.links().stream()
                .filter(link -> answer.refusedBy().equals(Optional.of(link.child() + "." + link.name())))
                .anyMatch(link -> link.onDelete().name() == ActionName.SET_DEFAULT
                        && result.changes().get(0).effects().stream()
                                .noneMatch(effect -> effect.link().equals(Optional.of(link.name()))
                                        && effect.kind() == EffectKind.DEFAULTED));
    }

    /** Whether PostgreSQL refuses a key that does not fit into a child's column though there is no child (P7). */
    private static boolean isRefusedForNoRow(Charter charter, String change) throws IOException {
        try (Rehearsal rehearsal = Rehearsals.start(charter, List.of(change), Server.POSTGRESQL)) {
            RefusalResult first = rehearsal.result().changes().get(0).refusals().get(0);
            return first.kind() == RefusalKind.TYPE_MISMATCH && first.rows() == 0;
        }
    }

    private static Charter withoutRestrict(Charter charter) {
        Charter without = charter;
        for (ForeignKey link : charter.links()) {
            without = new LinkTrial(
                            link.child(),
                            link.name(),
                            Optional.of(withoutRestrict(link.onDelete())),
                            Optional.of(withoutRestrict(link.onUpdate())),
                            Optional.empty())
                    .in(without);
        }
        return without;
    }

    private static Action withoutRestrict(Action action) {
        return action.name() == ActionName.RESTRICT ? new Action(ActionName.NO_ACTION, List.of()) : action;
    }

    /** Whether PostgreSQL ends in the same way with the links in other orders, and with no action judged at the end. */
    private static boolean isOrderIndifferent(Charter charter, RandomProposal proposal, String change)
            throws IOException {
        List<Charter> others = new ArrayList<>(List.of(charter));
        List<Table> reversed = new ArrayList<>();
        for (Table table : charter.tables()) {
            List<ForeignKey> links = new ArrayList<>(table.links());
            Collections.reverse(links);
            reversed.add(table.withLinks(links));
        }
        others.add(new Charter(charter.name(), reversed, charter.behavesAs()));
        List<Table> tables = new ArrayList<>(charter.tables());
        Collections.reverse(tables);
        others.add(new Charter(charter.name(), tables, charter.behavesAs()));
        Collections.reverse(reversed);
        others.add(new Charter(charter.name(), reversed, charter.behavesAs()));
        Set<String> ends = new TreeSet<>();
        for (Charter other : others) {
            for (Proposal.Deferral deferral : List.of(Proposal.Deferral.DECLARED, Proposal.Deferral.ALL)) {
                try (Rehearsal rehearsal = Rehearsals.start(other, List.of(change), Server.POSTGRESQL, deferral)) {
                    RehearsalResult result = rehearsal.result();
                    boolean isRowByRow = result.changes().get(0).refusals().stream()
                            .anyMatch(refusal -> refusal.kind() == RefusalKind.KEY_TAKEN
                                    || refusal.kind() == RefusalKind.BROKEN_RULE
                                    || refusal.kind() == RefusalKind.NULL_NOT_ALLOWED);
                    if (isRowByRow) {
                        // Judged row by row there, and when all rows are written here.
                        return false;
                    }
                    ends.add(result.isAccepted() + " " + Rehearsals.rows(rehearsal, proposal));
                }
            }
        }
        return ends.size() == 1;
    }
}
