package taxiomet.rows;

import java.util.List;
import java.util.Optional;

/** A place where the rows of a table live that looks for some of them by itself, so that the others need not be moved. */
public interface Inside {
    /** Why it cannot look for rows of a kind, as a clause; empty when it can. */
    Optional<String> whyNot(Suspicion suspicion);

    /**
     * Looks for all rows that meet one of some suspicions.
     *
     * @param suspicions of those that it can look for
     * @param links lists of columns, by their places, of which the nulls are counted
     * @param threads at most so many at once
     * @return the rows; empty when they are so many that reading the whole table is sooner done
     * @throws SourceException when the place cannot be asked
     */
    Optional<Sieved> sieve(List<Suspicion> suspicions, List<List<Integer>> links, int threads);

    /**
     * All rows that have some values, and perhaps others.
     *
     * @return the rows; empty when they cannot be looked for by these columns, or are so many that reading the whole table is sooner done
     * @throws SourceException when the place cannot be asked
     */
    Optional<SievedRows> seek(List<Sought> any);

    /** How many rows the table has. */
    long rowsInAll();
}
