package taxiomet.cli.conformance;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.PieceCheck;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.reports.csv.EvidenceFolder;
import taxiomet.reports.json.CheckJson;
import taxiomet.reports.json.Provenance;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.sources.RowSources;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.RunContext;
import taxiomet.work.Secret;

/** Pieces of tables, checked each in a state of its own, and brought together. */
final class Pieces {
    static final CheckOptions OPTIONS = new CheckOptions(Set.of(), 3, 20);
    private static final Secret SECRET = Secret.of(3, 5, 7, 11, 13, 17, 19, 23);
    private static final int MOST_PIECES = 7;

    private Pieces() {}

    static RunContext context(Path temporary, long memory, int threads) {
        return new RunContext(temporary, new MemoryBudget(memory), threads, 1).under(SECRET);
    }

    /** Writes the JSON document and the evidence of a check. */
    static void writeResult(CheckResult result, Path into) throws IOException {
        Files.createDirectories(into);
        EvidenceFolder.write(result, into, false);
        Provenance provenance = new Provenance("test", Instant.EPOCH, "charter.json");
        CheckJson.write(result, provenance, EvidenceFolder.fileNames(result), into.resolve("result.json"));
    }

    /** Cuts each table into some pieces, and writes the state of each into a folder; gives how many there are. */
    static int write(Charter charter, Path place, Random random, long bytes) throws IOException {
        int pieces = 0;
        for (Table table : charter.tables()) {
            try (SplittableSource source = (SplittableSource) RowSources.open(table)) {
                int wanted = 1 + random.nextInt(MOST_PIECES);
                List<Split> splits =
                        source.splits(Math.max(1, (source.bytes() == 0 ? bytes : source.bytes()) / wanted)).stream()
                                .map(split -> Split.parse(split.text()))
                                .toList();
                for (int number = 0; number < splits.size(); number++) {
                    Path file = place.resolve(table.name() + "." + number + ".state");
                    try (DataOutputStream out =
                            new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(file)))) {
                        PieceCheck.check(
                                charter,
                                OPTIONS,
                                table,
                                splits,
                                number,
                                source,
                                context(place, random.nextBoolean() ? 1 << 10 : 1 << 24, 1 + random.nextInt(3)),
                                value -> unchecked(() -> out.writeLong(value)));
                    }
                    pieces++;
                }
            }
        }
        return pieces;
    }

    private interface Writing {
        void run() throws IOException;
    }

    private static void unchecked(Writing writing) {
        try {
            writing.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    static List<Path> statesIn(Path place) throws IOException {
        try (Stream<Path> files = Files.list(place)) {
            return new ArrayList<>(files.filter(file -> file.toString().endsWith(".state"))
                    .sorted()
                    .toList());
        }
    }

    static CheckRun merge(Charter charter, List<Path> states, RunContext context) throws IOException {
        List<LongSupplier> suppliers = new ArrayList<>();
        List<DataInputStream> open = new ArrayList<>();
        for (Path state : states) {
            DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(state)));
            open.add(in);
            suppliers.add(() -> {
                long[] value = new long[1];
                unchecked(() -> value[0] = in.readLong());
                return value[0];
            });
        }
        try {
            return CheckRun.merge(charter, OPTIONS, RowSources::open, suppliers, context);
        } finally {
            for (DataInputStream in : open) {
                in.close();
            }
        }
    }

    /** What stands in the files of a folder. */
    static List<String> contents(Path folder) throws IOException {
        List<String> contents = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.sorted().toList()) {
                contents.add(file.getFileName() + ":\n" + Files.readString(file, StandardCharsets.UTF_8));
            }
        }
        return contents;
    }
}
