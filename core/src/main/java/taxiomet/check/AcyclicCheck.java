package taxiomet.check;

import java.util.ArrayDeque;
import java.util.Arrays;
import taxiomet.rows.SourceException;
import taxiomet.spill.LongSpool;
import taxiomet.spill.SpillFolder;

/**
 * Rows of a table that are their own ancestors over a link to itself. Keys are numbered as they come; each row is an edge
 * from its own key to its parent's, and it is in a ring when both lie in one strongly connected component.
 */
final class AcyclicCheck extends OrderedCheck implements AutoCloseable {
    private static final int BLOCK = 1 << 14;
    /** As many as an array holds: none is left out in silence. */
    private static final int MOST_ROWS = Integer.MAX_VALUE - 8;

    private final KeyEncoder own;
    private final KeyEncoder parent;
    private final FaultLog faults;
    private final RowFilter filter;
    /** For each row: its key, its parent's key, its reference. */
    private final LongSpool edges;

    private long rings;

    /**
     * @param own of the columns that the link points at
     * @param parent of the columns of the link
     * @param filter the rows that the link is declared for; null for all
     */
    AcyclicCheck(SpillFolder spill, KeyEncoder own, KeyEncoder parent, RowFilter filter, FaultLog faults) {
        this.filter = filter;
        this.own = own;
        this.parent = parent;
        this.faults = faults;
        this.edges = new LongSpool(spill, BLOCK);
    }

    @Override
    public int[] columns() {
        int[] columns = Arrays.copyOf(own.columns(), own.columns().length + parent.columns().length);
        System.arraycopy(parent.columns(), 0, columns, own.columns().length, parent.columns().length);
        return RowFilter.columnsOf(columns, filter);
    }

    @Override
    void check(TypedBatch batch) {
        own.start(batch);
        parent.start(batch);
        if (filter != null) {
            filter.start(batch);
        }
        for (int row = 0; row < batch.size(); row++) {
            if (filter != null && !filter.holds(row)) {
                continue;
            }
            own.look(row);
            parent.look(row);
            if (own.isComplete() && parent.isComplete()) {
                own.encode(row);
                parent.encode(row);
                edges.add(own.high());
                edges.add(own.low());
                edges.add(parent.high());
                edges.add(parent.low());
                edges.add(batch.ref(row));
            }
        }
    }

    /** Finds the rings; the table has been read. */
    void resolve() {
        int count = countOf(edges.size() / 5);
        int[] from = new int[count];
        int[] to = new int[count];
        int nodes = numberKeys(from, to);
        int[] component = new Components(nodes, from, to).find();
        long[] firstOf = new long[nodes];
        Arrays.fill(firstOf, Long.MAX_VALUE);
        for (int pass = 0; pass < 2; pass++) {
            LongSpool.Reader reader = edges.read();
            for (int i = 0; i < count; i++) {
                for (int skipped = 0; skipped < 4; skipped++) {
                    reader.next();
                }
                long ref = reader.next();
                if (component[from[i]] == component[to[i]]) {
                    int ring = component[from[i]];
                    if (pass == 0) {
                        rings += firstOf[ring] == Long.MAX_VALUE ? 1 : 0;
                        firstOf[ring] = Math.min(firstOf[ring], ref);
                    } else {
                        faults.addDuplicate(firstOf[ring], ref);
                    }
                }
            }
        }
    }

    private int countOf(long rows) {
        if (rows > MOST_ROWS) {
            throw new SourceException(
                    "table " + faults.table(),
                    "rings are looked for among " + MOST_ROWS + " rows at most, and here are " + rows
                            + " with a parent",
                    "leave `acyclic` out of link " + faults.at() + ", or limit the link with `where`");
        }
        return (int) rows;
    }

    private int numberKeys(int[] from, int[] to) {
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

    /** How many rings there are, each counted once. */
    long rings() {
        return rings;
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

    @Override
    public void close() {
        edges.close();
    }
}
