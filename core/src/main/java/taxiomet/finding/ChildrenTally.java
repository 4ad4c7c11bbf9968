package taxiomet.finding;

import java.util.Map;
import java.util.SortedMap;

/**
 * How many children the parents of a link have.
 *
 * @param parents how many parent rows there are
 * @param childless parents without a child
 * @param least children of the parent that has the fewest, 0 among them
 * @param median children of the parent in the middle
 * @param most children of the parent that has the most
 * @param pairs rows that a join of both tables over the link would make
 */
public record ChildrenTally(long parents, long childless, long least, long median, long most, long pairs) {
    /** @param parentsByCount how many parents there are for each number of children */
    public static ChildrenTally of(SortedMap<Long, Long> parentsByCount) {
        long parents =
                parentsByCount.values().stream().mapToLong(Long::longValue).sum();
        if (parents == 0) {
            return new ChildrenTally(0, 0, 0, 0, 0, 0);
        }
        long before = 0;
        long median = 0;
        long pairs = 0;
        for (Map.Entry<Long, Long> entry : parentsByCount.entrySet()) {
            if (before <= (parents - 1) / 2 && (parents - 1) / 2 < before + entry.getValue()) {
                median = entry.getKey();
            }
            before += entry.getValue();
            pairs += entry.getKey() * entry.getValue();
        }
        return new ChildrenTally(
                parents,
                parentsByCount.getOrDefault(0L, 0L),
                parentsByCount.firstKey(),
                median,
                parentsByCount.lastKey(),
                pairs);
    }
}
