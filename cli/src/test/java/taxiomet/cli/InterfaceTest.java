package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.cli.terminal.ExitStatus;

/** What all commands have in common: windows of every size, servers by their names, options that cannot be honoured. */
class InterfaceTest {
    private static final Map<String, String> TERMINAL = Map.of("TAXIOMET_TERMINALS", "1", "TERM", "dumb");

    @TempDir
    private Path folder;

    private String charter;

    @BeforeEach
    void write() throws IOException {
        charter = Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                tables:
                  song:
                    rows: songs.csv
                    columns: {code: varchar(60), genre: varchar(10), title: text}
                    primary_key: code
                    foreign_keys:
                      song_genre: {columns: genre, references: genre, on_delete: cascade}
                  genre:
                    rows: genres.csv
                    columns: {genre: varchar(10)}
                    primary_key: genre
                """).toString();
        Files.writeString(folder.resolve("genres.csv"), "genre\nROCK\nJAZZ\nA01\n");
        StringBuilder songs = new StringBuilder("code,genre,title\n");
        IntStream.range(0, 40)
                .forEach(i -> songs.append("S-")
                        .append(i)
                        .append(",ROCK,Song ")
                        .append(i)
                        .append('\n'));
        songs.append(
                "cc2ff992-7e0b-4e3c-9a51-0d8a4d3f1b27,ROK,\"A title that goes on for a while, and for a while more\"\n");
        songs.append("S-40,AO1,x\nS-41,JAZ,y\nS-1,ROCK,Song 1\nS-2,ROCK,another\nS-50,ROCK\n");
        Files.writeString(folder.resolve("songs.csv"), songs);
    }

    private Program run(Map<String, String> more, String... arguments) {
        Map<String, String> environment = new java.util.HashMap<>(TERMINAL);
        environment.putAll(more);
        return Program.run(environment, arguments);
    }

    @Test
    void the_answer_stands_at_the_end_once_more_where_the_text_is_longer_than_the_window() {
        Program little = run(Map.of("TAXIOMET_LINES", "10"), "check", charter);
        List<String> lines = little.out().lines().toList();
        assertThat(lines.get(0)).contains("not sound");
        assertThat(lines.subList(lines.size() - 4, lines.size()))
                .containsExactly("", lines.get(0), lines.get(1), "next: taxiomet meaning malformed-row");
        Program high = run(Map.of("TAXIOMET_LINES", "200"), "check", charter);
        assertThat(high.out().lines().filter(line -> line.contains("not sound")))
                .hasSize(1);
        assertThat(Program.run("check", charter).out()).isEqualTo(high.out());
    }

    @Test
    void a_pager_is_asked_for_and_must_be_there() {
        assertThat(run(Map.of(), "check", charter, "--pager").err()).contains("the variable PAGER names no program");
        Program piped = Program.run(Map.of("PAGER", "cat"), "vet", charter, "--pager");
        assertThat(piped.status()).isEqualTo(ExitStatus.WRONG_USAGE);
        assertThat(piped.err()).contains("standard output is no terminal");
    }

    @ParameterizedTest
    @CsvSource({"40", "80", "140"})
    void keys_and_values_at_fault_are_whole_in_every_window(int width) {
        String out =
                Program.run(Map.of("COLUMNS", "" + width), "check", charter).out();
        assertThat(out.lines()).allMatch(line -> line.codePointCount(0, line.length()) <= width);
        assertThat(out.replaceAll("\\s+", "")).contains("cc2ff992-7e0b-4e3c-9a51-0d8a4d3f1b27");
        String words = out.replaceAll("\\s+", " ");
        assertThat(words)
                .contains("perhaps ROCK, one keystroke away")
                .contains("perhaps A01, but for characters that look alike")
                .contains("perhaps JAZZ, one keystroke away")
                .contains("S-50,ROCK")
                .contains("a copy of the first")
                .contains("not as the first: title");
        assertThat(out).doesNotContain("…");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
                    rehearse | postgres | did you mean postgresql?
                    rehearse | oracle   | this command does not know that server; write standard, postgresql, mariadb, sqlite
                    vet      | standard | this command does not know that server; write postgresql, mariadb, sqlite, sqlserver, oracle
                    vet      | sqllite  | did you mean sqlite?
                    """)
    void a_server_that_is_none_here_is_answered_with_those_that_are(String command, String server, String answer) {
        Program refused = command.equals("vet")
                ? Program.run("vet", charter, "--server", server)
                : Program.run("rehearse", charter, "-e", "DELETE FROM song", "--server", server);
        assertThat(refused.status()).isEqualTo(ExitStatus.WRONG_USAGE);
        assertThat(refused.err()).contains("--server " + server + ": ").contains(answer);
    }

    @Test
    void mysql_is_taken_as_mariadb_and_that_is_said() {
        Program rehearsed = Program.run(
                "rehearse", charter, "-e", "DELETE FROM genre WHERE genre = 'ROCK'", "--server", "MySQL", "--json");
        assertThat(rehearsed.err()).contains("mysql is taken as mariadb");
        assertThat(rehearsed.json().get("server").asText()).isEqualTo("mariadb");
    }

    @Test
    void a_script_may_be_for_another_server_than_the_one_rehearsed() throws IOException {
        Path script = folder.resolve("change.sql");
        Program written = Program.run(
                "rehearse",
                charter,
                "-e",
                "DELETE FROM genre WHERE genre = 'A01'",
                "--server",
                "postgresql",
                "--write-sql",
                "mariadb:" + script,
                "--quiet");
        assertThat(written.status()).as(written.err()).isZero();
        assertThat(script).content().contains("DELETE FROM `genre`");
        assertThat(folder.resolve("change.back.sql")).content().contains("`genre`");
        assertThat(Program.run("rehearse", charter, "-e", "DELETE FROM song", "--write-sql", "oracle:x.sql")
                        .err())
                .contains("--write-sql oracle: this command does not know that server");
    }

    @Test
    void without_a_command_and_with_help_the_commands_are_listed() {
        Program bare = Program.run();
        assertThat(bare.status()).isZero();
        assertThat(bare.out()).contains("survey", "vet", "check", "rehearse", "meaning", "demo", "TAXIOMET_JAVA_OPTS");
        assertThat(Program.run("help").out()).isEqualTo(bare.out());
        assertThat(Program.run("help", "check").out())
                .isEqualTo(Program.run("check", "--help").out());
        for (String command : List.of("survey", "vet", "check", "rehearse", "meaning")) {
            assertThat(Program.run(command, "--help").out()).as(command).contains("Examples:\n  taxiomet " + command);
        }
        assertThat(Program.run("check", "--rport", "x.json").err())
                .contains("there is no option --rport; did you mean --report?");
        assertThat(Program.run("chek").err()).contains("there is no command chek; did you mean check?");
        assertThat(Program.run("vet", charter, "twice").err()).contains("`twice` is one word too many");
    }
}
