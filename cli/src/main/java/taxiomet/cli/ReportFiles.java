package taxiomet.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;

/** The files that {@code --report} names. */
final class ReportFiles {
    private final List<Path> files;
    private final List<String> endings;
    private final boolean isForced;

    /** Writes a report into a file that does not exist. */
    interface Writer {
        /** @param ending the ending of the report's name, with its point, in lower case */
        void write(String ending, Path file);
    }

    /**
     * @param endings those that a command can write, with their points, in lower case
     * @param isForced whether files that exist are replaced
     */
    ReportFiles(List<Path> files, List<String> endings, boolean isForced) {
        this.files = List.copyOf(files);
        this.endings = List.copyOf(endings);
        this.isForced = isForced;
    }

    private String endingOf(Path file) {
        String name =
                file.getFileName() == null ? "" : file.getFileName().toString().toLowerCase(Locale.ROOT);
        return endings.stream()
                .filter(name::endsWith)
                .findFirst()
                .orElseThrow(() -> new UsageException("--report " + file + ": the ending says the format; there "
                        + (endings.size() == 1 ? "is " : "are ") + String.join(" and ", endings)));
    }

    boolean isEmpty() {
        return files.isEmpty();
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    void requireFree() {
        Set<Path> places = new HashSet<>();
        for (Path file : files) {
            endingOf(file);
            if (!places.add(file.toAbsolutePath().normalize())) {
                throw new UsageException("--report " + file + " is named twice");
            }
            requireFree("--report", file, isForced);
        }
    }

    /** Refuses a file that could not be written, or that exists and is not to be replaced. */
    static void requireFree(String option, Path file, boolean isForced) {
        requireFolderOf(file);
        if (Files.isDirectory(file)) {
            throw new UsageException(option + " " + file + " is a folder");
        }
        if (Files.exists(file) && !isForced) {
            throw new UsageException(option + " " + file + " exists already; name another file, or add --force");
        }
    }

    static void requireFolderOf(Path output) {
        Path folder = output.toAbsolutePath().getParent();
        if (folder == null || !Files.isDirectory(folder)) {
            throw new UsageException(
                    "there is no folder " + folder + " to write " + output.getFileName() + " into; make it first");
        }
        if (!Files.isWritable(folder)) {
            throw new OutputException(
                    folder.toString(), "there is no permission to write into it", "name another place");
        }
    }

    /** Writes all of them, each whole or not at all. */
    void write(Writer writer) {
        for (Path file : files) {
            try (WholeOutput output = new WholeOutput(file)) {
                writer.write(endingOf(file), output.draft());
                output.complete();
            }
        }
    }
}
