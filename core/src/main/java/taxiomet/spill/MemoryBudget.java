package taxiomet.spill;

/** How many bytes the tables in memory may take together. What gets no room goes to disk. */
public final class MemoryBudget {
    /** The part of the heap that tables may take; the rest is for batches, buffers and reports. */
    private static final double SHARE_OF_HEAP = 0.35;

    private final long limit;
    private long taken;

    public MemoryBudget(long limit) {
        this.limit = limit;
    }

    /** A budget that fits the heap of this process. */
    public static MemoryBudget ofThisProcess() {
        return new MemoryBudget((long) (Runtime.getRuntime().maxMemory() * SHARE_OF_HEAP));
    }

    /** Takes room if there is any. */
    public synchronized boolean tryTake(long bytes) {
        if (taken + bytes > limit) {
            return false;
        }
        taken += bytes;
        return true;
    }

    public synchronized void giveBack(long bytes) {
        taken -= bytes;
    }
}
