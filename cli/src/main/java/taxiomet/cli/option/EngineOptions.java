package taxiomet.cli.option;

import java.util.Locale;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.Option;
import taxiomet.charter.Table;
import taxiomet.cli.terminal.TemporaryFolder;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.trust.AllowedDatabases;
import taxiomet.rows.TableSource;
import taxiomet.sources.RowSources;
import taxiomet.sources.jdbc.DatabaseSessions;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.RunContext;

/** With what means rows are read, for the commands that read them. */
public final class EngineOptions {
    private static final Pattern SIZE = Pattern.compile("(\\d{1,12})\\s*([kmg])b?", Pattern.CASE_INSENSITIVE);
    private static final long LEAST_MEMORY = 1L << 10;

    @Option(
            names = "--threads",
            paramLabel = "N",
            description = "Work with so many threads. Default: one for each processor core.")
    private Integer threads;

    @Option(
            names = "--memory",
            paramLabel = "SIZE",
            description = "Keep at most so many bytes of keys in memory (200m, 4g) and the rest in temporary files."
                    + " Default: a quarter of the machine's memory.")
    private String memory;

    /** Not for users: tests read tables in tiny pieces, so that every row lies across some joint. */
    @Option(names = "--chunk", paramLabel = "BYTES", hidden = true, defaultValue = "262144")
    private int chunk;

    private StandardInput standardInput;

    /** @throws UsageException when an option makes no sense */
    public RunContext context() {
        int count = threads == null ? Runtime.getRuntime().availableProcessors() : threads;
        if (count < 1 || count > 1_024) {
            throw new UsageException("--threads is a number from 1 to 1024");
        }
        MemoryBudget budget = memory == null ? MemoryBudget.ofThisProcess() : MemoryBudget.atMost(bytes(memory));
        // Whoever says how many gets so many.
        return new RunContext(TemporaryFolder.path(), budget, count, threads == null ? RunContext.USUAL_BYTES : 1);
    }

    private static long bytes(String size) {
        Matcher matcher = SIZE.matcher(size.strip());
        if (!matcher.matches()) {
            throw new UsageException("--memory " + size + ": write a size such as 200m or 4g");
        }
        int shift = switch (matcher.group(2).toLowerCase(Locale.ROOT)) {
            case "k" -> 10;
            case "m" -> 20;
            default -> 30;
        };
        long bytes = Long.parseLong(matcher.group(1)) << shift;
        if (bytes < LEAST_MEMORY) {
            throw new UsageException("--memory " + size + ": at least 1k is needed");
        }
        return bytes;
    }

    /** Opens the rows of a table; databases stay open until the command is through. */
    public Function<Table, TableSource> open(Terminal terminal) {
        return open(sessions(terminal), terminal);
    }

    /** Opens the rows of a table; those of a database in a session that is there already. */
    public Function<Table, TableSource> open(DatabaseSessions sessions, Terminal terminal) {
        if (chunk < 1) {
            throw new UsageException("--chunk is a number of bytes, at least 1");
        }
        StandardInput input = standardInput(terminal);
        return table -> RowSources.open(input.readable(table), chunk, sessions);
    }

    /** The rows that standard input may hold, the same for all of a run. */
    public StandardInput standardInput(Terminal terminal) {
        standardInput = standardInput == null ? new StandardInput(terminal) : standardInput;
        return standardInput;
    }

    /** The databases of the run, none of them connected to; they stay open until the command is through. */
    public DatabaseSessions sessions(Terminal terminal) {
        DatabaseSessions sessions = new DatabaseSessions(new AllowedDatabases(terminal));
        terminal.atEnd(sessions::close);
        return sessions;
    }
}
