package taxiomet.check.alike;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SlipsTest {
    @ParameterizedTest
    @CsvSource({
        "meadow, meadow, 0",
        "meadow, maedow, 1",
        "meadow, medow, 1",
        "meadow, meaddow, 1",
        "meadow, meadiw, 1",
        "meadow, maedwo, 2",
        "meadow, marrow, 3",
        "'', abc, 3"
    })
    void aLetterTooManyTooFewAnotherOrTurnedIsOneSlip(String one, String other, int slips) {
        assertThat(Slips.between(one, other, 9)).isEqualTo(slips);
        assertThat(Slips.between(other, one, 9)).isEqualTo(slips);
    }

    @Test
    void whatIsTooFarApartIsLeftEarlyButNeverWrongly() {
        Random random = new Random(4);
        for (int i = 0; i < 20_000; i++) {
            String one = text(random);
            String other = text(random);
            int all = Slips.between(one, other, 99);
            for (int most = 0; most <= 3; most++) {
                int found = Slips.between(one, other, most);
                assertThat(Math.min(found, most + 1))
                        .as("%s and %s, at most %d", one, other, most)
                        .isEqualTo(Math.min(all, most + 1));
            }
        }
    }

    private static String text(Random random) {
        StringBuilder text = new StringBuilder();
        for (int i = random.nextInt(7); i > 0; i--) {
            text.append((char) ('a' + random.nextInt(3)));
        }
        return text.toString();
    }

    @ParameterizedTest
    @CsvSource({
        "lane12, lane13, false",
        "lane12, lane12, true",
        "lane1b2, lane12, true",
        "lane, lane4, false",
        "040123456, 040123465, true",
        "040123456, 04012346, true",
        "040123456, 040123987, false"
    })
    void numbersOfFewDigitsAllowNoSlip(String one, String other, boolean areAlike) {
        assertThat(Slips.areDigitsAlike(one, other)).isEqualTo(areAlike);
    }
}
