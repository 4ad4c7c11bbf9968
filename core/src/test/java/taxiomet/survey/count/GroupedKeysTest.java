package taxiomet.survey.count;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Rows that repeat a key are counted as a set counts them, as long as rows of one group stand together. */
class GroupedKeysTest {
    private static final int ROWS = 4_000;

    @ParameterizedTest
    @ValueSource(ints = {1, 3, 10, 200, 4_000})
    void repeated_rows_are_those_of_a_set(int groupSize) {
        Random random = new Random(groupSize);
        long[] firsts = new long[ROWS];
        long[] seconds = new long[ROWS];
        boolean[] usable = new boolean[ROWS];
        Set<List<Long>> seen = new HashSet<>();
        int repeated = 0;
        for (int row = 0; row < ROWS; row++) {
            firsts[row] = row / groupSize * 5L;
            seconds[row] = random.nextInt(groupSize * 3);
            usable[row] = random.nextInt(10) > 0;
            repeated += usable[row] && !seen.add(List.of(firsts[row], seconds[row])) ? 1 : 0;
        }
        GroupedKeys keys = new GroupedKeys();
        keys.add(firsts, seconds, usable, ROWS, row -> row);
        keys.seal();
        assertThat(keys.isFull()).isFalse();
        assertThat(keys.excess()).isEqualTo(repeated);
    }

    @ParameterizedTest
    @ValueSource(longs = {4, -1})
    void what_does_not_stand_in_order_is_left_to_others(long last) {
        GroupedKeys keys = new GroupedKeys();
        keys.add(new long[] {5, 5}, new long[] {1, 2}, null, 2, row -> row);
        keys.add(new long[] {last}, new long[] {1}, null, 1, row -> row);
        assertThat(keys.isFull()).isTrue();
    }
}
