package taxiomet.check.link;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.ToLongBiFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.spill.LongSpool;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Rings are the same in memory, on disk, and as a search from every row finds them. */
class RingsTest {
    @TempDir
    private Path temporary;

    /** The rows in rings, each with the first of its ring, and how many rings there are. */
    private static String written(long rings, Map<Long, Long> firstOf) {
        return rings + " " + firstOf;
    }

    private String found(long[][] edges, ToLongBiFunction<LongSpool, Rings.Found> finder) {
        TreeMap<Long, Long> firstOf = new TreeMap<>();
        try (SpillFolder spill = new SpillFolder(temporary, new MemoryBudget(0));
                LongSpool spool = new LongSpool(spill, 64)) {
            for (int row = 0; row < edges.length; row++) {
                spool.add(0);
                spool.add(edges[row][0]);
                spool.add(0);
                spool.add(edges[row][1]);
                spool.add(row);
            }
            long rings = finder.applyAsLong(
                    spool, (first, row) -> assertThat(firstOf.put(row, first)).isNull());
            return written(rings, firstOf);
        }
    }

    private String inMemory(long[][] edges) {
        return found(edges, Rings::inMemory);
    }

    private String onDisk(long[][] edges) {
        try (SpillFolder spill = new SpillFolder(temporary, new MemoryBudget(0))) {
            return found(edges, (spool, found) -> new RingsOnDisk(spill, found).find(spool));
        }
    }

    private static String bySearch(long[][] edges) {
        List<TreeSet<Long>> reached = new ArrayList<>();
        for (long[] edge : edges) {
            TreeSet<Long> keys = new TreeSet<>();
            List<Long> open = new ArrayList<>(List.of(edge[1]));
            while (!open.isEmpty()) {
                long key = open.remove(open.size() - 1);
                if (keys.add(key)) {
                    for (long[] next : edges) {
                        if (next[0] == key) {
                            open.add(next[1]);
                        }
                    }
                }
            }
            reached.add(keys);
        }
        TreeMap<Long, Long> firstOf = new TreeMap<>();
        for (int row = 0; row < edges.length; row++) {
            if (!reached.get(row).contains(edges[row][0])) {
                continue;
            }
            long first = row;
            for (int other = row - 1; other >= 0; other--) {
                boolean isSame = reached.get(row).contains(edges[other][0])
                        && reached.get(other).contains(edges[row][0]);
                first = isSame ? other : first;
            }
            firstOf.put((long) row, first);
        }
        return written(new TreeSet<>(firstOf.values()).size(), firstOf);
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, 0.05, 0.3})
    void of_random_rows_the_same_rings_are_found_in_every_way(double repeated) {
        Random random = new Random(20_261_127L);
        for (int round = 0; round < 150; round++) {
            int rows = 1 + random.nextInt(24);
            int ends = random.nextInt(3);
            long[][] edges = new long[rows][];
            for (int row = 0; row < rows; row++) {
                long own = row > 0 && random.nextDouble() < repeated ? random.nextInt(row) : row;
                edges[row] = new long[] {own, random.nextInt(rows + ends)};
            }
            String expected = bySearch(edges);
            assertThat(inMemory(edges)).as("round %d", round).isEqualTo(expected);
            assertThat(onDisk(edges)).as("round %d", round).isEqualTo(expected);
        }
    }

    @Test
    void long_chains_into_one_ring_and_into_none_are_told_apart() {
        int length = 3_000;
        long[][] edges = IntStream.range(0, 2 * length)
                .mapToObj(i -> new long[] {i, i + 1})
                .toArray(long[][]::new);
        assertThat(onDisk(edges)).isEqualTo("0 {}");
        edges[length - 1][1] = length - 700;
        assertThat(onDisk(edges))
                .isEqualTo(inMemory(edges))
                .startsWith("1 {2300=2300, 2301=2300,")
                .endsWith("2999=2300}");
    }

    @Test
    void repeated_keys_that_come_to_an_end_one_above_the_other_are_in_no_ring() {
        // Deeper than edges are taken out for their sake.
        long[][] edges = IntStream.range(0, 200)
                .mapToObj(i -> new long[] {i / 2, i / 2 + 1 + i % 2})
                .toArray(long[][]::new);
        assertThat(onDisk(edges)).isEqualTo("0 {}");
        edges[199][1] = 98;
        assertThat(onDisk(edges)).isEqualTo(inMemory(edges)).isEqualTo("1 {196=196, 199=196}");
    }

    @Test
    void a_check_without_memory_finds_the_rings_that_one_with_memory_finds() {
        Random random = new Random(5);
        String[] rows = IntStream.range(0, 4_000)
                .mapToObj(i -> i + "|" + (random.nextInt(400) == 0 ? "NULL" : "" + random.nextInt(4_000)))
                .toArray(String[]::new);
        TestTable ladder = table("s", "id integer", "up integer")
                .key("id")
                .link("su", "up -> s (id)")
                .with(TestTable::acyclic)
                .inBatchesOf(500)
                .rows(rows);
        List<String> with = TestTables.of(temporary, ladder).findings();
        List<String> without =
                TestTables.of(temporary, ladder).withMemory(0).withThreads(1).findings();
        assertThat(without).isEqualTo(with);
        assertThat(with.stream().collect(Collectors.joining())).startsWith("own ancestor at s.su: ");
    }
}
