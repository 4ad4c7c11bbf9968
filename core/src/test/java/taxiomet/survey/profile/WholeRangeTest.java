package taxiomet.survey.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;

/** Where the numbers of a column lie, whatever slips there are among them. */
class WholeRangeTest {
    private static long[] from(long first, long last) {
        return LongStream.rangeClosed(first, last).toArray();
    }

    private static long[] with(long[] numbers, long... others) {
        return LongStream.concat(LongStream.of(numbers), LongStream.of(others))
                .sorted()
                .toArray();
    }

    @Test
    void a_few_that_lie_far_out_are_left_out_at_both_ends() {
        assertThat(WholeRange.of(from(1, 100), true, 1, 100)).isEqualTo(new WholeRange(1, 100));
        assertThat(WholeRange.of(with(from(1, 100), 9_999), true, 1, 9_999)).isEqualTo(new WholeRange(1, 100));
        assertThat(WholeRange.of(with(from(5_000, 5_400), 7, 90_000, 90_001), true, 7, 90_001))
                .isEqualTo(new WholeRange(5_000, 5_400));
    }

    @Test
    void many_that_lie_far_out_are_no_slips() {
        long[] numbers = with(from(1, 50), from(9_000, 9_050));
        assertThat(WholeRange.of(numbers, true, 1, 9_050)).isEqualTo(new WholeRange(1, 9_050));
    }

    @Test
    void what_is_not_among_the_rows_at_hand_may_be_one_too() {
        assertThat(WholeRange.of(from(1, 100), false, 1, 1_000_000)).isEqualTo(new WholeRange(1, 100));
        assertThat(WholeRange.of(from(1, 100), false, 1, 120)).isEqualTo(new WholeRange(1, 120));
        assertThat(WholeRange.of(from(1, 4), false, 1, 1_000_000)).isEqualTo(new WholeRange(1, 1_000_000));
    }

    @Test
    void the_number_that_a_hash_is_of_can_be_had_back() {
        Random random = new Random(9);
        for (int i = 0; i < 10_000; i++) {
            long number = i < 100 ? i - 50 : random.nextLong();
            assertThat(Classifier.wholeOf(Classifier.hashOf(ValueClass.WHOLE, number, 0)))
                    .isEqualTo(number);
            assertThat(Classifier.dayOf(Classifier.hashOf(ValueClass.DATE, number, 0)))
                    .isEqualTo(number);
        }
    }
}
