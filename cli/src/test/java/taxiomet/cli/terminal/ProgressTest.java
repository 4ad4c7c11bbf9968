package taxiomet.cli.terminal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The line that tells those who wait how far a check has come. */
class ProgressTest {
    @Test
    void the_line_is_shown_after_a_moment_and_taken_away_at_the_end() throws InterruptedException {
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        PrintStream lines = new PrintStream(err, true, StandardCharsets.UTF_8);
        Terminal terminal = Terminal.of(Map.of("TAXIOMET_TERMINALS", "2", "COLUMNS", "80"), lines, lines);
        Progress progress = new Progress(terminal);
        progress.reading("hive");
        progress.advanced(() -> 1_000_000, 4_000_000);
        assertThat(err.toString(StandardCharsets.UTF_8)).isEmpty();
        Thread.sleep(900);
        progress.advanced(() -> 2_000_000, 4_000_000);
        assertTimeoutPreemptively(Duration.ofSeconds(20), progress::concluding);
        String shown = err.toString(StandardCharsets.UTF_8);
        assertThat(shown).contains("reading").contains("hive").contains("50%").endsWith(" \r");
        progress.close();
        assertThat(err.toString(StandardCharsets.UTF_8)).isEqualTo(shown);
    }
}
