package taxiomet.reports;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * A file or folder that appears whole or not at all: it is written beside its place under another name, and takes its place at
 * the end. When the program is stopped before, what was written goes. A folder keeps the list of what was written into it.
 */
public final class WholeOutput implements AutoCloseable {
    private static final String DRAFT = ".draft-";
    private static final String OLD = ".old-";

    private final Path target;
    private final Path draft;
    private final Thread atExit;
    private boolean isDone;

    /** @param target where the output is to stand; its folder exists */
    public WholeOutput(Path target) {
        this.target = target.toAbsolutePath().normalize();
        recover(this.target);
        removeLeftOvers();
        this.draft = this.target.resolveSibling(
                draftPrefix() + ProcessHandle.current().pid());
        this.atExit = new Thread(() -> removeQuietly(draft));
        Runtime.getRuntime().addShutdownHook(atExit);
    }

    private String draftPrefix() {
        return "." + target.getFileName() + DRAFT;
    }

    /** The name of the output that a draft is for, wherever it stands in a path. */
    static String withoutDraft(String place) {
        return place.replaceFirst("\\.([^/\\\\]+)" + Pattern.quote(DRAFT) + "[0-9]+", "$1");
    }

    /**
     * Puts an output back that a program was about to replace when it was killed, between taking the old one out of the way and putting
     * the new one in its place. Where the new one stands, what this program wrote of the old one goes, and the rest comes back.
     */
    public static void recover(Path output) {
        Path target = output.toAbsolutePath().normalize();
        for (Path old : leftBehind(target, "." + target.getFileName() + OLD)) {
            try {
                if (!Files.exists(target, LinkOption.NOFOLLOW_LINKS)) {
                    Files.move(old, target);
                } else if (WrittenList.isIn(old) || others(old).isEmpty()) {
                    keepOthers(old, target);
                }
            } catch (IOException e) {
                throw new OutputException(
                        target.toString(),
                        "a program was killed while it replaced this, and what stood here before is now " + old,
                        "move it back");
            }
        }
    }

    /** Whether a folder was written by this program, whatever else somebody has laid there since. */
    public static boolean wrote(Path folder) {
        return WrittenList.isIn(folder);
    }

    /**
     * What stands in a folder that this program did not write, or that was changed since: paths in it.
     *
     * @throws OutputException when it cannot be looked at
     */
    public static List<String> others(Path folder) {
        try {
            WrittenList written = WrittenList.of(folder);
            List<String> others = new ArrayList<>();
            for (Path file : WrittenList.files(folder)) {
                if (!written.has(folder, file)) {
                    others.add(WrittenList.nameOf(folder, file));
                }
            }
            return others;
        } catch (IOException | UncheckedIOException e) {
            throw new OutputException(folder.toString(), "it cannot be looked through", "name another folder");
        }
    }

    /** Moves what is not of this program from the old folder into the new one, and removes the old one. */
    private static void keepOthers(Path old, Path target) throws IOException {
        for (String name : others(old)) {
            Path to = target.resolve(name);
            if (!Files.exists(to, LinkOption.NOFOLLOW_LINKS)) {
                Files.createDirectories(to.getParent());
                Files.move(old.resolve(name), to);
            }
        }
        // What stands in the way of one of the same name stays here.
        if (others(old).isEmpty()) {
            removeTree(old);
        }
    }

    /** Removes drafts of this output that a killed program left behind. */
    private void removeLeftOvers() {
        leftBehind(target, draftPrefix()).forEach(WholeOutput::removeQuietly);
    }

    /** What stands beside an output under a name of its own, followed by the number of a process that is no more. */
    private static List<Path> leftBehind(Path target, String prefix) {
        List<Path> left = new ArrayList<>();
        try (DirectoryStream<Path> beside = Files.newDirectoryStream(
                target.getParent(), file -> file.getFileName().toString().startsWith(prefix))) {
            for (Path file : beside) {
                String process = file.getFileName().toString().substring(prefix.length());
                if (process.matches("[0-9]{1,18}")
                        && ProcessHandle.of(Long.parseLong(process)).isEmpty()) {
                    left.add(file);
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            // What cannot be looked at stays.
            return List.of();
        }
        return left;
    }

    /** Where to write for now. */
    public Path draft() {
        return draft;
    }

    /**
     * Puts the draft in its place; a file that stood there is gone afterwards. Of a folder that goes which this program wrote; all else stays,
     * beside what is new.
     *
     * @return what stays, as paths in the folder
     * @throws OutputException when something that stays has the name of something new: then all is as it was
     */
    public List<String> complete() {
        Path old = target.resolveSibling(
                "." + target.getFileName() + OLD + ProcessHandle.current().pid());
        List<String> others = List.of();
        try {
            boolean replaces = Files.isDirectory(target, LinkOption.NOFOLLOW_LINKS);
            if (Files.isDirectory(draft)) {
                WrittenList.write(draft);
            }
            if (replaces) {
                others = others(target);
                requireRoom(others);
                Files.move(target, old);
            }
            try {
                Files.move(draft, target, StandardCopyOption.ATOMIC_MOVE);
            } catch (AtomicMoveNotSupportedException e) {
                Files.move(draft, target, StandardCopyOption.REPLACE_EXISTING);
            }
            isDone = true;
            if (replaces) {
                keepOthers(old, target);
            }
            return others;
        } catch (IOException e) {
            throw OutputException.of(target.toString(), e);
        }
    }

    private void requireRoom(List<String> others) {
        for (String name : others) {
            for (Path path = draft.resolve(name); !path.equals(draft); path = path.getParent()) {
                boolean isInTheWay = path.equals(draft.resolve(name))
                        ? Files.exists(path, LinkOption.NOFOLLOW_LINKS)
                        : Files.isRegularFile(path, LinkOption.NOFOLLOW_LINKS);
                if (isInTheWay) {
                    throw new OutputException(
                            target.resolve(name).toString(),
                            "it was changed since it was written, or somebody else laid it there, and would be replaced",
                            "move it away, or name another folder; nothing was written");
                }
            }
        }
    }

    @Override
    public void close() {
        if (!isDone) {
            removeQuietly(draft);
        }
        try {
            Runtime.getRuntime().removeShutdownHook(atExit);
        } catch (IllegalStateException e) {
            // The program is stopping: the hook does what is left to do.
            return;
        }
    }

    private static void removeQuietly(Path path) {
        try {
            removeTree(path);
        } catch (IOException e) {
            // The draft stays behind under its own name; there is nothing else to be done about it.
            return;
        }
    }

    /** Removes a file, or a folder with all that is in it; links are removed, not followed. */
    public static void removeTree(Path root) throws IOException {
        try {
            Files.walkFileTree(root, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                    Files.delete(file);
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult postVisitDirectory(Path folder, IOException e) throws IOException {
                    if (e != null) {
                        throw e;
                    }
                    Files.delete(folder);
                    return FileVisitResult.CONTINUE;
                }
            });
        } catch (NoSuchFileException e) {
            // It is gone already.
            return;
        }
    }
}
