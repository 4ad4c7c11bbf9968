package taxiomet.survey;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import taxiomet.survey.ColumnProfile.CommonValue;

/** The commonest values of a column, in bounded room (Space-Saving): exact while there are few different ones. */
final class TopValues {
    private static final int CAPACITY = 128;

    private final Map<Long, Counter> byHash = new HashMap<>();
    private final PriorityQueue<Counter> least = new PriorityQueue<>(Comparator.comparingLong(c -> c.count));

    private static final class Counter {
        long hash;
        String text;
        long count;
        long error;
    }

    interface Text {
        String get();
    }

    void add(long hash, Text text) {
        Counter counter = byHash.get(hash);
        if (counter == null) {
            if (byHash.size() < CAPACITY) {
                counter = new Counter();
            } else {
                counter = least.poll();
                byHash.remove(counter.hash);
                counter.error = counter.count;
            }
            counter.hash = hash;
            counter.text = text.get();
            byHash.put(hash, counter);
        } else if (byHash.size() == CAPACITY) {
            least.remove(counter);
        }
        counter.count++;
        if (byHash.size() == CAPACITY) {
            if (least.isEmpty()) {
                least.addAll(byHash.values());
            } else {
                least.add(counter);
            }
        }
    }

    /** Values whose count is sure to within a tenth, the commonest first. */
    List<CommonValue> commonest(int most) {
        List<Counter> sure = new ArrayList<>();
        for (Counter counter : byHash.values()) {
            if (counter.error * 10 <= counter.count) {
                sure.add(counter);
            }
        }
        sure.sort(Comparator.comparingLong((Counter c) -> c.count).reversed().thenComparing(c -> c.text));
        return sure.stream()
                .limit(most)
                .map(c -> new CommonValue(c.text, c.count, c.error == 0))
                .toList();
    }
}
