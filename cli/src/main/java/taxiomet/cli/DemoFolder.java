package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;

/** The demo's data, and the copy of it that a user plays with. */
final class DemoFolder {
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
        WholeOutput.recover(copy);
        if (!Files.exists(copy)) {
            return State.ABSENT;
        } else if (!Files.isDirectory(copy) || !WholeOutput.wrote(copy)) {
            return State.FOREIGN;
        }
        return WholeOutput.others(copy).isEmpty() ? State.UNTOUCHED : State.CHANGED;
    }

    /**
     * Puts a fresh copy in its place.
     *
     * @return what stays of somebody else
     */
    List<String> copyTo(Path copy) {
        List<Path> files;
        try (Stream<Path> all = Files.walk(original)) {
            files = all.filter(Files::isRegularFile).sorted().toList();
        } catch (IOException e) {
            throw OutputException.of(original.toString(), e);
        }
        try (WholeOutput output = new WholeOutput(copy)) {
            for (Path file : files) {
                Path target = output.draft().resolve(original.relativize(file).toString());
                Files.createDirectories(target.getParent());
                Files.copy(file, target);
            }
            return output.complete();
        } catch (IOException e) {
            throw OutputException.of(copy.toString(), e);
        }
    }
}
