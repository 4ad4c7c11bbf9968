package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Severity;
import taxiomet.finding.FindingKind;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Partitions;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;

/** An index finds the same duplicates and the same missing keys in memory, on disk, and when it moves between the two. */
class KeyIndexTest {
    private static final long SEED = 20_261_124L;
    private static final int ROWS = 60_000;

    @TempDir
    private Path temporary;

    @ParameterizedTest
    @ValueSource(longs = {0, 200_000, 1L << 40})
    void duplicates_and_missing_keys_do_not_depend_on_memory(long budget) {
        Random random = new Random(SEED);
        int[] uses = new int[ROWS];
        long excess = 0;
        try (SpillFolder spill = new SpillFolder(temporary);
                FaultLog log = new FaultLog(spill, FindingKind.DUPLICATE, Severity.ERROR, "t", "k", List.of());
                KeyIndex index = new KeyIndex(spill, new MemoryBudget(budget))) {
            index.reportDuplicates(log);
            for (int row = 1; row <= ROWS; row++) {
                int key = random.nextInt(ROWS);
                excess += uses[key]++ > 0 ? 1 : 0;
                index.add(0, key, row);
            }
            index.seal();
            assertThat(index.canAnswer()).isEqualTo(budget > 1_000_000);
            Children children = new Children(spill);
            index.await(children);
            index.resolve();
            Set<Long> expected = new TreeSet<>();
            for (int key = 0; key < ROWS; key++) {
                if (uses[key] == 0) {
                    expected.add((long) key);
                }
            }
            assertThat(children.missing).isEqualTo(expected);
            assertThat(index.excess()).isEqualTo(excess);
            assertThat(log.size()).isEqualTo(excess + index.groups());
            assertGroupsStandTogether(log);
        }
    }

    private static void assertGroupsStandTogether(FaultLog log) {
        SortedSpool.Reader reader = log.read();
        List<Long> seen = new ArrayList<>();
        long first = 0;
        while (reader.next()) {
            if (reader.first() != first) {
                first = reader.first();
                assertThat(reader.second())
                        .as("the first row of a group names it")
                        .isEqualTo(first);
            }
            seen.add(reader.second());
        }
        assertThat(seen).doesNotHaveDuplicates();
    }

    /** Children with every key there could be. */
    private static final class Children implements KeyIndex.Probe {
        private final Partitions keys;
        private final Set<Long> missing = new TreeSet<>();

        Children(SpillFolder spill) {
            keys = new Partitions(spill);
            for (long key = 0; key < ROWS; key++) {
                keys.add(Partitions.of(KeyTable.hash(0, key)), 0, key, key);
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
