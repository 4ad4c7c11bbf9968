package taxiomet.keys;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/** An index finds the same missing keys in memory, on disk, and when it moves between the two. */
class KeyIndexTest {
    private static final long SEED = 20_261_124L;
    private static final int ROWS = 60_000;

    @TempDir
    private Path temporary;

    @ParameterizedTest
    @ValueSource(longs = {0, 200_000, 1L << 40})
    void missing_keys_do_not_depend_on_memory(long budget) {
        Random random = new Random(SEED);
        // Far apart, so that they are kept as longs.
        long[] keys = random.longs(ROWS).toArray();
        try (SpillFolder spill = new SpillFolder(temporary, new MemoryBudget(1 << 20));
                KeyIndex index = new KeyIndex(spill, new MemoryBudget(budget), 1)) {
            boolean[] isParent = new boolean[ROWS];
            IntStream.range(0, ROWS).forEach(row -> isParent[row] = random.nextInt(3) > 0);
            index.add(new long[ROWS], keys, isParent, ROWS, row -> row);
            index.seal();
            assertThat(index.canAnswer()).isEqualTo(budget > 1_000_000);
            Children children = new Children(spill, keys);
            index.await(children);
            index.resolve();
            Set<Long> expected = new TreeSet<>();
            IntStream.range(0, ROWS).filter(row -> !isParent[row]).forEach(row -> expected.add((long) row));
            assertThat(children.missing).isEqualTo(expected);
        }
    }

    /** Children with every key there could be. */
    private static final class Children implements KeyIndex.Probe {
        private final Partitions keys;
        private final Set<Long> missing = new TreeSet<>();

        Children(SpillFolder spill, long[] all) {
            keys = new Partitions(spill);
            for (int row = 0; row < all.length; row++) {
                keys.add(Partitions.of(KeyTable.hash(0, all[row])), 0, all[row], row);
            }
        }

        @Override
        public Partitions keys() {
            return keys;
        }

        @Override
        public void missing(long high, long low, long ref) {
            missing.add(ref);
        }
    }
}
