package taxiomet.cli.settle;

import java.nio.file.Path;
import java.util.Optional;
import picocli.CommandLine.Option;

/** What a check has to do with earlier ones. */
public final class HistoryOptions {
    @Option(
            names = "--since",
            paramLabel = "RESULT",
            description =
                    "Say what is new and what is gone since an earlier result: a folder of --evidence or of --keep-history.")
    private Path since;

    @Option(
            names = "--keep-history",
            paramLabel = "DIR",
            description =
                    "Keep the result in a folder beside those before it, so that `taxiomet compare DIR` tells how it goes on: counts,"
                            + " and rows as numbers that stand for them.")
    private Path history;

    /** The earlier result, or results. */
    public Optional<Path> since() {
        return Optional.ofNullable(since);
    }

    /** The folder that results are kept in. */
    public Optional<Path> history() {
        return Optional.ofNullable(history);
    }

    /** Whether a result is kept or compared. */
    public boolean isAny() {
        return since != null || history != null;
    }

    /** Refuses, before anything is read, a folder that could not be written afterwards. */
    public void requireSense() {
        history().ifPresent(KeptFiles::requireHistory);
    }
}
