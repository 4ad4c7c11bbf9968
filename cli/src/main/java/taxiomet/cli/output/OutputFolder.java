package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;

/** A folder that an option names, and that is written whole or not at all. */
final class OutputFolder {
    private OutputFolder() {}

    /** Tells whether what stands in a folder was written by this program, so that nothing else is lost when it is replaced. */
    interface Recognition {
        boolean isOurs(Path folder) throws IOException;
    }

    /**
     * Refuses, before anything is read, what could not be written afterwards.
     *
     * @param what stands in a folder that was written before
     * @param isForced whether such a folder is replaced
     */
    static void requireFree(String option, Path folder, String what, Recognition recognition, boolean isForced) {
        Outputs.requireFolder(option, folder);
        WholeOutput.recover(folder);
        if (!Files.exists(folder)) {
            return;
        }
        String named = option + " " + folder;
        if (!Files.isDirectory(folder)) {
            throw new UsageException(named + " is a file, and should be a folder");
        }
        try {
            if (isEmpty(folder)) {
                return;
            }
            if (!recognition.isOurs(folder)) {
                throw new UsageException(
                        named + " holds other things than " + what + ", and is left alone; name a new folder");
            }
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        if (!isForced) {
            throw new UsageException(named + " holds " + what + " already; name another folder, or add --force");
        }
    }

    private static boolean isEmpty(Path folder) throws IOException {
        try (Stream<Path> content = Files.list(folder)) {
            return content.findAny().isEmpty();
        }
    }
}
