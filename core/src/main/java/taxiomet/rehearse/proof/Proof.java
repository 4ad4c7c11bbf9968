package taxiomet.rehearse.proof;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import taxiomet.charter.Table;
import taxiomet.finding.ProofResult;
import taxiomet.finding.ProofResult.ChangeProof;
import taxiomet.finding.ProofResult.TableProof;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.rows.TableSource;
import taxiomet.work.Secret;

/** Has a database carry out what was rehearsed, and compares. */
public final class Proof {
    private static final int MOST_EXAMPLES = 3;

    private Proof() {}

    /**
     * Carries the changes out, one by one, and compares the rows of all tables with those foreseen.
     *
     * @param tables those that live in the database
     * @param foreseen the rows of a table as they would be, by its name
     * @param secret of the run
     * @throws taxiomet.rows.SourceException when the database fails for another reason than a rule
     */
    public static ProofResult of(
            RehearsalResult result,
            List<Table> tables,
            Function<String, TableSource> foreseen,
            Proving database,
            Secret secret) {
        List<ChangeProof> changes = new ArrayList<>();
        for (ChangeResult change : result.changes()) {
            Optional<String> refused = database.carryOut();
            changes.add(new ChangeProof(change.isAccepted(), refused.isEmpty(), refused.orElse("")));
        }
        Optional<String> refusedAtEnd = database.end();
        boolean isForeseen = result.atEnd().isEmpty();
        Optional<ChangeProof> atEnd = refusedAtEnd.isEmpty() && isForeseen
                ? Optional.empty()
                : Optional.of(new ChangeProof(isForeseen, refusedAtEnd.isEmpty(), refusedAtEnd.orElse("")));
        List<TableProof> rows = new ArrayList<>();
        for (Table table : tables) {
            rows.add(compare(table, foreseen, database, secret));
        }
        return new ProofResult(database.server(), database.triggers(), changes, atEnd, rows);
    }

    private static TableProof compare(
            Table table, Function<String, TableSource> foreseen, Proving database, Secret secret) {
        RowContents contents = new RowContents(table, secret);
        try (TableSource found = database.rows(table)) {
            RowContents.Sum there = contents.sum(found);
            RowContents.Sum wanted = contents.sum(foreseen.apply(table.name()));
            if (there.equals(wanted)) {
                return new TableProof(table.name(), there.rows(), wanted.rows(), 0, 0, List.of());
            }
            RowContents.Difference difference = contents.difference(foreseen.apply(table.name()), found, MOST_EXAMPLES);
            return new TableProof(
                    table.name(),
                    there.rows(),
                    wanted.rows(),
                    difference.missing(),
                    difference.more(),
                    difference.examples());
        }
    }
}
