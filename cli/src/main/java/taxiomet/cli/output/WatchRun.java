package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.cli.terminal.Terminal;
import taxiomet.finding.KeptResult;
import taxiomet.rows.SourceException;
import taxiomet.sources.FilesWatched;
import taxiomet.sources.FilesWatched.Stand;

/**
 * Checks again whenever a file or the charter changes, and tells what is new and what is gone. It goes on until it is interrupted; what
 * cannot be read is said, and waited for.
 */
public final class WatchRun {
    private static final long LOOKS_EVERY = 300;

    private final Terminal terminal;
    private final Path charterFile;
    private KeptResult last;
    private Charter charter;

    /** One check. */
    public interface Check {
        /** Reads the charter. */
        Charter charter() throws CharterException;

        /**
         * Checks the rows, and tells what came of it.
         *
         * @param last what was seen before; null the first time
         * @return what was seen
         */
        KeptResult run(Charter charter, KeptResult last) throws IOException;
    }

    public WatchRun(Terminal terminal, Path charterFile) {
        this.terminal = terminal;
        this.charterFile = charterFile;
    }

    /** Goes on until the thread is interrupted. */
    public void run(Check check) throws IOException {
        Map<Path, Stand> seen = Map.of();
        for (Map<Path, Stand> now = settled(); now != null; now = settled()) {
            List<String> changed = FilesWatched.changed(seen, now);
            if (!changed.isEmpty()) {
                if (!seen.isEmpty()) {
                    terminal.out().println();
                    terminal.out()
                            .println(LocalTime.now(ZoneId.systemDefault()).truncatedTo(ChronoUnit.SECONDS)
                                    + "  changed: " + String.join(", ", changed));
                }
                checkOnce(check);
                terminal.out().flush();
                // The charter may name other files now; of those known, what changed meanwhile is seen next time.
                Map<Path, Stand> after = FilesWatched.now(charterFile, charter);
                after.putAll(now);
                seen = after;
            }
        }
    }

    private void checkOnce(Check check) throws IOException {
        try {
            charter = check.charter();
            last = check.run(charter, last);
        } catch (CharterException e) {
            e.problems().forEach(problem -> terminal.complain(problem.toString()));
        } catch (SourceException e) {
            terminal.complain(e.getMessage());
        }
    }

    /** How the files stand once nobody writes to them; null when the thread was interrupted. */
    private Map<Path, Stand> settled() {
        Map<Path, Stand> before = FilesWatched.now(charterFile, charter);
        try {
            while (true) {
                Thread.sleep(LOOKS_EVERY);
                Map<Path, Stand> now = FilesWatched.now(charterFile, charter);
                if (now.equals(before)) {
                    return now;
                }
                before = now;
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return null;
        }
    }
}
