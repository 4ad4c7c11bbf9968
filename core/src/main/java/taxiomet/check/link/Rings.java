package taxiomet.check.link;

import java.util.ArrayDeque;
import java.util.Arrays;
import taxiomet.keys.KeyTable;
import taxiomet.spill.LongSpool;

/**
 * Rings of edges from key to key. An edge is five longs: where it starts (two), where it leads to (two), and the row that it
 * stands for. It is in a ring when both its ends lie in one strongly connected component.
 */
final class Rings {
    /** How many longs an edge takes. */
    static final int EDGE = 5;

    /** What {@link #inMemory} takes for each edge, at most. */
    static final long BYTES_IN_MEMORY = 192;

    /** Keys are numbered in a {@link KeyTable}, two for an edge at most. */
    static final long MOST_IN_MEMORY = 1 << 27;

    private Rings() {}

    /** Is told of each row that is in a ring, and of the first row of that ring. */
    interface Found {
        void add(long firstOfRing, long row);
    }

    /**
     * Finds all rings, with tables in memory.
     *
     * @return how many there are
     */
    static long inMemory(LongSpool edges, Found found) {
        int count = Math.toIntExact(edges.size() / EDGE);
        int[] from = new int[count];
        int[] to = new int[count];
        int nodes = numberKeys(edges, from, to);
        int[] component = new Components(nodes, from, to).find();
        long[] firstOf = new long[nodes];
        Arrays.fill(firstOf, Long.MAX_VALUE);
        long rings = 0;
        for (int pass = 0; pass < 2; pass++) {
            LongSpool.Reader reader = edges.read();
            for (int i = 0; i < count; i++) {
                for (int skipped = 0; skipped < EDGE - 1; skipped++) {
                    reader.next();
                }
                long row = reader.next();
                if (component[from[i]] == component[to[i]]) {
                    int ring = component[from[i]];
                    if (pass == 0) {
                        rings += firstOf[ring] == Long.MAX_VALUE ? 1 : 0;
                        firstOf[ring] = Math.min(firstOf[ring], row);
                    } else {
                        found.add(firstOf[ring], row);
                    }
                }
            }
        }
        return rings;
    }

    private static int numberKeys(LongSpool edges, int[] from, int[] to) {
        int nodes = 0;
        try (KeyTable numbers = new KeyTable(null)) {
            LongSpool.Reader reader = edges.read();
            for (int i = 0; i < from.length; i++) {
                for (int end = 0; end < 2; end++) {
                    long high = reader.next();
                    long low = reader.next();
                    numbers.ensureRoom();
                    int slot = numbers.slotOf(high, low);
                    if (!numbers.isUsed(slot)) {
                        numbers.insert(slot, high, low, nodes++);
                    }
                    (end == 0 ? from : to)[i] = (int) numbers.value(slot);
                }
                reader.next();
            }
        }
        return nodes;
    }

    /** Strongly connected components (Tarjan), without recursion: a chain of rows may be as long as the table. */
    private static final class Components {
        private final int[] starts;
        private final int[] targets;
        private final int[] component;

        Components(int nodes, int[] from, int[] to) {
            starts = new int[nodes + 1];
            for (int node : from) {
                starts[node + 1]++;
            }
            for (int i = 0; i < nodes; i++) {
                starts[i + 1] += starts[i];
            }
            targets = new int[from.length];
            int[] next = starts.clone();
            for (int i = 0; i < from.length; i++) {
                targets[next[from[i]]++] = to[i];
            }
            component = new int[nodes];
            Arrays.fill(component, -1);
        }

        int[] find() {
            int nodes = component.length;
            int[] number = new int[nodes];
            int[] lowest = new int[nodes];
            int[] next = Arrays.copyOf(starts, nodes);
            int counter = 0;
            ArrayDeque<Integer> way = new ArrayDeque<>();
            ArrayDeque<Integer> open = new ArrayDeque<>();
            for (int start = 0; start < nodes; start++) {
                if (number[start] != 0) {
                    continue;
                }
                way.push(start);
                while (!way.isEmpty()) {
                    int here = way.peek();
                    if (number[here] == 0) {
                        number[here] = ++counter;
                        lowest[here] = counter;
                        open.push(here);
                    }
                    if (next[here] < starts[here + 1]) {
                        int target = targets[next[here]++];
                        if (number[target] == 0) {
                            way.push(target);
                        } else if (component[target] < 0) {
                            lowest[here] = Math.min(lowest[here], number[target]);
                        }
                        continue;
                    }
                    way.pop();
                    if (!way.isEmpty()) {
                        lowest[way.peek()] = Math.min(lowest[way.peek()], lowest[here]);
                    }
                    if (lowest[here] == number[here]) {
                        int member;
                        do {
                            member = open.pop();
                            component[member] = here;
                        } while (member != here);
                    }
                }
            }
            return component;
        }
    }
}
