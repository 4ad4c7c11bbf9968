package taxiomet.cli.settle;

import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.cli.trust.Settings;
import taxiomet.reports.OutputException;
import taxiomet.work.Secret;

/**
 * The key under which results are kept so that rows are known again in later ones: eight numbers in a file that only its owner can read. It
 * stands in the owner's own folder for settings, never in a result.
 */
public final class KeyFile {
    private static final String NAME = "history.key";
    private static final String HEAD =
            "# Under this key results are kept, and rows known again. Keep it to yourself, and keep it.";
    private static final int HEXADECIMAL = 16;
    private static final int MOST = 4_096;

    private final Path file;
    private boolean isNew;

    private KeyFile(Path file) {
        this.file = file;
    }

    /**
     * The file that was named, or the usual one.
     *
     * @param named null for none
     * @return empty where none was named, and nobody knows where the owner's folder is
     */
    public static Optional<KeyFile> of(Path named, Terminal terminal) {
        if (named != null) {
            return Optional.of(new KeyFile(named));
        }
        return Settings.folder(terminal).map(folder -> new KeyFile(folder.resolve(NAME)));
    }

    /** Its path. */
    public Path path() {
        return file;
    }

    /** Whether it was made when it was asked for. */
    public boolean isNew() {
        return isNew;
    }

    /**
     * The key; made when the file is not there.
     *
     * @throws UsageException when the file holds something else
     * @throws OutputException when it cannot be read or made
     */
    public Secret secret() {
        try {
            if (Files.notExists(file)) {
                make();
            }
            if (!Files.isRegularFile(file) || Files.size(file) > MOST) {
                throw new UsageException(file + " is no file of at most " + MOST + " bytes, as one with a key is");
            }
            return read(Files.readAllLines(file));
        } catch (MalformedInputException e) {
            throw notOne();
        } catch (NoSuchFileException e) {
            throw new OutputException(file.toString(), "there is no such file", "make its folder first");
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private void make() throws IOException {
        Path folder = file.toAbsolutePath().getParent();
        Files.createDirectories(folder);
        String digits = Arrays.stream(Secret.random().longs())
                .mapToObj(Long::toHexString)
                .collect(Collectors.joining(" "));
        Path draft = folder.resolve(
                "." + file.getFileName() + "." + ProcessHandle.current().pid());
        if (Files.getFileStore(folder).supportsFileAttributeView("posix")) {
            Files.createFile(draft, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        }
        try {
            Files.write(draft, List.of(HEAD, digits), StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING);
            // Whoever made it first meanwhile has made the one key.
            Files.createLink(file, draft);
            isNew = true;
        } catch (FileAlreadyExistsException e) {
            isNew = false;
        } catch (UnsupportedOperationException e) {
            Files.move(draft, file);
            isNew = true;
        } finally {
            Files.deleteIfExists(draft);
        }
    }

    private Secret read(List<String> lines) {
        try {
            long[] longs = lines.stream()
                    .filter(line -> !line.startsWith("#"))
                    .flatMap(line -> Arrays.stream(line.strip().split("\\s+")))
                    .filter(part -> !part.isEmpty())
                    .mapToLong(part -> Long.parseUnsignedLong(part, HEXADECIMAL))
                    .toArray();
            return Secret.of(longs);
        } catch (IllegalArgumentException e) {
            throw notOne();
        }
    }

    private UsageException notOne() {
        return new UsageException(
                file + " holds no key of results; name another with --key-file, or move it away to have one made");
    }
}
