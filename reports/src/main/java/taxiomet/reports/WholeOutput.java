package taxiomet.reports;

import java.io.IOException;
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
import java.util.regex.Pattern;

/**
 * A file or folder that appears whole or not at all: it is written beside its place under another name, and takes its place at
 * the end. When the program is stopped before, what was written goes.
 */
public final class WholeOutput implements AutoCloseable {
    private static final String DRAFT = ".draft-";

    private final Path target;
    private final Path draft;
    private final Thread atExit;
    private boolean isDone;

    /** @param target where the output is to stand; its folder exists */
    public WholeOutput(Path target) {
        this.target = target.toAbsolutePath();
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

    /** Removes drafts of this output that a killed program left behind. */
    private void removeLeftOvers() {
        String prefix = draftPrefix();
        try (DirectoryStream<Path> beside = Files.newDirectoryStream(
                target.getParent(), file -> file.getFileName().toString().startsWith(prefix))) {
            for (Path draft : beside) {
                String process = draft.getFileName().toString().substring(prefix.length());
                if (process.matches("[0-9]{1,18}")
                        && ProcessHandle.of(Long.parseLong(process)).isEmpty()) {
                    removeQuietly(draft);
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            // What cannot be looked at stays.
            return;
        }
    }

    /** Where to write for now. */
    public Path draft() {
        return draft;
    }

    /** Puts the draft in its place; what stood there is gone afterwards. */
    public void complete() {
        Path old = target.resolveSibling(
                "." + target.getFileName() + ".old-" + ProcessHandle.current().pid());
        try {
            boolean replaces = Files.isDirectory(target, LinkOption.NOFOLLOW_LINKS);
            if (replaces) {
                Files.move(target, old);
            }
            try {
                Files.move(draft, target, StandardCopyOption.ATOMIC_MOVE);
            } catch (AtomicMoveNotSupportedException e) {
                Files.move(draft, target, StandardCopyOption.REPLACE_EXISTING);
            }
            isDone = true;
            if (replaces) {
                removeTree(old);
            }
        } catch (IOException e) {
            throw OutputException.of(target.toString(), e);
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
