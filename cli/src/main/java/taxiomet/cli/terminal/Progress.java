package taxiomet.cli.terminal;

import java.time.Duration;
import java.time.Instant;
import java.util.function.LongSupplier;
import me.tongfei.progressbar.DelegatingProgressBarConsumer;
import me.tongfei.progressbar.ProgressBar;
import me.tongfei.progressbar.ProgressBarBuilder;
import me.tongfei.progressbar.ProgressBarStyle;
import taxiomet.reports.text.CellText;
import taxiomet.work.CheckProgress;

/** Shows how far a check has come, on a terminal and only when it takes longer than a moment. */
public final class Progress implements CheckProgress, AutoCloseable {
    private static final Duration PATIENCE = Duration.ofMillis(800);
    private static final int MEGABYTE = 1_000_000;

    private final Terminal terminal;
    private final Instant started = Instant.now();
    private ProgressBar bar;
    private String table = "";
    private String lastLine = "";

    public Progress(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public void reading(String name) {
        table = name;
        if (bar != null) {
            bar.setExtraMessage(CellText.escaped(name));
        }
    }

    @Override
    public void advanced(LongSupplier bytesRead, long bytesInAll) {
        if (bar == null) {
            if (Duration.between(started, Instant.now()).compareTo(PATIENCE) < 0) {
                return;
            }
            bar = new ProgressBarBuilder()
                    .setTaskName("reading")
                    .setInitialMax(bytesInAll)
                    .setUnit(" MB", MEGABYTE)
                    .setStyle(style())
                    .setUpdateIntervalMillis(250)
                    .setConsumer(new DelegatingProgressBarConsumer(this::show, terminal.width() - 1))
                    .build();
            bar.setExtraMessage(CellText.escaped(table));
        }
        bar.stepTo(bytesRead.getAsLong());
    }

    private static ProgressBarStyle style() {
        return ProgressBarStyle.builder()
                .leftBracket("")
                .rightBracket("")
                .block('━')
                .space('┄')
                .fractionSymbols("━")
                .rightSideFractionSymbol('┄')
                .build();
    }

    private synchronized void show(String line) {
        lastLine = line;
        terminal.err().print("\r" + line);
        terminal.err().flush();
    }

    @Override
    public void concluding() {
        close();
    }

    /** Takes the line away: the result says the rest. */
    @Override
    public void close() {
        if (bar != null) {
            // Not under the lock: the bar has its last line shown by a thread of its own, and waits for it.
            bar.close();
            bar = null;
            removeLine();
        }
    }

    private synchronized void removeLine() {
        terminal.err().print("\r" + " ".repeat(lastLine.length()) + "\r");
        terminal.err().flush();
    }
}
