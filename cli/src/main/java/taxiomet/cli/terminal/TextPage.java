package taxiomet.cli.terminal;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.text.ResultText;

/** The text of a result: on standard output, or in a program that shows it page by page. */
public final class TextPage implements AutoCloseable {
    private final Terminal terminal;
    private final ColorChoice color;
    private final Process pager;
    private final PrintStream out;
    private long lines;

    /** @param isPaged whether the program that the variable PAGER names is to show it */
    private TextPage(Terminal terminal, ColorChoice color, boolean isPaged) throws IOException {
        this.terminal = terminal;
        this.color = color;
        if (!isPaged) {
            pager = null;
            out = terminal.out();
            return;
        }
        String program = terminal.variable("PAGER");
        if (program.isBlank()) {
            throw new UsageException("--pager: the variable PAGER names no program; set it, as in PAGER=less");
        }
        if (!terminal.isShown()) {
            throw new UsageException("--pager: standard output is no terminal, so there is nothing to page through");
        }
        terminal.out().flush();
        pager = new ProcessBuilder("/bin/sh", "-c", program)
                .redirectOutput(ProcessBuilder.Redirect.INHERIT)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        out = new PrintStream(pager.getOutputStream(), false, StandardCharsets.UTF_8);
    }

    /**
     * Shows a result: the answer alone, or the whole and, where its beginning has gone out of the window, the answer once more and what
     * to do next.
     */
    public static void show(
            Terminal terminal,
            ColorChoice color,
            boolean isPaged,
            boolean isQuiet,
            ResultText.Maker result,
            String next)
            throws IOException {
        try (TextPage page = new TextPage(terminal, color, isPaged)) {
            ResultText text = result.of(new LinePaper(terminal.width(), page.hasColor(), page::print));
            if (isQuiet) {
                text.writeAnswer();
                return;
            }
            text.write();
            boolean isOutOfSight = page.pager == null && terminal.isShown() && page.lines > terminal.height();
            if (isOutOfSight) {
                page.print("");
                text.writeAnswer();
                if (!next.isEmpty()) {
                    page.print("next: " + next);
                }
            }
        }
    }

    /** A pager may show codes of colours as they stand: it gets them only where they are asked for. */
    private boolean hasColor() {
        return pager == null ? terminal.hasColor(color) : color == ColorChoice.ALWAYS;
    }

    private void print(String line) {
        out.println(line);
        lines++;
    }

    @Override
    public void close() throws IOException {
        if (pager == null) {
            return;
        }
        out.close();
        try {
            pager.waitFor();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
