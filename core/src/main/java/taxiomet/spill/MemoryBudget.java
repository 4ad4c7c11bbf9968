package taxiomet.spill;

/** How many bytes the tables in memory may take together. What gets no room goes to disk. */
public final class MemoryBudget {
    /** The part of the heap that tables take when nothing else is said; the rest is for batches, buffers and reports. */
    private static final double USUAL_SHARE_OF_HEAP = 0.5;

    private static final double GREATEST_SHARE_OF_HEAP = 0.7;

    private final long limit;
    private long taken;

    /** @param limit in bytes */
    public MemoryBudget(long limit) {
        this.limit = limit;
    }

    /** A budget that fits the heap of this process, which has half of the machine's memory unless Java is told otherwise. */
    public static MemoryBudget ofThisProcess() {
        return new MemoryBudget((long) (Runtime.getRuntime().maxMemory() * USUAL_SHARE_OF_HEAP));
    }

    /** A budget of so many bytes, or what the heap of this process can give if that is less. */
    public static MemoryBudget atMost(long bytes) {
        return new MemoryBudget(Math.min(bytes, (long) (Runtime.getRuntime().maxMemory() * GREATEST_SHARE_OF_HEAP)));
    }

    /** How many bytes there are in all. */
    public long limit() {
        return limit;
    }

    /** Takes room if there is any. */
    public synchronized boolean tryTake(long bytes) {
        if (taken + bytes > limit) {
            return false;
        }
        taken += bytes;
        return true;
    }

    /** Gives back what was taken. */
    public synchronized void giveBack(long bytes) {
        taken -= bytes;
    }
}
