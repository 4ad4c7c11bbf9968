package taxiomet.cli;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import taxiomet.finding.CheckResult;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.csv.CsvReport;
import taxiomet.reports.csv.EvidenceFolder;
import taxiomet.reports.json.JsonReport;

/** The files and the folder that a result is written to. */
final class ResultOutputs {
    /** The result itself in a folder of evidence; a folder without it is none of ours. */
    private static final String RESULT_FILE = "result.json";

    private final List<Path> reports;
    private final Path evidence;
    private final boolean isByOwner;
    private final boolean isForced;

    /** @param evidence null for none */
    ResultOutputs(List<Path> reports, Path evidence, boolean isByOwner, boolean isForced) {
        this.reports = reports;
        this.evidence = evidence;
        this.isByOwner = isByOwner;
        this.isForced = isForced;
    }

    private static boolean endsWith(Path file, String ending) {
        return file.getFileName() != null
                && file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(ending);
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    void requireFree() {
        Set<Path> places = new HashSet<>();
        for (Path report : reports) {
            if (!endsWith(report, ".json") && !endsWith(report, ".csv")) {
                throw new UsageException(
                        "--report " + report + ": the ending says the format; there are .json and .csv");
            }
            if (!places.add(report.toAbsolutePath().normalize())) {
                throw new UsageException("--report " + report + " is named twice");
            }
            requireFolderOf(report);
            if (Files.isDirectory(report)) {
                throw new UsageException("--report " + report + " is a folder");
            }
            if (Files.exists(report) && !isForced) {
                throw new UsageException("--report " + report + " exists already; name another file, or add --force");
            }
        }
        if (evidence != null) {
            requireFreeFolder();
        }
    }

    private static void requireFolderOf(Path output) {
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

    private void requireFreeFolder() {
        requireFolderOf(evidence);
        if (!Files.exists(evidence)) {
            return;
        }
        if (!Files.isDirectory(evidence)) {
            throw new UsageException("--evidence " + evidence + " is a file, and should be a folder");
        }
        try {
            if (isEmpty(evidence)) {
                return;
            }
            if (!holdsOnlyAResult(evidence)) {
                throw new UsageException("--evidence " + evidence
                        + " holds other things than a result, and is left alone; name a new folder");
            }
        } catch (IOException e) {
            throw OutputException.of(evidence.toString(), e);
        }
        if (!isForced) {
            throw new UsageException(
                    "--evidence " + evidence + " holds a result already; name another folder, or add --force");
        }
    }

    private static boolean isEmpty(Path folder) throws IOException {
        try (Stream<Path> content = Files.list(folder)) {
            return content.findAny().isEmpty();
        }
    }

    /** Whether all in a folder was written by this program, so that nothing else is lost when it is replaced. */
    private static boolean holdsOnlyAResult(Path folder) throws IOException {
        if (!Files.isRegularFile(folder.resolve(RESULT_FILE))) {
            return false;
        }
        try (Stream<Path> content = Files.walk(folder, 2)) {
            return content.allMatch(file -> Files.isDirectory(file)
                    || file.equals(folder.resolve(RESULT_FILE))
                    || EvidenceFolder.isFileName(file.getFileName().toString()));
        }
    }

    /** Writes all of them, each whole or not at all. */
    void write(CheckResult result) {
        for (Path report : reports) {
            try (WholeOutput output = new WholeOutput(report)) {
                if (endsWith(report, ".json")) {
                    writeJson(result, List.of(), output.draft());
                } else {
                    CsvReport.write(result, output.draft());
                }
                output.complete();
            }
        }
        if (evidence != null) {
            writeEvidence(result);
        }
    }

    private void writeEvidence(CheckResult result) {
        try (WholeOutput output = new WholeOutput(evidence)) {
            Files.createDirectory(output.draft());
            if (isByOwner) {
                EvidenceFolder.writeByOwner(result, output.draft());
            } else {
                EvidenceFolder.write(result, output.draft());
            }
            writeJson(result, EvidenceFolder.fileNames(result), output.draft().resolve(RESULT_FILE));
            output.complete();
        } catch (IOException e) {
            throw OutputException.of(evidence.toString(), e);
        }
    }

    private static void writeJson(CheckResult result, List<String> evidenceFiles, Path file) {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
            JsonReport.write(result, evidenceFiles, out);
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }
}
