package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;
import taxiomet.finding.CheckResult;
import taxiomet.finding.KeptResult;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.csv.EvidenceFolder;
import taxiomet.reports.json.CheckJson;
import taxiomet.reports.json.KeptJson;
import taxiomet.reports.json.Provenance;

/** The folder that {@code --evidence} names. */
public final class EvidenceOutput {
    /** The result itself in a folder of evidence; a folder without it is none of ours. */
    private static final String RESULT_FILE = "result.json";

    private final Path folder;
    private final boolean isByOwner;
    private final boolean isForced;
    private final boolean hasMark;

    /**
     * @param isForced whether a result that stands there is replaced
     * @param hasMark whether its CSV files begin with a byte order mark
     */
    public EvidenceOutput(Path folder, boolean isByOwner, boolean isForced, boolean hasMark) {
        this.hasMark = hasMark;
        this.folder = folder;
        this.isByOwner = isByOwner;
        this.isForced = isForced;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    public void requireFree() {
        OutputFolder.requireFree("--evidence", folder, "a result", EvidenceOutput::holdsOnlyAResult, isForced);
    }

    /** Whether all in a folder was written by this program, so that nothing else is lost when it is replaced. */
    private static boolean holdsOnlyAResult(Path folder) throws IOException {
        if (!Files.isRegularFile(folder.resolve(RESULT_FILE))) {
            return false;
        }
        try (Stream<Path> content = Files.walk(folder, 2)) {
            return content.allMatch(file -> Files.isDirectory(file)
                    || file.equals(folder.resolve(RESULT_FILE))
                    || file.equals(folder.resolve(KeptJson.FILE))
                    || EvidenceFolder.isFileName(file.getFileName().toString()));
        }
    }

    /**
     * Writes the folder, whole or not at all.
     *
     * @param kept by which a later result can be compared with it; empty where it cannot
     */
    public void write(CheckResult result, Optional<KeptResult> kept, Provenance provenance) {
        try (WholeOutput output = new WholeOutput(folder)) {
            Files.createDirectory(output.draft());
            if (isByOwner) {
                EvidenceFolder.writeByOwner(result, output.draft(), hasMark);
            } else {
                EvidenceFolder.write(result, output.draft(), hasMark);
            }
            CheckJson.write(
                    result,
                    provenance,
                    EvidenceFolder.fileNames(result),
                    output.draft().resolve(RESULT_FILE));
            kept.ifPresent(all -> KeptJson.write(all, provenance, output.draft().resolve(KeptJson.FILE)));
            output.complete();
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
    }
}
