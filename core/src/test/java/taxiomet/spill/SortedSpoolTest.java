package taxiomet.spill;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What goes into a spool comes out of it, in order, whether it stayed in memory or went to disk. */
class SortedSpoolTest {
    private static final long SEED = 20_261_124L;

    @TempDir
    private Path temporary;

    @Test
    void pairs_come_back_in_ascending_order_from_many_runs() throws Exception {
        Random random = new Random(SEED);
        List<long[]> pairs = new ArrayList<>();
        try (SpillFolder folder = new SpillFolder(temporary, new MemoryBudget(1 << 20));
                SortedSpool spool = new SortedSpool(folder)) {
            for (int i = 0; i < 300_000; i++) {
                long[] pair = {random.nextInt(50_000), random.nextLong()};
                pairs.add(pair);
                spool.add(pair[0], pair[1]);
            }
            pairs.sort((a, b) -> a[0] != b[0] ? Long.compare(a[0], b[0]) : Long.compare(a[1], b[1]));
            assertThat(spool.size()).isEqualTo(pairs.size());
            for (int pass = 0; pass < 2; pass++) {
                SortedSpool.Reader reader = spool.read();
                for (long[] pair : pairs) {
                    assertThat(reader.next()).isTrue();
                    assertThat(reader.first()).isEqualTo(pair[0]);
                    assertThat(reader.second()).isEqualTo(pair[1]);
                }
                assertThat(reader.next()).isFalse();
            }
            assertThat(entries()).isEqualTo(1);
        }
        assertThat(entries()).isZero();
    }

    @Test
    void folders_of_programs_that_were_killed_go_with_the_next_use() throws Exception {
        Path left = Files.createDirectory(temporary.resolve("taxiomet-spill-999999999-x"));
        Files.writeString(left.resolve("1"), "left behind");
        Path foreign = Files.createDirectory(temporary.resolve("taxiomet-spill-notes"));
        try (SpillFolder folder = new SpillFolder(temporary, new MemoryBudget(1 << 20));
                LongSpool spool = new LongSpool(folder, 2)) {
            for (int i = 0; i < 10; i++) {
                spool.add(i);
            }
            assertThat(left).doesNotExist();
        }
        assertThat(foreign).exists();
    }

    private long entries() throws Exception {
        try (Stream<Path> all = Files.list(temporary)) {
            return all.count();
        }
    }
}
