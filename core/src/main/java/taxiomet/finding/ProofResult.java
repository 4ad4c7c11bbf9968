package taxiomet.finding;

import java.util.List;
import java.util.Optional;

/**
 * What a database made of a proposal that was rehearsed, in a transaction that was rolled back.
 *
 * @param server what the database is called
 * @param triggers the triggers of the tables, which a rehearsal knows nothing of
 * @param changes in their order
 * @param atEnd what was judged when all changes were through; empty where nothing waited for it
 * @param tables the rows of each table as they stood then, beside those foreseen
 */
public record ProofResult(
        String server,
        List<String> triggers,
        List<ChangeProof> changes,
        Optional<ChangeProof> atEnd,
        List<TableProof> tables) {
    public ProofResult {
        triggers = List.copyOf(triggers);
        changes = List.copyOf(changes);
        tables = List.copyOf(tables);
    }

    /**
     * One change.
     *
     * @param isForeseen whether the rehearsal accepts it
     * @param isAccepted whether the database does
     * @param said why it does not, in its words; empty where it does
     */
    public record ChangeProof(boolean isForeseen, boolean isAccepted, String said) {
        /** Whether the database did as was rehearsed. */
        public boolean agrees() {
            return isForeseen == isAccepted;
        }
    }

    /**
     * A table.
     *
     * @param rows how many rows it had in the transaction
     * @param foreseen how many the rehearsal says
     * @param missing rows that were foreseen, and were not there
     * @param more rows that were there, and were not foreseen
     * @param examples some of both, as a person reads them
     */
    public record TableProof(String table, long rows, long foreseen, long missing, long more, List<String> examples) {
        public TableProof {
            examples = List.copyOf(examples);
        }

        /** Whether the database had the rows that were foreseen, value by value. */
        public boolean agrees() {
            return missing == 0 && more == 0;
        }
    }

    /** Whether the database did in all what was rehearsed. */
    public boolean agrees() {
        return changes.stream().allMatch(ChangeProof::agrees)
                && atEnd.stream().allMatch(ChangeProof::agrees)
                && tables.stream().allMatch(TableProof::agrees);
    }
}
