package taxiomet.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.work.ContentHash;

/** The demo's data, and the copy of it that a user plays with. */
final class DemoFolder {
    /** Beside the copy: a line for each file, its digest and its name, so that a copy that was changed is known. */
    private static final String LIST = ".taxiomet-demo";

    private final Path original;

    /** @param original the folder that ships with the program */
    DemoFolder(Path original) {
        this.original = original;
    }

    /** How a folder stands to the demo. */
    enum State {
        ABSENT,
        UNTOUCHED,
        CHANGED,
        FOREIGN
    }

    State stateOf(Path copy) {
        try {
            if (!Files.exists(copy)) {
                return State.ABSENT;
            }
            if (!Files.isDirectory(copy) || !Files.isRegularFile(copy.resolve(LIST))) {
                return State.FOREIGN;
            }
            return listOf(copy).equals(Files.readString(copy.resolve(LIST))) ? State.UNTOUCHED : State.CHANGED;
        } catch (IOException e) {
            throw OutputException.of(copy.toString(), e);
        }
    }

    /** Puts a fresh copy in its place. */
    void copyTo(Path copy) {
        try (WholeOutput output = new WholeOutput(copy)) {
            for (Path file : files(original)) {
                Path target = output.draft().resolve(original.relativize(file).toString());
                Files.createDirectories(target.getParent());
                Files.copy(file, target);
            }
            Files.writeString(output.draft().resolve(LIST), listOf(output.draft()));
            output.complete();
        } catch (IOException e) {
            throw OutputException.of(copy.toString(), e);
        }
    }

    private static List<Path> files(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(file -> Files.isRegularFile(file)
                            && !file.getFileName().toString().equals(LIST))
                    .sorted()
                    .toList();
        }
    }

    private static String listOf(Path folder) throws IOException {
        StringBuilder list = new StringBuilder();
        for (Path file : files(folder)) {
            list.append(digestOf(file))
                    .append("  ")
                    .append(folder.relativize(file))
                    .append('\n');
        }
        return list.toString();
    }

    private static String digestOf(Path file) throws IOException {
        ContentHash hash = new ContentHash();
        hash.digest().update(file.getFileName().toString().getBytes(StandardCharsets.UTF_8));
        hash.digest().update(Files.readAllBytes(file));
        return hash.hex();
    }
}
