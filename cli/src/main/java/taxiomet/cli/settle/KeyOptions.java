package taxiomet.cli.settle;

import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import picocli.CommandLine.Option;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;

/** Under which key rows are known again in later runs, and on which day this one is made. */
public final class KeyOptions {
    @Option(
            names = "--key-file",
            paramLabel = "FILE",
            description =
                    "The key under which rows are known again: in results that are kept, and in dockets. Made when it is not there."
                            + " Default: taxiomet/history.key in your folder for settings")
    private Path keyFile;

    @Option(
            names = "--today",
            paramLabel = "DAY",
            description =
                    "The day that counts as today, such as 2027-05-31: for what the charter accepts until then. Default: today")
    private String today;

    /** Whether a key was named. */
    public boolean isNamed() {
        return keyFile != null;
    }

    /** The key; empty where nobody knows where it should stand. */
    public Optional<KeyFile> key(Terminal terminal) {
        return KeyFile.of(keyFile, terminal);
    }

    /** The key, where nothing can be done without it. */
    public KeyFile needKey(Terminal terminal) {
        return key(terminal)
                .orElseThrow(() -> new UsageException(
                        "neither HOME nor XDG_CONFIG_HOME says where your settings are; name the key with --key-file"));
    }

    /** The day that counts as today. */
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

    /** The moment at which a result is made: midnight where a day was named. */
    public Instant moment() {
        return today == null
                ? Instant.now().truncatedTo(ChronoUnit.SECONDS)
                : day().atStartOfDay().toInstant(ZoneOffset.UTC);
    }
}
