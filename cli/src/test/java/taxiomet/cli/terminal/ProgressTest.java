package taxiomet.cli.terminal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The line that tells those who wait how far a check has come. */
class ProgressTest {
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();
    private long now;
    private Progress progress;

    @BeforeEach
    void begin() {
        progress = in("80");
    }

    private Progress in(String columns) {
        PrintStream lines = new PrintStream(err, true, StandardCharsets.UTF_8);
        return new Progress(
                Terminal.of(Map.of("TAXIOMET_TERMINALS", "2", "COLUMNS", columns), lines, lines), () -> now);
    }

    private String shownAfter(int millis, long read, long inAll) {
        err.reset();
        now += Duration.ofMillis(millis).toNanos();
        progress.advanced(() -> read, inAll);
        return err.toString(StandardCharsets.UTF_8);
    }

    @Test
    void the_line_is_shown_after_a_moment_every_quarter_of_a_second_and_taken_away_at_the_end() {
        progress.reading("hive");
        assertThat(shownAfter(700, 1_000_000, 4_000_000)).isEmpty();
        assertThat(shownAfter(300, 2_000_000, 4_000_000))
                .isEqualTo("\rreading hive  " + "━".repeat(19) + "┄".repeat(19) + "   50%  2 of 4 MB  1 s left");
        assertThat(shownAfter(100, 3_000_000, 4_000_000)).isEmpty();
        assertThat(shownAfter(200, 4_000_000, 4_000_000)).contains("100%  4 of 4 MB  1 s left");
        err.reset();
        progress.concluding();
        progress.close();
        assertThat(err.toString(StandardCharsets.UTF_8)).matches("\r +\r");
    }

    @Test
    void a_shorter_line_leaves_nothing_of_a_longer_one() {
        progress.reading("a_table_of_many_letters");
        int longer = shownAfter(900, 1_000_000, 900_000_000).length();
        progress.reading("t");
        assertThat(shownAfter(900, 900_000_000, 900_000_000)).hasSizeGreaterThanOrEqualTo(longer);
    }

    @Test
    void bytes_that_nobody_knows_in_advance_have_no_bar_and_no_end() {
        progress.reading("hive");
        assertThat(shownAfter(900, 12_345_678, 0)).isEqualTo("\rreading hive  12 MB");
    }

    @Test
    void a_long_wait_is_told_in_minutes_and_a_narrow_window_has_no_bar() {
        progress = in("40");
        progress.reading("hive");
        assertThat(shownAfter(20_000, 100_000_000, 2_000_000_000L))
                .isEqualTo("\rreading hive    5%  100 of 2,000 MB  6 min left");
    }

    @Test
    void a_name_does_not_move_the_cursor_and_is_cut() {
        progress.reading("a\rb" + "x".repeat(100));
        assertThat(shownAfter(900, 0, 2_000_000).substring(1))
                .doesNotContain("\r")
                .contains("…")
                .hasSizeLessThan(80);
    }
}
