package taxiomet.spill;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Spools give back what they took, in memory and on disk; a budget never gives more than it has. */
class SpoolsTest {
    @TempDir
    private Path temporary;

    private long filesLeft() throws IOException {
        try (Stream<Path> files = Files.walk(temporary)) {
            return files.filter(Files::isRegularFile).count();
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 100, 50_000})
    void longs_come_back_in_the_order_written(int count) throws IOException {
        Random random = new Random(count);
        List<Long> all = new ArrayList<>();
        try (SpillFolder folder = new SpillFolder(temporary, new MemoryBudget(0));
                LongSpool spool = new LongSpool(folder, 64)) {
            for (int i = 0; i < count; i++) {
                long value = i % 7 == 0 ? Long.MIN_VALUE + i : random.nextLong();
                all.add(value);
                spool.add(value);
            }
            assertThat(spool.size()).isEqualTo(count);
            for (int pass = 0; pass < 2; pass++) {
                LongSpool.Reader reader = spool.read();
                List<Long> read = new ArrayList<>();
                while (reader.hasNext()) {
                    read.add(reader.next());
                }
                assertThat(read).isEqualTo(all);
            }
        }
        assertThat(filesLeft()).isZero();
    }

    @Test
    void records_come_back_from_the_partition_that_took_them() {
        try (SpillFolder folder = new SpillFolder(temporary, new MemoryBudget(0));
                Partitions partitions = new Partitions(folder)) {
            for (int i = 0; i < 5_000; i++) {
                partitions.addRecord(i % Partitions.COUNT, new long[] {i, -i, i * 3L});
            }
            partitions.addRecord(3, new long[0]);
            int records = 0;
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                LongSpool.Reader reader = partitions.read(partition);
                while (reader.hasNext()) {
                    long[] record = Partitions.nextRecord(reader);
                    if (record.length > 0) {
                        assertThat(record[0] % Partitions.COUNT).isEqualTo(partition);
                        assertThat(record[1]).isEqualTo(-record[0]);
                    }
                    records++;
                }
            }
            assertThat(records).isEqualTo(5_001);
        }
    }

    @Test
    void hashes_fall_into_every_partition() {
        Random random = new Random(1);
        boolean[] isHit = new boolean[Partitions.COUNT];
        for (int i = 0; i < 20_000; i++) {
            isHit[Partitions.of(random.nextLong())] = true;
        }
        assertThat(isHit).doesNotContain(false);
    }

    @Test
    void a_budget_gives_what_it_has_and_takes_it_back() {
        MemoryBudget budget = new MemoryBudget(100);
        assertThat(budget.limit()).isEqualTo(100);
        assertThat(budget.tryTake(60)).isTrue();
        assertThat(budget.tryTake(41)).isFalse();
        assertThat(budget.tryTake(40)).isTrue();
        budget.giveBack(60);
        assertThat(budget.tryTake(61)).isFalse();
        assertThat(budget.tryTake(60)).isTrue();
        assertThat(new MemoryBudget(0).tryTake(1)).isFalse();
    }

    @Test
    void folders_of_programs_that_were_killed_go() throws IOException {
        String name;
        try (SpillFolder folder = new SpillFolder(temporary, new MemoryBudget(0));
                LongSpool spool = new LongSpool(folder, 4)) {
            for (int i = 0; i < 100_000; i++) {
                spool.add(i);
            }
            try (Stream<Path> made = Files.list(temporary)) {
                name = made.findFirst().orElseThrow().getFileName().toString();
            }
        }
        String pid = Long.toString(ProcessHandle.current().pid());
        Path left = temporary.resolve(name.replace(pid, "999999999999999999"));
        Files.createDirectory(left);
        Files.writeString(left.resolve("1"), "left behind");
        try (SpillFolder folder = new SpillFolder(temporary, new MemoryBudget(0));
                LongSpool spool = new LongSpool(folder, 4)) {
            for (int i = 0; i < 100_000; i++) {
                spool.add(i);
            }
            assertThat(left).doesNotExist();
        }
    }
}
