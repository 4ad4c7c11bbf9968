package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.terminal.Terminal;

/** A check that stays and looks again, on files that change under it. */
class WatchTest {
    private static final long PATIENCE = 20_000;

    @TempDir
    private Path folder;

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();

    private void await(ByteArrayOutputStream stream, String words) throws InterruptedException {
        long end = System.currentTimeMillis() + PATIENCE;
        while (!stream.toString(StandardCharsets.UTF_8).contains(words) && System.currentTimeMillis() < end) {
            Thread.sleep(50);
        }
        assertThat(stream.toString(StandardCharsets.UTF_8)).contains(words);
    }

    private void write(String file, String... lines) throws Exception {
        Files.writeString(folder.resolve(file), String.join("\n", lines) + "\n");
    }

    @Test
    void what_is_new_and_what_is_gone_is_told_when_a_file_changes() throws Exception {
        write(
                "charter.yaml",
                "charter: 1",
                "tables:",
                "  berth: {rows: berths.csv, columns: {berth: integer}, primary_key: berth}",
                "  boat:",
                "    rows: boats.csv",
                "    columns: {boat: varchar(9), berth: integer}",
                "    primary_key: boat",
                "    foreign_keys: {boat_berth: {columns: berth, references: berth}}");
        write("berths.csv", "berth", "1", "2");
        write("boats.csv", "boat,berth", "Auk,1", "Tern,3", "Skua,4");
        Terminal terminal = Terminal.of(
                Map.of(),
                new PrintStream(out, true, StandardCharsets.UTF_8),
                new PrintStream(err, true, StandardCharsets.UTF_8));
        Thread watcher = new Thread(() ->
                Main.run(new String[] {"check", folder.resolve("charter.yaml").toString(), "--watch"}, terminal));
        watcher.start();
        try {
            await(out, "orphan at boat.boat_berth: 2 rows");

            // Another row stands first now: rows are known again by their keys.
            write("boats.csv", "boat,berth", "Gull,9", "Auk,1", "Tern,3", "Skua,2");
            await(out, "changed: boats.csv");
            await(out, "at fault now: Gull");
            await(out, "no more: Skua");
            assertThat(out.toString(StandardCharsets.UTF_8)).doesNotContain("at fault now: Gull, Tern");

            write("berths.csv", "berth", "1", "2", "3", "9");
            await(out, "gone  orphan at boat.boat_berth: it had 2 rows");

            write("charter.yaml", "charter: 1", "tabels: {}");
            await(err, "tabels");
            assertThat(watcher.isAlive()).isTrue();
        } finally {
            watcher.interrupt();
            watcher.join(PATIENCE);
        }
        assertThat(watcher.isAlive()).isFalse();
    }

    @Test
    void it_is_refused_with_what_it_cannot_honour() {
        Program program = Program.run("check", "../demo/charter.yaml", "--watch", "--json");
        assertThat(program.status()).isEqualTo(2);
        assertThat(program.err()).contains("--watch");
    }
}
