package taxiomet.rows;

import java.util.BitSet;
import java.util.List;
import java.util.Map;

/**
 * What was found {@link Inside} the place where a table lives.
 *
 * @param rows those that meet a suspicion, in the order in which the whole table would be read
 * @param rowsInAll how many the table has
 * @param met for each suspicion which of the rows meet it, 0 for the first
 * @param nulls for each list of columns asked about
 */
public record Sieved(
        SievedRows rows, long rowsInAll, Map<Suspicion, BitSet> met, Map<List<Integer>, NullCounts> nulls) {
    /** How many rows of a whole table have nulls in all columns of a list, and in some. */
    public record NullCounts(long all, long some) {}

    public Sieved {
        met = Map.copyOf(met);
        nulls = Map.copyOf(nulls);
    }

    /** Whether one of the rows meets a suspicion. */
    public boolean isMet(Suspicion suspicion, long ref) {
        return met.get(suspicion).get(rows.placeOf(ref));
    }
}
