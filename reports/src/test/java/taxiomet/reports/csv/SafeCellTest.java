package taxiomet.reports.csv;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Cells that a spreadsheet takes for what they are. */
class SafeCellTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "=1+1",
                "+cmd",
                "-cmd",
                "@SUM(A1)",
                " =1+1",
                "\t=1+1",
                "\u00a0=1+1",
                "\u200b=1+1",
                "\ufeff=1+1",
                "\u202e=1",
                "\tx",
                "\rx",
                "\nx",
                "-1+2",
                "+1 234x",
                "\u0001=x"
            })
    void what_a_program_might_run_is_made_a_text(String cell) {
        assertThat(SafeCell.of(cell)).isEqualTo("'" + cell);
    }

    @ParameterizedTest
    @ValueSource(strings = {"a=1", "1", "-1", "+1.5", "-1e5", "heather", "a-b", " x", "'=1", "1=2", "Zoë", "."})
    void what_is_harmless_stays(String cell) {
        assertThat(SafeCell.of(cell)).isEqualTo(cell);
    }

    @Test
    void null_and_empty_stay_what_they_are() {
        assertThat(SafeCell.of(null)).isNull();
        assertThat(SafeCell.of("")).isEmpty();
    }
}
