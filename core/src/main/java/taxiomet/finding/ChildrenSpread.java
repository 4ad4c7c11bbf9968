package taxiomet.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * How many headings have how many children, in few steps: one for each number where these are few, else 0, 1, 2 to 4, 5 to 9, 10 to 19, 20
 * to 49 and so on. Steps that no heading is in are left out at both ends alone.
 *
 * @param from children, inclusive
 * @param to children, inclusive
 * @param headings how many have so many
 */
public record ChildrenSpread(long from, long to, long headings) {
    private static final int MOST_SINGLE = 10;
    private static final long[] STARTS = {1, 2, 5};

    /** @param headingsByCount how many headings there are for each number of children */
    public static List<ChildrenSpread> of(SortedMap<Long, Long> headingsByCount) {
        if (headingsByCount.isEmpty()) {
            return List.of();
        }
        boolean isSingle = headingsByCount.lastKey() - headingsByCount.firstKey() < MOST_SINGLE;
        TreeMap<Long, Long> ends = new TreeMap<>();
        for (long from = isSingle ? headingsByCount.firstKey() : 0; from <= headingsByCount.lastKey(); ) {
            long next = isSingle || from == 0 ? from + 1 : next(from);
            ends.put(from, next - 1);
            from = next;
        }
        List<ChildrenSpread> steps = new ArrayList<>();
        for (Map.Entry<Long, Long> step : ends.entrySet()) {
            long headings = headingsByCount.subMap(step.getKey(), step.getValue() + 1).values().stream()
                    .mapToLong(Long::longValue)
                    .sum();
            if (headings > 0 || !steps.isEmpty()) {
                steps.add(new ChildrenSpread(step.getKey(), step.getValue(), headings));
            }
        }
        return steps;
    }

    /** The step behind one: 1, 2, 5, 10, 20, 50 ... */
    private static long next(long from) {
        long power = 1;
        while (power * 10 <= from) {
            power *= 10;
        }
        for (long start : STARTS) {
            if (start * power > from) {
                return start * power;
            }
        }
        return power * 10;
    }
}
