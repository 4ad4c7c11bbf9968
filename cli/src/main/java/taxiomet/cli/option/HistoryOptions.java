package taxiomet.cli.option;

import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import picocli.CommandLine.Option;
import taxiomet.cli.output.KeptFiles;
import taxiomet.cli.output.KeyFile;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;

/** What a check has to do with earlier ones, and with the day on which it is made. */
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

    @Option(
            names = "--key-file",
            paramLabel = "FILE",
            description =
                    "The key under which results are kept; rows are known again in results of one key. Made when it is not there."
                            + " Default: taxiomet/history.key in your folder for settings")
    private Path keyFile;

    @Option(
            names = "--today",
            paramLabel = "DAY",
            description =
                    "The day on which the check is made, such as 2027-05-31: what the charter accepts until then. Default: today")
    private String today;

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

    /** Refuses, before anything is read, what makes no sense or could not be written afterwards. */
    public void requireSense(boolean writesEvidence) {
        if (keyFile != null && !isAny() && !writesEvidence) {
            throw new UsageException("--key-file goes with --evidence, --since or --keep-history");
        }
        history().ifPresent(KeptFiles::requireHistory);
        day();
    }

    /** The key; empty where nobody knows where it should stand. */
    public Optional<KeyFile> key(Terminal terminal) {
        Optional<KeyFile> key = KeyFile.of(keyFile, terminal);
        if (key.isEmpty() && isAny()) {
            throw new UsageException(
                    "neither HOME nor XDG_CONFIG_HOME says where your settings are; name the key with --key-file");
        }
        return key;
    }

    /** The day on which the check is made. */
    public LocalDate day() {
        if (today == null) {
            return LocalDate.now(ZoneId.systemDefault());
        }
        try {
            return LocalDate.parse(today);
        } catch (DateTimeException e) {
            throw new UsageException("--today " + today + ": write a day such as 2027-05-31");
        }
    }

    /** The moment at which the result is made: midnight where a day was named. */
    public Instant moment() {
        return today == null
                ? Instant.now().truncatedTo(ChronoUnit.SECONDS)
                : day().atStartOfDay().toInstant(ZoneOffset.UTC);
    }
}
