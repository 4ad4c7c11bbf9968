package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charters.Charters;
import taxiomet.check.CheckRun;
import taxiomet.sources.RowSources;
import taxiomet.work.RunContext;
import taxiomet.work.Secret;

/**
 * Random cases cut into pieces: each piece is checked in a state of its own, the states are written to files, read in another process and
 * brought together in any order, and give the same JSON and evidence, byte for byte, as a check of the whole.
 */
class PiecesTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 250);
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 77_000L);

    private static Charter charter(Path place) {
        try {
            return Charters.read(place.resolve("charter.json"), Optional.empty())
                    .charter();
        } catch (Exception e) {
            throw new IllegalStateException(place.toString(), e);
        }
    }

    /** The other process: merges the states in each of the folders named, in an order of its own. */
    static final class Merger {
        private Merger() {}

        public static void main(String[] folders) throws IOException {
            for (String folder : Files.readAllLines(Path.of(folders[0]))) {
                Path place = Path.of(folder);
                List<Path> states = Pieces.statesIn(place);
                Collections.shuffle(states, new Random(folder.hashCode()));
                try (CheckRun run = Pieces.merge(charter(place), states, Pieces.context(place, 1 << 24, 2))) {
                    Pieces.writeResult(run.result(), place.resolve("merged"));
                }
            }
        }
    }

    @Test
    void pieces_brought_together_elsewhere_give_the_result_of_the_whole(@TempDir Path folder) throws Exception {
        List<Path> places = new ArrayList<>();
        int pieces = 0;
        for (long seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
            Path place = Files.createDirectory(folder.resolve("case" + seed));
            CaseFiles.write(new RandomCase(seed), place);
            pieces += Pieces.write(charter(place), place, new Random(seed), 0);
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
            try (CheckRun whole = CheckRun.start(
                    charter(place), Pieces.OPTIONS, RowSources::open, Pieces.context(place, 1 << 24, 2))) {
                Pieces.writeResult(whole.result(), place.resolve("whole"));
            }
            assertThat(Pieces.contents(place.resolve("merged")))
                    .as("seed %s", place.getFileName())
                    .isEqualTo(Pieces.contents(place.resolve("whole")));
        }
        System.out.println("pieces: " + CASES + " cases from seed " + FIRST_SEED + ", " + pieces + " pieces");
        assertThat(pieces).isGreaterThan(CASES * 10);
    }

    @Test
    void states_that_do_not_belong_together_are_refused(@TempDir Path folder) throws Exception {
        CaseFiles.write(new RandomCase(1), folder);
        Pieces.write(charter(folder), folder, new Random(1), 0);
        List<Path> states = Pieces.statesIn(folder);
        RunContext context = Pieces.context(folder, 1 << 24, 1);
        assertThatThrownBy(() -> Pieces.merge(charter(folder), states.subList(1, states.size()), context))
                .hasMessageContaining("is missing");
        List<Path> twice = new ArrayList<>(states);
        twice.add(states.get(0));
        assertThatThrownBy(() -> Pieces.merge(charter(folder), twice, context)).hasMessageContaining("comes twice");
        assertThatThrownBy(() -> Pieces.merge(charter(folder), states, context.under(Secret.random())))
                .hasMessageContaining("under another secret");
        Path charter = folder.resolve("charter.json");
        Files.writeString(charter, Files.readString(charter).replaceFirst("\"t0\":", "\"tx\":"));
        Files.move(folder.resolve("t0.csv"), folder.resolve("tx.csv"));
        assertThatThrownBy(() -> Pieces.merge(charter(folder), states, context)).isInstanceOf(RuntimeException.class);
        byte[] other = Files.readAllBytes(states.get(0));
        other[7] = 9;
        Files.write(states.get(0), other);
        assertThatThrownBy(() -> Pieces.merge(charter(folder), Arrays.asList(states.get(0)), context))
                .isInstanceOf(RuntimeException.class);
    }
}
