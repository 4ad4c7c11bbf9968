package taxiomet.cli.settle;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import taxiomet.cli.terminal.UsageException;
import taxiomet.finding.KeptResult;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.json.HealthReader.NoResult;
import taxiomet.reports.json.KeptJson;
import taxiomet.reports.json.KeptReader;
import taxiomet.reports.json.Provenance;

/** Results that were kept: in a folder of evidence, or one file after the other in a history. */
public final class KeptFiles {
    private static final String ENDING = ".kept.json.gz";
    private static final DateTimeFormatter NAME =
            DateTimeFormatter.ofPattern("uuuu-MM-dd'T'HH-mm-ss", Locale.ROOT).withZone(ZoneOffset.UTC);

    private KeptFiles() {}

    /**
     * The results that a path names: a file, that of a folder of evidence, or all of a history, the earliest first.
     *
     * @throws UsageException when there are none
     */
    public static List<KeptResult> read(Path path) {
        if (Files.isRegularFile(path)) {
            return List.of(readFile(path));
        }
        if (!Files.isDirectory(path)) {
            throw new UsageException(path + ": there is no such file or folder");
        }
        Path ofEvidence = path.resolve(KeptJson.FILE);
        if (Files.isRegularFile(ofEvidence)) {
            return List.of(readFile(ofEvidence));
        }
        List<KeptResult> all = new ArrayList<>();
        for (Path file : files(path)) {
            all.add(readFile(file));
        }
        if (all.isEmpty()) {
            throw new UsageException(path + " holds no result; `taxiomet check --evidence DIR` writes one, and"
                    + " --keep-history DIR keeps one after the other");
        }
        all.sort(Comparator.comparing(KeptResult::made));
        return all;
    }

    private static List<Path> files(Path folder) {
        try (Stream<Path> content = Files.list(folder)) {
            return content.filter(file -> file.getFileName().toString().endsWith(ENDING))
                    .toList();
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
    }

    private static KeptResult readFile(Path file) {
        try {
            return KeptReader.read(file);
        } catch (NoResult e) {
            throw new UsageException(file + ": " + e.getMessage());
        }
    }

    /** Refuses, before anything is read, a folder that results could not be kept in. */
    public static void requireHistory(Path folder) {
        if (Files.isDirectory(folder)) {
            if (!Files.isWritable(folder)) {
                throw new OutputException(
                        folder.toString(), "there is no permission to write into it", "name another place");
            }
            return;
        }
        if (Files.exists(folder)) {
            throw new UsageException("--keep-history " + folder + " is a file, and should be a folder");
        }
    }

    /**
     * Keeps a result in a history, beside those that are there.
     *
     * @return the file
     */
    public static Path keep(KeptResult result, Path folder, Provenance provenance) {
        boolean isNew = Files.notExists(folder);
        try {
            Files.createDirectories(folder);
            String name = NAME.format(result.made());
            Path file = folder.resolve(name + ENDING);
            for (int i = 2; Files.exists(file); i++) {
                file = folder.resolve(name + "-" + i + ENDING);
            }
            try (WholeOutput output = new WholeOutput(file)) {
                KeptJson.write(result, provenance, output.draft());
                output.complete();
            }
            return file;
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        } finally {
            if (isNew) {
                removeEmpty(folder);
            }
        }
    }

    /** A folder that was made for what could not be written then. */
    private static void removeEmpty(Path folder) {
        try {
            Files.deleteIfExists(folder);
        } catch (IOException e) {
            // Something stands in it.
            return;
        }
    }

    /** The last of some results that was made before a moment; the last of all where none was. */
    public static KeptResult before(Instant moment, List<KeptResult> results) {
        return results.stream()
                .filter(result -> result.made().isBefore(moment))
                .reduce((one, other) -> other)
                .orElse(results.get(results.size() - 1));
    }
}
