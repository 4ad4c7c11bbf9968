package taxiomet.spill;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A private folder for temporary files, made when the first of them is needed. It goes when it is closed, when the
 * program is told to stop, and, after a kill, when the next one opens.
 */
public final class SpillFolder implements AutoCloseable {
    private static final String PREFIX = "taxiomet-spill-";
    private static final Pattern NAME = Pattern.compile(PREFIX + "(\\d+)-.*");

    private static final int MOST_BUFFERED = 1_536;
    /** A multiple of the lengths of records, which are never torn apart. */
    private static final int LEAST_BUFFERED = 6;

    /** With this much there may be many rows: the places of very short runs would take more memory than the runs. */
    private static final int BUDGET_FOR_MANY_ROWS = 1 << 19;

    private static final int LEAST_BUFFERED_OF_MANY = 48;

    /** A partition's share of the memory budget: many checks have 256 partitions each. */
    private static final int SHARES = 1 << 17;

    private final Path parent;
    private final int bufferedLongs;
    private final Thread atExit = new Thread(this::remove);
    private final AtomicInteger names = new AtomicInteger();
    private Path folder;

    /**
     * @param parent an existing folder
     * @param budget what memory there is: where it is small, less is kept before it goes to a file
     */
    public SpillFolder(Path parent, MemoryBudget budget) {
        this.parent = parent;
        int least = budget.limit() < BUDGET_FOR_MANY_ROWS ? LEAST_BUFFERED : LEAST_BUFFERED_OF_MANY;
        long share = Math.max(least, Math.min(MOST_BUFFERED, budget.limit() / SHARES));
        this.bufferedLongs = (int) (share / LEAST_BUFFERED * LEAST_BUFFERED);
        try {
            removeLeftOvers();
        } catch (IOException | DirectoryIteratorException e) {
            // Whoever needs the folder will be told what is wrong with it.
            return;
        }
    }

    /** How many longs a partition keeps in memory before they go to a file. */
    int bufferedLongs() {
        return bufferedLongs;
    }

    /** A new file, open for writing and reading; it is gone when its channel is closed. */
    synchronized FileChannel newFile() {
        try {
            if (folder == null) {
                folder = Files.createTempDirectory(
                        parent, PREFIX + ProcessHandle.current().pid() + "-");
                Runtime.getRuntime().addShutdownHook(atExit);
            }
            return FileChannel.open(
                    folder.resolve(Integer.toString(names.incrementAndGet())),
                    StandardOpenOption.CREATE_NEW,
                    StandardOpenOption.READ,
                    StandardOpenOption.WRITE,
                    StandardOpenOption.DELETE_ON_CLOSE);
        } catch (IOException e) {
            throw new SpillException(parent, e);
        }
    }

    Path place() {
        return parent;
    }

    /** Folders of programs that were killed. */
    private void removeLeftOvers() throws IOException {
        try (DirectoryStream<Path> all = Files.newDirectoryStream(parent, PREFIX + "*")) {
            for (Path left : all) {
                Matcher name = NAME.matcher(left.getFileName().toString());
                Optional<ProcessHandle> owner =
                        name.matches() ? ProcessHandle.of(Long.parseLong(name.group(1))) : Optional.empty();
                if (name.matches() && owner.isEmpty() && Files.isDirectory(left)) {
                    removeTree(left);
                }
            }
        }
    }

    private static void removeTree(Path folder) {
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder)) {
            for (Path file : files) {
                Files.deleteIfExists(file);
            }
            Files.deleteIfExists(folder);
        } catch (IOException e) {
            // It belongs to someone else, or is going already: not ours to mend.
            return;
        }
    }

    private synchronized void remove() {
        if (folder != null) {
            removeTree(folder);
            folder = null;
        }
    }

    @Override
    public void close() {
        boolean wasMade;
        synchronized (this) {
            wasMade = folder != null;
        }
        remove();
        if (wasMade) {
            try {
                Runtime.getRuntime().removeShutdownHook(atExit);
            } catch (IllegalStateException e) {
                // The program is stopping: the hook runs, and finds nothing left to do.
                return;
            }
        }
    }
}
