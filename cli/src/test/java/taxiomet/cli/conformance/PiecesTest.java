package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

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
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.LongSupplier;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;
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

/**
 * Random cases cut into pieces: each piece is checked in a state of its own, the states are written to files, read in another process and
 * brought together in any order, and give the same JSON and evidence, byte for byte, as a check of the whole.
 */
class PiecesTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 400);
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 77_000L);
    private static final CheckOptions OPTIONS = new CheckOptions(Set.of(), 3, 20);
    private static final Secret SECRET = Secret.of(3, 5, 7, 11, 13, 17, 19, 23);
    private static final int MOST_PIECES = 7;

    private static RunContext context(Path temporary, long memory, int threads) {
        return new RunContext(temporary, new MemoryBudget(memory), threads, 1).under(SECRET);
    }

    private static Charter charter(Path place) {
        try {
            return Charters.read(place.resolve("charter.json"), Optional.empty())
                    .charter();
        } catch (Exception e) {
            throw new IllegalStateException(place.toString(), e);
        }
    }

    private static void writeResult(CheckResult result, Path into) throws IOException {
        Files.createDirectories(into);
        EvidenceFolder.write(result, into);
        Provenance provenance = new Provenance("test", Instant.EPOCH, "charter.json");
        CheckJson.write(result, provenance, EvidenceFolder.fileNames(result), into.resolve("result.json"));
    }

    private static int writePieces(Path place, Random random) throws IOException {
        Charter charter = charter(place);
        int pieces = 0;
        for (Table table : charter.tables()) {
            try (SplittableSource source = (SplittableSource) RowSources.open(table)) {
                int wanted = 1 + random.nextInt(MOST_PIECES);
                List<Split> splits = source.splits(Math.max(1, source.bytes() / wanted)).stream()
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

    private static List<Path> statesIn(Path place) throws IOException {
        try (Stream<Path> files = Files.list(place)) {
            return new ArrayList<>(files.filter(file -> file.toString().endsWith(".state"))
                    .sorted()
                    .toList());
        }
    }

    private static CheckRun merge(Path place, List<Path> states, RunContext context) throws IOException {
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
            return CheckRun.merge(charter(place), OPTIONS, RowSources::open, suppliers, context);
        } finally {
            for (DataInputStream in : open) {
                in.close();
            }
        }
    }

    /** The other process: merges the states in each of the folders named, in an order of its own. */
    static final class Merger {
        private Merger() {}

        public static void main(String[] folders) throws IOException {
            for (String folder : Files.readAllLines(Path.of(folders[0]))) {
                Path place = Path.of(folder);
                List<Path> states = statesIn(place);
                Collections.shuffle(states, new Random(folder.hashCode()));
                try (CheckRun run = merge(place, states, context(place, 1 << 24, 2))) {
                    writeResult(run.result(), place.resolve("merged"));
                }
            }
        }
    }

    private static List<String> contents(Path folder) throws IOException {
        List<String> contents = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.sorted().toList()) {
                contents.add(file.getFileName() + ":\n" + Files.readString(file, StandardCharsets.UTF_8));
            }
        }
        return contents;
    }

    @Test
    void pieces_brought_together_elsewhere_give_the_result_of_the_whole(@TempDir Path folder) throws Exception {
        List<Path> places = new ArrayList<>();
        int pieces = 0;
        for (long seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
            Path place = Files.createDirectory(folder.resolve("case" + seed));
            CaseFiles.write(new RandomCase(seed), place);
            pieces += writePieces(place, new Random(seed));
            places.add(place);
        }
        Path list = folder.resolve("places.txt");
        Files.write(list, places.stream().map(Path::toString).toList());
        Process merger = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        Merger.class.getName(),
                        list.toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("merger.log").toFile())
                .start();
        assertThat(merger.waitFor(5, TimeUnit.MINUTES)).isTrue();
        assertThat(merger.exitValue())
                .as(Files.readString(folder.resolve("merger.log")))
                .isZero();
        for (Path place : places) {
            try (CheckRun whole =
                    CheckRun.start(charter(place), OPTIONS, RowSources::open, context(place, 1 << 24, 2))) {
                writeResult(whole.result(), place.resolve("whole"));
            }
            assertThat(contents(place.resolve("merged")))
                    .as("seed %s", place.getFileName())
                    .isEqualTo(contents(place.resolve("whole")));
        }
        System.out.println("pieces: " + CASES + " cases from seed " + FIRST_SEED + ", " + pieces + " pieces");
        assertThat(pieces).isGreaterThan(CASES * 10);
    }

    @Test
    void states_that_do_not_belong_together_are_refused(@TempDir Path folder) throws Exception {
        CaseFiles.write(new RandomCase(1), folder);
        writePieces(folder, new Random(1));
        List<Path> states = statesIn(folder);
        RunContext context = context(folder, 1 << 24, 1);
        assertThatThrownBy(() -> merge(folder, states.subList(1, states.size()), context))
                .hasMessageContaining("is missing");
        List<Path> twice = new ArrayList<>(states);
        twice.add(states.get(0));
        assertThatThrownBy(() -> merge(folder, twice, context)).hasMessageContaining("comes twice");
        assertThatThrownBy(() -> merge(folder, states, context.under(Secret.random())))
                .hasMessageContaining("under another secret");
        Path charter = folder.resolve("charter.json");
        Files.writeString(charter, Files.readString(charter).replaceFirst("\"t0\":", "\"tx\":"));
        Files.move(folder.resolve("t0.csv"), folder.resolve("tx.csv"));
        assertThatThrownBy(() -> merge(folder, states, context)).isInstanceOf(RuntimeException.class);
        byte[] other = Files.readAllBytes(states.get(0));
        other[7] = 9;
        Files.write(states.get(0), other);
        assertThatThrownBy(() -> merge(folder, Arrays.asList(states.get(0)), context))
                .isInstanceOf(RuntimeException.class);
    }
}
