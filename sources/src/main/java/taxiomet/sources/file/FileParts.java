package taxiomet.sources.file;

import java.io.EOFException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileSystemException;
import java.nio.file.FileSystemLoopException;
import java.nio.file.FileVisitOption;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.List;
import java.util.Set;
import java.util.regex.PatternSyntaxException;
import java.util.stream.Stream;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.rows.SourceException;

/** Finds the files of a table. */
public final class FileParts {
    private static final String GLOB_CHARACTERS = "*?[{";
    private static final Set<String> KERNEL =
            Set.of("proc", "sysfs", "debugfs", "tracefs", "securityfs", "cgroup", "cgroup2", "configfs", "devtmpfs");

    private FileParts() {}

    /**
     * The file that a path names, or the files that a glob names, in the order of their names.
     *
     * @throws SourceException when there is none, or one that is no readable file
     */
    public static List<Path> find(Path folder, String path) {
        if (DatabaseAddress.isOne(path)) {
            throw new SourceException(DatabaseAddress.masked(path), DatabaseAddress.PROBLEM, DatabaseAddress.REMEDY);
        }
        try {
            boolean isGlob = path.chars().anyMatch(c -> GLOB_CHARACTERS.indexOf(c) >= 0);
            // A file may have a bracket in its name.
            if (isGlob && !Files.exists(folder.resolve(path))) {
                return glob(folder, path);
            }
            Path file = folder.resolve(path);
            requireFile(file);
            return List.of(file);
        } catch (InvalidPathException e) {
            throw new SourceException(path, "this is no path (" + e.getReason() + ")", "correct it in the charter");
        }
    }

    private static List<Path> glob(Path folder, String pattern) {
        int firstGlob = 0;
        while (GLOB_CHARACTERS.indexOf(pattern.charAt(firstGlob)) < 0) {
            firstGlob++;
        }
        int slash = pattern.lastIndexOf('/', firstGlob);
        Path base = slash < 0 ? folder : folder.resolve(pattern.substring(0, slash + 1));
        String rest = pattern.substring(slash + 1);
        int depth = rest.contains("**")
                ? Integer.MAX_VALUE
                : (int) rest.chars().filter(c -> c == '/').count() + 1;
        if (!Files.isDirectory(base)) {
            throw new SourceException(base.toString(), "there is no such folder", "correct the path in the charter");
        }
        List<Path> files;
        try (Stream<Path> walk = Files.walk(base, depth, FileVisitOption.FOLLOW_LINKS)) {
            PathMatcher matcher = base.getFileSystem().getPathMatcher("glob:" + rest);
            files = walk.filter(file -> matcher.matches(base.relativize(file)) && !Files.isDirectory(file))
                    .sorted()
                    .toList();
        } catch (PatternSyntaxException e) {
            throw new SourceException(
                    pattern, "this is no glob (" + e.getDescription() + ")", "correct it in the charter");
        } catch (UncheckedIOException e) {
            throw unreadable(base, e.getCause());
        } catch (IOException e) {
            throw unreadable(base, e);
        }
        if (files.isEmpty()) {
            throw new SourceException(
                    folder.resolve(pattern).toString(), "no file has such a name", "correct the path in the charter");
        }
        files.forEach(FileParts::requireFile);
        return files;
    }

    public static void requireFile(Path file) {
        if (Files.isDirectory(file)) {
            throw new SourceException(
                    file.toString(),
                    "this is a folder, not a file",
                    "name the file, or a glob such as " + file + "/*" + ending(file));
        }
        try {
            Path real = file.toRealPath();
            if (!Files.isRegularFile(real) || isOfKernel(real)) {
                throw new SourceException(
                        file.toString(),
                        "this is no ordinary file",
                        "write the rows to a file first; they are read more than once");
            }
            if (!Files.isReadable(real)) {
                throw new SourceException(file.toString(), "there is no permission to read it", "ask its owner for it");
            }
        } catch (IOException e) {
            throw unreadable(file, e);
        }
    }

    /** The ending that files in a folder probably have: that of the folder itself, as of tables in parts. */
    private static String ending(Path folder) {
        String name = String.valueOf(folder.getFileName());
        int dot = name.lastIndexOf('.');
        return dot > 0 ? name.substring(dot) : ".csv";
    }

    /** The message for a file that cannot be read. */
    public static SourceException unreadable(Path file, IOException cause) {
        if (cause instanceof NoSuchFileException) {
            return new SourceException(file.toString(), "there is no such file", "correct the path in the charter");
        }
        if (cause instanceof FileSystemLoopException) {
            return new SourceException(file.toString(), "symbolic links lead round in a circle", "mend the links");
        }
        return new SourceException(file.toString(), "it cannot be read (" + reason(cause) + ")", "");
    }

    /** What went wrong, in a few words. */
    public static String reason(Throwable cause) {
        if (cause instanceof EOFException || cause.getCause() instanceof EOFException) {
            return "it ends too early: it was cut short";
        }
        if (cause instanceof FileSystemException f && f.getReason() != null) {
            return f.getReason();
        }
        return cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
    }

    /** Whether a file that looks like an ordinary one is a kernel's: it has no size, and may have no end. */
    private static boolean isOfKernel(Path file) throws IOException {
        return Files.size(file) == 0 && KERNEL.contains(Files.getFileStore(file).type());
    }
}
