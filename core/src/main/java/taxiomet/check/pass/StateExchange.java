package taxiomet.check.pass;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import taxiomet.spill.LongSpool;
import taxiomet.spill.Partitions;
import taxiomet.spill.SortedSpool;

/**
 * The way of a check's state out of one run and into another: {@link StateWriter} writes what a check has seen, {@link StateReader} adds
 * what was written to what the same check has seen here, in which rows have other names. A check says once what its state is ({@link
 * RowCheck#exchange}), so that what is written and what is read cannot differ.
 *
 * <p>Records are runs of longs. {@code refAt} is the place in a record of the reference of a row of the check's table, or {@link #NONE}.
 */
public interface StateExchange {
    /** There is no reference in a record. */
    int NONE = -1;

    /** A count: what it is with what came. */
    long count(long own);

    /** Records of one length, by partitions. */
    void partitions(Partitions records, int length, int refAt);

    /** Records that say their length, by partitions. */
    void records(Partitions records, int refAt);

    /** Records of one length in their order; that of the pieces does not matter. */
    void longs(LongSpool records, int length, int refAt);

    /** Pairs, of which the first or none is a reference. */
    void pairs(SortedSpool pairs, boolean areRefs);

    /** Counts by number: each is added to the one there. */
    void tally(Map<Long, Long> counts);

    /**
     * Some texts.
     *
     * @return those that are handed over: what follows belongs to them, in their order
     */
    List<String> texts(Collection<String> own);

    /** The rows of a log. */
    void log(FaultLog log);
}
