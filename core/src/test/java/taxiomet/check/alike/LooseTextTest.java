package taxiomet.check.alike;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LooseTextTest {
    @ParameterizedTest
    @CsvSource({
        "Foxglove Lane 4, foxglove lane 4",
        "'  Foxglove   LANE, 4 ', foxglove lane 4",
        "Zoë Brûlé-Ångström, zoe brule angstrom",
        "Weißbach Łąka Øvre Æsir, weissbach laka ovre aesir",
        "O'Marrow, omarrow",
        "O\u2019Marrow, omarrow",
        "ＭＥＡＤ\u00A0Row, mead row",
        "Истра-Ёлка, истра елка",
        "'--', ''",
        "'', ''"
    })
    void wordsAreWhatIsLeftWithoutCaseAccentsAndPunctuation(String text, String words) {
        assertThat(LooseText.of(text)).isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource({"berry ann mead, annberrymead, berryannmead", "mead, mead, mead"})
    void wordsInTheOrderOfTheAlphabet(String words, String sorted, String joined) {
        assertThat(LooseText.sorted(words)).isEqualTo(sorted);
        assertThat(LooseText.joined(words)).isEqualTo(joined);
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "3, 0", "4, 1", "11, 1", "12, 2", "20, 3", "200, 3", "201, 0"})
    void longerTextsMayHaveMoreSlips(int letters, int slips) {
        assertThat(LooseText.slips(letters)).isEqualTo(slips);
    }
}
