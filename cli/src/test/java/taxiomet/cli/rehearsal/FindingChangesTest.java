package taxiomet.cli.rehearsal;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.function.Consumer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.cli.rehearsal.RandomProposal.ColumnCase;
import taxiomet.cli.rehearsal.RandomProposal.LinkCase;
import taxiomet.cli.rehearsal.RandomProposal.RuleCase;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;

/**
 * The findings that a proposal adds and mends are the same whether all rows are checked before and after or only those near the changes,
 * in random tables full of faults.
 */
final class FindingChangesTest {
    @TempDir
    Path folder;

    @Test
    void checking_the_rows_near_the_changes_finds_what_checking_all_rows_does() throws Exception {
        RandomCases cases = new RandomCases("findings added and mended", folder);
        cases.compare(RandomCases.USUAL * 5, proposal -> true, drawn -> {
            RandomProposal proposal = drawn.proposal();
            Random random = new Random(drawn.seed());
            spoil(proposal, random);
            Charter charter = drawn.charter(new Faultfinder(proposal, random));
            Server behaviour = List.of(Server.values()).get(random.nextInt(4));
            List<String> near = findings(charter, proposal, behaviour, Integer.MAX_VALUE, cases::note);
            List<String> all = findings(charter, proposal, behaviour, -1, what -> {});
            return near.equals(all)
                    ? Optional.empty()
                    : Optional.of(behaviour + ", " + proposal.changes + ": " + near + " instead of " + all);
        });
        cases.requireSeen("added orphan", "mended orphan", "mended duplicate", "mended type mismatch");
        cases.requireSeen("added too few children", "mended too many children", "added broken rule");
    }

    private static List<String> findings(
            Charter charter, RandomProposal proposal, Server behaviour, int mostNear, Consumer<String> met)
            throws IOException {
        try (Rehearsal rehearsal = Rehearsals.start(
                charter,
                proposal.changes,
                Proposal.Deferral.DECLARED,
                new RehearsalOptions(behaviour, 3, false, true, mostNear, false))) {
            RehearsalResult result = rehearsal.result();
            List<String> findings = new ArrayList<>(
                    List.of(result.changes().toString(), result.tables().toString()));
            TreeSet<String> sorted = new TreeSet<>();
            for (FindingChange added : result.added()) {
                sorted.add("added " + added);
                met.accept("added " + added.kind().words());
            }
            for (FindingChange mended : result.mended()) {
                sorted.add("mended " + mended);
                met.accept("mended " + mended.kind().words());
            }
            findings.addAll(sorted);
            return findings;
        }
    }

    /** Repeats keys, loses parents and writes what is not of its type. */
    private static void spoil(RandomProposal proposal, Random random) {
        for (TableCase table : proposal.tables) {
            for (int i = table.rows.size() / 6; i >= 0 && !table.rows.isEmpty(); i--) {
                List<String> copy = new ArrayList<>(table.rows.get(random.nextInt(table.rows.size())));
                int place = random.nextInt(copy.size());
                boolean isText = table.columns.get(place).isText();
                copy.set(place, random.nextInt(3) > 0 ? copy.get(place) : isText ? "z" : random.nextInt(3) + "?");
                table.rows.add(copy);
            }
        }
    }

    /** Declares what makes findings and refuses nothing. */
    private record Faultfinder(RandomProposal proposal, Random random) implements CharterOfCase.More {
        @Override
        public String ofLink(LinkCase link) {
            boolean isSelf = link.child() == link.parent();
            return (random.nextInt(3) == 0 ? ", children: 1..2" : "")
                    + (random.nextInt(8) == 0 ? ", enforced: no" : "")
                    + (isSelf && random.nextInt(3) == 0 ? ", acyclic: yes" : "");
        }

        @Override
        public List<RuleCase> rulesOf(TableCase table) {
            List<RuleCase> rules = new ArrayList<>();
            for (LinkCase link : proposal.links) {
                TableCase parent = proposal.tables.get(link.parent());
                boolean isOfTable = proposal.tables.get(link.child()) == table;
                for (ColumnCase column : parent.columns) {
                    if (isOfTable && column.type().equals("integer") && random.nextInt(6) == 0) {
                        rules.add(new RuleCase(
                                "r" + rules.size() + table.name, link.name() + "." + column.name() + " < 5"));
                    }
                }
            }
            return rules;
        }
    }
}
