package taxiomet.work;

import java.nio.file.Path;
import taxiomet.spill.MemoryBudget;

/**
 * What a check may use.
 *
 * @param temporary an existing folder for temporary files
 * @param budget for keys in memory; what gets no room goes to temporary files
 * @param threads how many work at once at most, at least 1
 * @param bytesForThread how much there must be to read for each thread beyond the first; with less it costs more than it gives
 */
public record Resources(Path temporary, MemoryBudget budget, int threads, long bytesForThread) {
    /** What is usually worth another thread. */
    public static final long USUAL_BYTES = 1 << 21;

    /** How many threads are worth while for so many bytes. */
    public int threadsFor(long bytes) {
        return (int) Math.min(threads, 1 + bytes / Math.max(1, bytesForThread));
    }
}
