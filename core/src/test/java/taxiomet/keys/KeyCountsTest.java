package taxiomet.keys;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.spill.MemoryBudget;

/** Rows of keys and of their children are counted as a map counts them. */
class KeyCountsTest {
    private static final int ROWS = 5_000;

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void counts_are_those_of_a_map(boolean areNumbers) {
        Random random = new Random(11);
        MemoryBudget budget = new MemoryBudget(1 << 24);
        KeyCounts counts = areNumbers ? KeyCounts.ofNumbers(-50, 9_949, ROWS, budget) : KeyCounts.ofAny(10, budget);
        Map<Long, Long> rows = new HashMap<>();
        long[] highs = new long[ROWS];
        long[] lows = new long[ROWS];
        boolean[] usable = new boolean[ROWS];
        for (int i = 0; i < ROWS; i++) {
            lows[i] = random.nextInt(10_000) - 50;
            highs[i] = areNumbers ? 0 : lows[i] * 31;
            usable[i] = random.nextInt(9) > 0;
            if (usable[i]) {
                rows.merge(lows[i], 1L, Long::sum);
            }
        }
        counts.add(highs, lows, usable, ROWS);
        long all = rows.values().stream().mapToLong(Long::longValue).sum();
        assertThat(counts.excess()).isEqualTo(all - rows.size());

        int link = counts.addLink();
        Map<Long, Long> children = new HashMap<>();
        int[] slots = new int[ROWS];
        for (int i = 0; i < ROWS; i++) {
            lows[i] = random.nextInt(12_000) - 1_000;
            highs[i] = areNumbers ? 0 : lows[i] * 31;
            children.merge(lows[i], 1L, Long::sum);
        }
        counts.find(highs, lows, ROWS, slots);
        for (int i = 0; i < ROWS; i++) {
            assertThat(slots[i] >= 0).isEqualTo(rows.containsKey(lows[i]));
            if (slots[i] >= 0) {
                counts.children(link)[slots[i]]++;
            }
        }
        Map<Long, Long> expected = new TreeMap<>();
        rows.forEach((key, count) -> expected.merge(children.getOrDefault(key, 0L), count, Long::sum));
        assertThat(counts.rowsByChildren(link)).isEqualTo(expected);
        Map<Integer, Long> bySlot = new HashMap<>();
        IntStream.of(slots).filter(slot -> slot >= 0).forEach(slot -> bySlot.merge(slot, 1L, Long::sum));
        assertThat(counts.rowsByChildren(bySlot)).isEqualTo(expected);
        counts.close();
        assertThat(budget.tryTake(1 << 24)).isTrue();
    }

    @Test
    void what_has_no_room_says_so() {
        KeyCounts counts = KeyCounts.ofAny(1_000_000, new MemoryBudget(1 << 10));
        counts.add(new long[] {0}, new long[] {7}, null, 1);
        assertThat(counts.isFull()).isTrue();
        assertThat(counts.addLink()).isEqualTo(-1);
    }

    @Test
    void keys_outside_the_range_that_was_said_are_no_keys_that_were_counted() {
        KeyCounts counts = KeyCounts.ofNumbers(1, 100, 100, new MemoryBudget(1 << 20));
        counts.add(new long[] {0}, new long[] {101}, null, 1);
        assertThat(counts.isFull()).isTrue();
    }
}
