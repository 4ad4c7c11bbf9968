package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charters.csvw.MetadataWriter;
import taxiomet.charters.yaml.CharterWriter;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.OutputException;

/** The file that {@code --write-charter} names. */
public final class CharterOutput {
    private static final String METADATA = "-metadata.json";

    private final Outputs outputs;
    private final Outputs.Place place;
    private final boolean isMetadata;

    /** Refuses, before anything is read, what could not be written afterwards. */
    public CharterOutput(Outputs outputs, String name) {
        isMetadata = name.endsWith(METADATA);
        if (!name.equals("-") && !isMetadata && !name.endsWith(".yaml") && !name.endsWith(".yml")) {
            throw new UsageException("--write-charter " + name
                    + ": a charter's name ends in .yaml, that of metadata in the W3C's words (CSVW) in " + METADATA);
        }
        this.outputs = outputs;
        this.place = outputs.place("--write-charter", name);
    }

    /** Writes the charter whole or not at all, with comments above the declarations that the keys lead to, and links that may be meant. */
    public void write(Charter charter, Map<List<String>, List<String>> comments, List<ForeignKey> perhaps) {
        // Paths in a charter from standard input start in the current folder, as they do in one from standard output.
        Path folder = place.isStandardOutput()
                ? Path.of("").toAbsolutePath()
                : place.file().toAbsolutePath().getParent();
        if (isMetadata) {
            MetadataWriter.Metadata metadata = MetadataWriter.write(charter, folder);
            place.write(file -> write(metadata.text(), file));
            outputs.leftOut("CSVW has no words for some of the charter, which is left out", metadata.leftOut());
            return;
        }
        place.write(file -> write(CharterWriter.write(charter, folder, comments, perhaps), file));
    }

    /**
     * Writes a charter into a file.
     *
     * @param folder where the charter is to stand in the end: paths start from there
     * @throws OutputException when it cannot be written
     */
    public static void write(Charter charter, Path folder, Map<List<String>, List<String>> comments, Path file) {
        write(CharterWriter.write(charter, folder, comments), file);
    }

    private static void write(String text, Path file) {
        try {
            Files.writeString(file, text);
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }
}
