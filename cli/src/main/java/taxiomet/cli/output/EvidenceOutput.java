package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
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
    private final boolean hasMark;

    /**
     * @param hasMark whether its CSV files begin with a byte order mark
     */
    public EvidenceOutput(Path folder, boolean isByOwner, boolean hasMark) {
        this.hasMark = hasMark;
        this.folder = folder;
        this.isByOwner = isByOwner;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    public void requireFree(Outputs outputs) {
        OutputFolder.requireFree(outputs, "--evidence", folder, "a result");
    }

    /**
     * Writes the folder, whole or not at all.
     *
     * @param kept by which a later result can be compared with it; empty where it cannot
     * @return what was written, in words
     */
    public String write(CheckResult result, Optional<KeptResult> kept, Provenance provenance) {
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
            return folder + OutputFolder.complete(output);
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
    }
}
