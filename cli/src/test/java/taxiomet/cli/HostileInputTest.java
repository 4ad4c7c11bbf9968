package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Input that nobody meant well: each is a finding (status 1) or a clear error (2 or 3), without a stack trace or a hang. */
class HostileInputTest {
    private static final Duration PATIENCE = Duration.ofSeconds(60);

    @TempDir
    private Path folder;

    private Program check(String... more) {
        String[] arguments = new String[more.length + 2];
        arguments[0] = "check";
        arguments[1] = folder.resolve("charter.yaml").toString();
        System.arraycopy(more, 0, arguments, 2, more.length);
        Program program = assertTimeoutPreemptively(PATIENCE, () -> Program.run(arguments));
        assertThat(program.err())
                .doesNotContain("Exception")
                .doesNotContain("\tat ")
                .doesNotContain("should not have happened");
        assertThat(program.out() + program.err()).doesNotContain("\0").doesNotContain("\u001B");
        return program;
    }

    /** A table of two texts in a file of that name. */
    private void charter(String rows) throws IOException {
        charter(rows, "{a: text, b: text}");
    }

    private void charter(String rows, String columns) throws IOException {
        Files.writeString(
                folder.resolve("charter.yaml"),
                "charter: 1\ntables:\n  t: {rows: " + rows + ", columns: " + columns + ", primary_key: a}\n");
    }

    private void data(byte[] bytes) throws IOException {
        Files.write(folder.resolve("t.csv"), bytes);
    }

    private void data(String text) throws IOException {
        data(text.getBytes(StandardCharsets.UTF_8));
    }

    private static byte[] noise(int size) {
        byte[] noise = new byte[size];
        new Random(20_261_124L).nextBytes(noise);
        return noise;
    }

    private void assertFinding(String words) {
        Program program = check();
        assertThat(program.status()).as(program.err()).isEqualTo(1);
        assertThat(program.out()).contains(words);
    }

    private void assertRefused(int status, String words, String... options) {
        Program program = check(options);
        assertThat(program.status()).as(program.out() + program.err()).isEqualTo(status);
        assertThat(program.err()).contains(words);
    }

    @Test
    void bytes_that_are_no_table() throws IOException {
        charter("t.csv");
        data(noise(1 << 20));
        assertRefused(3, "the header line");
        byte[] head = "a,b\n".getBytes(StandardCharsets.UTF_8);
        byte[] noise = noise(1 << 20);
        System.arraycopy(head, 0, noise, 0, head.length);
        data(noise);
        assertFinding("malformed row");
        data("a,b\n1,\0\n");
        assertFinding("a NUL character");
        data("a,b\n1,\u00e9\n".getBytes(StandardCharsets.ISO_8859_1));
        assertFinding("not valid in the file's encoding");
        data("\uFEFFa,b\n1,2\n".getBytes(StandardCharsets.UTF_16LE));
        assertRefused(3, "byte order mark of UTF-16");
        data("a,b\n1,2\n".getBytes(StandardCharsets.UTF_16LE));
        assertRefused(3, "header");
        data("");
        assertRefused(3, "the file is empty");
        data("a\0,b\n");
        assertRefused(3, "the header line");
        data("\"a,b\n1,2\n");
        assertRefused(3, "the header line");
    }

    @Test
    void lines_without_end_and_quotes_left_open() throws IOException {
        charter("t.csv");
        try (BufferedWriter out = Files.newBufferedWriter(folder.resolve("t.csv"))) {
            out.write("a,b\n1,");
            String block = "x".repeat(1 << 20);
            for (int i = 0; i < 100; i++) {
                out.write(block);
            }
            out.write("\n2,3\n");
        }
        assertFinding("a field of more than");
        data("a,b\n1,\"open\n" + "2,3\n".repeat(500_000));
        assertFinding("never closed");
        data("a,b\n" + "x,\"y\n".repeat(5_000));
        assertFinding("malformed row");
    }

