package taxiomet.work;

import java.nio.file.Path;
import taxiomet.spill.MemoryBudget;

/**
 * What one run may use, and whom it tells how far it has come.
 *
 * @param temporary an existing folder for temporary files
 * @param budget for keys in memory; what gets no room goes to temporary files
 * @param threads how many work at once at most, at least 1
 * @param bytesForThread how much there must be to read for each thread beyond the first; with less it costs more than it gives
 * @param secret under which fingerprints are taken: pieces of one check share it
 * @param progress is told what is being read
 */
public record RunContext(
        Path temporary, MemoryBudget budget, int threads, long bytesForThread, Secret secret, CheckProgress progress) {
    /** What is usually worth another thread. */
    public static final long USUAL_BYTES = 1 << 21;

    /** A run with a secret of its own, which tells nobody. */
    public RunContext(Path temporary, MemoryBudget budget, int threads, long bytesForThread) {
        this(temporary, budget, threads, bytesForThread, Secret.random(), CheckProgress.NONE);
    }

    /** How many threads are worth while for so many bytes. */
    public int threadsFor(long bytes) {
        return (int) Math.min(threads, 1 + bytes / Math.max(1, bytesForThread));
    }

    /** The same on one thread. */
    public RunContext onOneThread() {
        return new RunContext(temporary, budget, 1, bytesForThread, secret, progress);
    }

    /** The same, told to somebody. */
    public RunContext toldTo(CheckProgress listener) {
        return new RunContext(temporary, budget, threads, bytesForThread, secret, listener);
    }

    /** The same under a secret that others know. */
    public RunContext under(Secret shared) {
        return new RunContext(temporary, budget, threads, bytesForThread, shared, progress);
    }
}
