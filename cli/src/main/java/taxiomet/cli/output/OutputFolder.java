package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.rows.ColumnNames;

/** A folder that an option names, and that is written whole or not at all. */
final class OutputFolder {
    private OutputFolder() {}

    /**
     * Refuses, before anything is read, what could not be written afterwards.
     *
     * @param what stands in a folder that was written before
     */
    static void requireFree(Outputs outputs, String option, Path folder, String what) {
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
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        if (!WholeOutput.wrote(folder)) {
            throw new UsageException(
                    named + " holds other things than " + what + ", and is left alone; name a new folder");
        }
        outputs.replaces(option, folder);
        if (!outputs.isForced()) {
            throw new UsageException(named + " holds " + what + " already; name another folder, or add --force");
        }
    }

    /** Puts a folder in its place; tells in words what stays there of others. */
    static String complete(WholeOutput output) {
        List<String> others = output.complete();
        return others.isEmpty()
                ? ""
                : ", beside what it did not write or was changed since, and stays: " + ColumnNames.listed(others);
    }

    private static boolean isEmpty(Path folder) throws IOException {
        try (Stream<Path> content = Files.list(folder)) {
            return content.findAny().isEmpty();
        }
    }
}