    @Test
    void places_that_are_no_files() throws Exception {
        charter("nowhere.csv");
        assertRefused(3, "there is no such file");
        Files.createDirectory(folder.resolve("folder.csv"));
        charter("folder.csv");
        assertRefused(3, "this is a folder");
        Files.createSymbolicLink(folder.resolve("x.csv"), Path.of("y.csv"));
        Files.createSymbolicLink(folder.resolve("y.csv"), Path.of("x.csv"));
        charter("x.csv");
        assertRefused(3, "cannot be read");
        Files.createSymbolicLink(folder.resolve("round"), folder);
        charter("'**/none*.csv'");
        assertRefused(3, "circle");
        charter("'z*.csv'");
        assertRefused(3, "no file has such a name");
        charter("'t[.csv'");
        assertRefused(3, "no glob");
        charter("\"t\\0.csv\"");
        assertRefused(3, "no path");
        charter("/dev/zero");
        assertRefused(3, "no ordinary file");
        if (new ProcessBuilder("mkfifo", folder.resolve("pipe").toString())
                        .start()
                        .waitFor()
                == 0) {
            charter("pipe");
            assertRefused(3, "no ordinary file");
        }
        data("a,b\n");
        if (folder.resolve("t.csv").toFile().setReadable(false) && !Files.isReadable(folder.resolve("t.csv"))) {
            charter("t.csv");
            assertRefused(3, "no permission");
        }
    }

