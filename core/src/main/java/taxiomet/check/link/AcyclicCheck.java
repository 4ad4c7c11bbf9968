package taxiomet.check.link;

import java.util.Arrays;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.LongSpool;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;

/** Rows of a table that are their own ancestors over a link to itself: each row is an edge from its own key to its parent's. */
public final class AcyclicCheck extends OrderedCheck implements Conclusion {
    private static final int BLOCK = 1 << 14;

    private final SpillFolder spill;
    private final MemoryBudget budget;
    private final KeyEncoder own;
    private final KeyEncoder parent;
    private final FaultLog faults;
    private final RowFilter filter;
    private final LongSpool edges;

    private long rings;

    /**
     * @param budget for rings that are looked for in memory
     * @param own of the columns that the link points at
     * @param parent of the columns of the link
     * @param filter the rows that the link is declared for; null for all
     */
    public AcyclicCheck(
            SpillFolder spill,
            MemoryBudget budget,
            KeyEncoder own,
            KeyEncoder parent,
            RowFilter filter,
            FaultLog faults) {
        this.spill = spill;
        this.budget = budget;
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
    public void check(TypedBatch batch) {
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

    @Override
    public void exchange(StateExchange state) {
        state.longs(edges, Rings.EDGE, Rings.EDGE - 1);
    }

    /** Finds the rings, in memory while there is room. */
    @Override
    public void resolve() {
        long rows = edges.size() / Rings.EDGE;
        long bytes = rows * Rings.BYTES_IN_MEMORY;
        if (rows <= Rings.MOST_IN_MEMORY && budget.tryTake(bytes)) {
            rings = Rings.inMemory(edges, faults::addDuplicate);
            budget.giveBack(bytes);
        } else {
            rings = new RingsOnDisk(spill, faults::addDuplicate).find(edges);
        }
    }

    /** How many rings there are, each counted once. */
    public long rings() {
        return rings;
    }

    @Override
    public void close() {
        edges.close();
    }
}
