package taxiomet.finding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

class ChildrenSpreadTest {
    private static List<String> spread(Map<Long, Long> headingsByCount) {
        return ChildrenSpread.of(new TreeMap<>(headingsByCount)).stream()
                .map(step -> step.from() + ".." + step.to() + ": " + step.headings())
                .toList();
    }

    @Test
    void few_numbers_stand_one_by_one_with_the_gaps_between_them() {
        assertThat(spread(Map.of(3L, 2L, 5L, 1L))).containsExactly("3..3: 2", "4..4: 0", "5..5: 1");
        assertThat(spread(Map.of(0L, 7L))).containsExactly("0..0: 7");
        assertThat(spread(Map.of())).isEmpty();
    }

    @Test
    void many_numbers_stand_in_steps_that_hold_each_heading_once() {
        assertThat(spread(Map.of(0L, 4L, 2L, 1L, 4L, 1L, 5L, 1L, 9L, 1L, 19L, 1L, 20L, 3L, 120L, 1L)))
                .containsExactly(
                        "0..0: 4",
                        "1..1: 0",
                        "2..4: 2",
                        "5..9: 2",
                        "10..19: 1",
                        "20..49: 3",
                        "50..99: 0",
                        "100..199: 1");
    }
}