    @Test
    void compressed_files_that_are_not_whole() throws IOException {
        Path packed = folder.resolve("t.csv.gz");
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(packed))) {
            out.write(("a,b\n"
                            + IntStream.range(0, 50_000)
                                    .mapToObj(i -> i * 7919 + ",x\n")
                                    .collect(Collectors.joining()))
                    .getBytes(StandardCharsets.UTF_8));
        }
        charter("t.csv.gz");
        assertThat(check().status()).isZero();
        try (FileChannel channel = FileChannel.open(packed, StandardOpenOption.WRITE)) {
            channel.truncate(channel.size() / 2);
        }
        assertRefused(3, "cannot be decompressed");
        Files.writeString(packed, "a,b\n1,2\n");
        assertRefused(3, "cannot be decompressed");
        charter("t.csv.zst");
        Files.write(folder.resolve("t.csv.zst"), noise(1000));
        assertRefused(3, "cannot be decompressed");
    }

    @Test
    void a_file_that_shrinks_while_it_is_read() throws Exception {
        charter("t.csv", "{a: integer, b: text}");
        data("a,b\n"
                + IntStream.range(0, 3_000_000)
                        .mapToObj(i -> i + ",some text\n")
                        .collect(Collectors.joining()));
        Path file = folder.resolve("t.csv");
        // All the while, so that it happens between the first look and the last, however quick the reading is.
        AtomicBoolean isDone = new AtomicBoolean();
        Thread shrinker = new Thread(() -> {
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
                while (!isDone.get()) {
                    channel.truncate(channel.size() - 1_000);
                    Thread.sleep(2);
                }
            } catch (IOException | InterruptedException e) {
                throw new IllegalStateException(e);
            }
        });
        shrinker.start();
        try {
            assertRefused(3, "changed while it was being read");
        } finally {
            isDone.set(true);
        }
        shrinker.join();
    }

    @Test
    void charters_that_are_none() throws IOException {
        data("a,b\n");
        Path charter = folder.resolve("charter.yaml");
        Files.write(charter, noise(10_000));
        assertRefused(2, "charter.yaml:1:1");
        Files.writeString(charter, "a: ".repeat(10_000));
        assertRefused(2, "charter.yaml:1:");
        Files.writeString(charter, "{\"a\":".repeat(10_000));
        assertRefused(2, "nested deeper");
        Files.writeString(charter, "x: " + "[".repeat(1_000_000));
        assertRefused(2, "charter.yaml:1:");
        Files.writeString(charter, "#".repeat(3_000_000));
        assertRefused(2, "larger than any charter");
        Files.delete(charter);
        assertRefused(2, "there is no such file");
        Files.createDirectory(charter);
        assertRefused(2, "this is a folder");
    }

    @Test
    void declarations_that_are_meant_to_hang() throws IOException {
        String value = "a".repeat(200_000) + "!";
        data("a,b\n1," + value + "\n");
        charter("t.csv", "{a: text, b: {type: text, pattern: '(a+)+|(a*)*b|(a|aa)+'}}");
        assertFinding("pattern not met");
        for (String large : List.of(
                "((a{200}){200}){200}",
                "((a{0,1000}){0,1000}){0,1000}",
                "(x{0,1000}y{0,1000}){0,1000}",
                "(".repeat(400) + "a" + ")".repeat(400))) {
            charter("t.csv", "{a: text, b: {type: text, pattern: '" + large + "'}}");
            assertRefused(2, "the pattern repeats what is repeated");
        }
        charter("t.csv", "{a: text, b: {type: text, pattern: '(?=a)a'}}");
        assertRefused(2, "look-around");
        String rule = "\n    rules: {r: \"" + "(".repeat(3_000) + "a = '1'" + ")".repeat(3_000) + "\"}\n";
        Files.writeString(
                folder.resolve("charter.yaml"),
                "charter: 1\ntables:\n  t:\n    rows: t.csv\n    columns: {a: text, b: text}" + rule);
        assertRefused(2, "longer than can be read");
        Files.writeString(
                folder.resolve("charter.yaml"),
                "charter: 1\ntables:\n  t:\n    rows: t.csv\n    columns: {a: text, b: text}\n    rules: {r: \"b like '"
                        + "%a".repeat(1_000) + "%b'\"}\n");
        assertFinding("broken rule");
    }

    @Test
    void numbers_without_measure() throws IOException {
        charter("t.csv", "{a: text, b: numeric}");
        data("a,b\n1,1e999999999\n2," + "9".repeat(1_000_000) + "\n3,-1e-99999999999999999999\n4,1e131071\n");
        assertFinding("type mismatch 3");
        charter("t.csv", "{a: double precision, b: integer}");
        data("a,b\n" + "1".repeat(100_000) + "," + "0".repeat(100_000) + "1\n");
        assertFinding("out of the type's range");
    }

    @Test
    void five_thousand_columns() throws IOException {
        String names = IntStream.range(0, 5_000).mapToObj(i -> "c" + i).collect(Collectors.joining(","));
        data("a," + names + "\n1" + ",x".repeat(5_000) + "\n1" + ",x".repeat(5_000) + "\n");
        charter(
                "t.csv",
                "{a: text"
                        + IntStream.range(0, 5_000)
                                .mapToObj(i -> ", c" + i + ": text")
                                .collect(Collectors.joining()) + "}");
        assertFinding("duplicate 2");
        charter("t.csv", "{a: text}");
        assertFinding("4992 more");
        data("a" + ",a".repeat(5_000) + "\n");
        assertRefused(3, "names column `a` 5001 times");
    }

    @Test
    void cells_that_would_take_over_a_terminal_or_a_spreadsheet() throws IOException {
        charter("t.csv");
        data("a,b\n\"\u001B[2Jx\",=1+1\n\"\u001B[2Jx\",\"=cmd()\u202E\"\n");
        Path evidence = folder.resolve("evidence");
        Program program = check("--evidence", evidence.toString());
        assertThat(program.out()).contains("\\u{1b}[2Jx");
        assertThat(Files.readString(evidence.resolve("01-t-primary_key-duplicate.csv")))
                .contains(",'=1+1\n");
    }

    @Test
    void options_and_places_for_results_that_cannot_be() throws IOException {
        charter("t.csv");
        data("a,b\n1,2\n1,2\n");
        assertRefused(2, "--examples", "--examples", "-1");
        assertRefused(2, "--examples", "--examples", "99999999999");
        assertRefused(
                2, "no folder", "--report", folder.resolve("no/where.json").toString());
        assertRefused(
                2,
                "the ending says the format",
                "--report",
                folder.resolve("x.doc").toString());
        assertRefused(2, "is a file", "--evidence", folder.resolve("t.csv").toString());
        assertRefused(2, "holds other things", "--force", "--evidence", folder.toString());
        assertRefused(2, "goes with --evidence", "--per-owner");
        assertThat(folder.resolve("t.csv")).hasContent("a,b\n1,2\n1,2\n");
    }
}
