package taxiomet.cli.terminal;

import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import java.util.function.LongSupplier;
import taxiomet.finding.CheckResult;
import taxiomet.work.CheckProgress;

/** How quickly a check went, for those who ask with --verbose. */
public final class RunFigures implements CheckProgress {
    private final CheckProgress next;
    private final Instant started = Instant.now();
    private Optional<Duration> processorAtStart = Optional.empty();
    private Instant readToEnd = started;
    private boolean hasBegun;
    private long bytes;

    /** @param next is told the same */
    public RunFigures(CheckProgress next) {
        this.next = next;
    }

    /** Who else is told. */
    public CheckProgress watched() {
        return next;
    }

    @Override
    public void reading(String table) {
        if (!hasBegun) {
            hasBegun = true;
            processorAtStart = processor();
        }
        next.reading(table);
    }

    @Override
    public void advanced(LongSupplier bytesRead, long bytesInAll) {
        bytes = bytesInAll;
        next.advanced(bytesRead, bytesInAll);
    }

    @Override
    public void concluding() {
        readToEnd = Instant.now();
        next.concluding();
    }

    private static Optional<Duration> processor() {
        return ProcessHandle.current().info().totalCpuDuration();
    }

    /** The figures in one line. */
    public String line(CheckResult result) {
        long rows = result.tables().stream().mapToLong(table -> table.rows()).sum();
        double seconds = Duration.between(started, readToEnd).toMillis() / 1e3;
        double all = Duration.between(started, Instant.now()).toMillis() / 1e3;
        StringBuilder line = new StringBuilder(String.format(
                Locale.ROOT,
                "%,d rows and %,.1f MB read in %.2f s: %,.0f rows a second; %.2f s with all that follows",
                rows,
                bytes / 1e6,
                seconds,
                seconds > 0 ? rows / seconds : 0,
                all));
        processorAtStart.ifPresent(start -> line.append(String.format(
                Locale.ROOT,
                ". Processor time: %.2f s before the first rows were read, %.2f s in all",
                start.toMillis() / 1e3,
                processor().orElse(start).toMillis() / 1e3)));
        return line.toString();
    }
}
