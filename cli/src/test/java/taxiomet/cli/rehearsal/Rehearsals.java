package taxiomet.cli.rehearsal;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.charters.proposals.ProposalReader;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;
import taxiomet.rows.TableSource;
import taxiomet.sources.RowSources;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.RunContext;

/** Rehearses random cases without the command line. */
final class Rehearsals {
    static final Instant NOW = Instant.parse("2026-05-01T12:00:00Z");

    private Rehearsals() {}

    static Rehearsal start(Charter charter, List<String> changes, Server behaviour) throws IOException {
        return start(charter, changes, behaviour, Proposal.Deferral.DECLARED);
    }

    static Rehearsal start(Charter charter, List<String> changes, Server behaviour, Proposal.Deferral deferral)
            throws IOException {
        return start(charter, changes, deferral, new RehearsalOptions(behaviour, 3, false, false, 0, false));
    }

    static Rehearsal start(Charter charter, List<String> changes, Proposal.Deferral deferral, RehearsalOptions options)
            throws IOException {
        List<Change> read = new ProposalReader(charter, NOW).sql(String.join(";\n", changes), "test");
        return start(charter, new Proposal(read, false, deferral, NOW), options);
    }

    static Rehearsal start(Charter charter, Proposal proposal, RehearsalOptions options) {
        return Rehearsal.start(
                charter,
                proposal,
                options,
                RowSources::open,
                new RunContext(
                        Path.of(System.getProperty("java.io.tmpdir")), MemoryBudget.atMost(1 << 24), 1, 1 << 21));
    }

    static Map<String, List<String>> rows(Rehearsal rehearsal, RandomProposal proposal) {
        Map<String, List<String>> all = new TreeMap<>();
        for (TableCase table : proposal.tables) {
            List<String> rows = new ArrayList<>();
            TableSource after = rehearsal.after(table.name);
            int[] columns = new int[table.columns.size()];
            java.util.Arrays.setAll(columns, i -> i);
            after.read(columns, batch -> {
                for (int row = 0; row < batch.size(); row++) {
                    List<String> cells = new ArrayList<>();
                    for (int i = 0; i < columns.length; i++) {
                        cells.add(RealServer.cell(
                                table.columns.get(i), batch.column(i).text(row)));
                    }
                    rows.add(cells.toString());
                }
            });
            rows.sort(null);
            all.put(table.name, rows);
        }
        return all;
    }
}
