package taxiomet.cli.terminal;

import java.time.Duration;
import java.util.Locale;
import java.util.function.LongSupplier;
import taxiomet.reports.words.CellText;
import taxiomet.work.CheckProgress;

/**
 * Shows how far a check has come, on a terminal and only when it takes longer than a moment:
 *
 * <pre>reading hive  ━━━━━━━━━━━━━━━━┄┄┄┄┄┄┄┄  66%  176 of 267 MB  4 s left</pre>
 */
public final class Progress implements CheckProgress, AutoCloseable {
    private static final long PATIENCE = Duration.ofMillis(800).toNanos();
    private static final long STEP = Duration.ofMillis(250).toNanos();
    private static final long SECOND = Duration.ofSeconds(1).toNanos();
    private static final int MEGABYTE = 1_000_000;
    private static final int SECONDS_PER_MINUTE = 60;
    private static final int LONGEST_BAR = 40;
    private static final int LONGEST_NAME = 24;
    /** A bar of fewer says nothing. */
    private static final int SHORTEST_BAR = 8;

    private final Terminal terminal;
    private final LongSupplier nanos;
    private final long started;
    private volatile long nextShown;
    private String table = "";
    private int shown;

    public Progress(Terminal terminal) {
        this(terminal, System::nanoTime);
    }

    /** @param nanos the time in nanoseconds since any moment */
    Progress(Terminal terminal, LongSupplier nanos) {
        this.terminal = terminal;
        this.nanos = nanos;
        this.started = nanos.getAsLong();
        this.nextShown = started + PATIENCE;
    }

    @Override
    public synchronized void reading(String name) {
        table = CellText.cut(CellText.escaped(name), LONGEST_NAME);
    }

    @Override
    public void advanced(LongSupplier bytesRead, long bytesInAll) {
        long now = nanos.getAsLong();
        if (now - nextShown >= 0) {
            show(bytesRead.getAsLong(), bytesInAll, now);
        }
    }

    private synchronized void show(long read, long inAll, long now) {
        if (now - nextShown < 0) {
            return;
        }
        nextShown = now + STEP;
        String front = "reading " + table + "  ";
        String back = inAll <= 0 ? megabytes(read) + " MB" : figures(Math.min(read, inAll), inAll, now - started);
        int room = terminal.width() - 1 - CellText.width(front) - back.length() - 2;
        String bar = inAll <= 0 || room < SHORTEST_BAR ? "" : bar(read, inAll, Math.min(room, LONGEST_BAR)) + "  ";
        String line = front + bar + back;
        int width = CellText.width(line);
        terminal.err().print("\r" + line + " ".repeat(Math.max(0, shown - width)));
        terminal.err().flush();
        shown = width;
    }

    private static String figures(long read, long inAll, long sinceStart) {
        String figures =
                String.format(Locale.ROOT, "%3d%%  %s of %s MB", read * 100 / inAll, megabytes(read), megabytes(inAll));
        if (read == 0) {
            return figures;
        }
        long seconds = Math.max(1, Math.round((double) sinceStart / read * (inAll - read) / SECOND));
        return figures + "  "
                + (seconds < SECONDS_PER_MINUTE
                        ? seconds + " s left"
                        : (seconds + 30) / SECONDS_PER_MINUTE + " min left");
    }

    private static String megabytes(long bytes) {
        return String.format(Locale.ROOT, "%,d", bytes / MEGABYTE);
    }

    private static String bar(long read, long inAll, int length) {
        int done = (int) Math.min(length, (double) read / inAll * length);
        return "━".repeat(done) + "┄".repeat(length - done);
    }

    @Override
    public void concluding() {
        close();
    }

    /** Takes the line away: the result says the rest. */
    @Override
    public synchronized void close() {
        if (shown > 0) {
            terminal.err().print("\r" + " ".repeat(shown) + "\r");
            terminal.err().flush();
            shown = 0;
        }
    }
}
