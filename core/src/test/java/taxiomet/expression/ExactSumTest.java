package taxiomet.expression;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Sums are exact, also where no long holds them any more. */
class ExactSumTest {
    @Test
    void numbers_of_any_size_and_scale_add_up_exactly() {
        Random random = new Random(5);
        for (int round = 0; round < 200; round++) {
            ExactSum sum = new ExactSum();
            BigDecimal expected = BigDecimal.ZERO;
            for (int i = random.nextInt(30); i >= 0; i--) {
                long digits = random.nextLong() >> random.nextInt(64);
                int scale = random.nextInt(25);
                sum.add(digits, scale);
                expected = expected.add(BigDecimal.valueOf(digits, scale));
            }
            assertThat(sum.total()).isEqualByComparingTo(expected);
        }
    }

    @Test
    void a_sum_goes_beyond_a_long_and_comes_back() {
        ExactSum sum = new ExactSum();
        sum.add(Long.MAX_VALUE, 0);
        sum.add(Long.MAX_VALUE, 0);
        sum.add(new BigDecimal("-1e19"));
        sum.add(-1, 1);
        assertThat(sum.total()).isEqualByComparingTo("8446744073709551613.9");
    }
}
