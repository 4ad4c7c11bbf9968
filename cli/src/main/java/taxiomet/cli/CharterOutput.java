package taxiomet.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.charters.yaml.CharterWriter;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;

/** The file that {@code --write-charter} names. */
final class CharterOutput {
    private final Path file;
    private final boolean isForced;

    /** @param isForced whether a file that exists is replaced */
    CharterOutput(Path file, boolean isForced) {
        this.file = file;
        this.isForced = isForced;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    void requireFree() {
        if (!file.toString().endsWith(".yaml") && !file.toString().endsWith(".yml")) {
            throw new UsageException("--write-charter " + file + ": a charter's name ends in .yaml");
        }
        ReportFiles.requireFree("--write-charter", file, isForced);
    }

    /** Writes the charter whole or not at all, with comments above the declarations that the keys lead to. */
    void write(Charter charter, Map<List<String>, List<String>> comments) {
        try (WholeOutput output = new WholeOutput(file)) {
            Path folder = file.toAbsolutePath().getParent();
            Files.writeString(output.draft(), CharterWriter.write(charter, folder, comments));
            output.complete();
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }
}
