package taxiomet.check.rule;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/** Parents are found by their keys: each different one, as far as they are looked at. */
class ParentRecordsTest {
    private static final int MOST = 3;

    @TempDir
    private Path folder;

    private List<List<Long>> found(List<long[]> records, long high, long low) {
        List<List<Long>> found = new ArrayList<>();
        try (SpillFolder spill = new SpillFolder(folder, MemoryBudget.atMost(1 << 20));
                Partitions partitions = new Partitions(spill)) {
            records.forEach(record -> partitions.addRecord(0, record));
            try (ParentRecords parents = new ParentRecords(partitions.read(0), MOST)) {
                for (int at = parents.first(high, low); at != 0; at = parents.next(at)) {
                    found.add(Arrays.stream(parents.longs(), parents.start(at), parents.end(at))
                            .boxed()
                            .toList());
                }
            }
        }
        return found;
    }

    @Test
    void each_key_has_its_own_records_and_equal_ones_once() {
        List<long[]> records = List.of(
                new long[] {1, 2, 10},
                new long[] {1, 3, 11},
                new long[] {1, 2, 10},
                new long[] {1, 2, 12, 13},
                new long[] {2, 1});
        assertThat(found(records, 1, 2)).containsExactly(List.of(1L, 2L, 10L), List.of(1L, 2L, 12L, 13L));
        assertThat(found(records, 2, 1)).containsExactly(List.of(2L, 1L));
        assertThat(found(records, 3, 3)).isEmpty();
        assertThat(found(List.of(), 1, 2)).isEmpty();
    }

    @Test
    void one_more_than_are_looked_at_is_kept_so_that_there_are_too_many() {
        List<long[]> records = new ArrayList<>();
        for (long i = 0; i < 50; i++) {
            records.add(new long[] {0, 0, i});
        }
        assertThat(found(records, 0, 0)).hasSize(MOST + 1);
    }

    @Test
    void thousands_of_keys_find_theirs() {
        List<long[]> records = new ArrayList<>();
        for (long i = 0; i < 5_000; i++) {
            records.add(new long[] {i, -i, i * 7});
        }
        assertThat(found(records, 4_321, -4_321)).containsExactly(List.of(4_321L, -4_321L, 4_321L * 7));
    }
}
