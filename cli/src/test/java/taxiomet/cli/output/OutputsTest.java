package taxiomet.cli.output;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charters.input.InputFile;
import taxiomet.cli.Program;
import taxiomet.cli.terminal.ExitStatus;

/** What comes from standard input, what goes to standard output, and what is told of what was written. */
class OutputsTest {
    private static final InputStream USUAL = System.in;

    @TempDir
    private Path folder;

    private String charter;

    @BeforeEach
    void tables() throws IOException {
        Files.createDirectories(folder.resolve("rows"));
        write("rows/boats.csv", "boat,name\n1,Heron\n2,Teal\n");
        write("rows/trips-a.csv", "trip,boat\n1,1\n2,2\n");
        write("rows/trips-b.csv", "trip,boat\n3,2\n4,9\n");
        charter = write("charter.yaml", """
                charter: 1
                tables:
                  boat: {rows: rows/boats.csv, columns: {boat: integer, name: varchar(20)}, primary_key: boat}
                  trip:
                    rows: "rows/trips-*.csv"
                    columns: {trip: integer, boat: integer}
                    primary_key: trip
                    foreign_keys:
                      trip_boat: {columns: boat, references: boat, on_delete: cascade}
                """);
    }

    @AfterEach
    void usualInput() {
        System.setIn(USUAL);
        InputFile.forgetStandardInput();
    }

    private String write(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text).toString();
    }

    private String in(String name) {
        return folder.resolve(name).toString();
    }

    private static void type(String text) {
        InputFile.forgetStandardInput();
        System.setIn(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
    }

    private Program boats(String... arguments) {
        return Program.run(Stream.concat(Stream.of("rehearse", charter), Stream.of(arguments))
                .toArray(String[]::new));
    }

    @Test
    void a_charter_a_schema_a_proposal_and_a_list_come_from_standard_input() throws IOException {
        type(Files.readString(Path.of(charter)).replace("rows/", folder.resolve("rows") + "/"));
        Program check = Program.run("check", "-");
        assertThat(check.out()).startsWith("standard input: not sound").contains("orphan at trip.trip_boat");

        type("CREATE TABLE boats (boat int PRIMARY KEY, name varchar(4) NOT NULL);");
        Program schema = Program.run("check", "-", "--rows", in("rows"));
        assertThat(schema.out()).contains("type mismatch at boats.name: 1 row");

        type("{\"charter\": 1, \"tables\": {\"boat\": {}}}");
        assertThat(Program.run("vet", "-").err()).contains("standard input:1:").contains("rows");

        type("DELETE FROM boat WHERE name = 'Teal';");
        assertThat(boats("-").out()).contains("accepted").contains("(standard input:1)");

        type("proposal: 1\nproposed:\n  - {do: renumber, table: boat, from: 2, to: 7}\n");
        assertThat(boats("-").out()).contains("renumber boat 2 to 7");

        type("boat\n2\n");
        assertThat(boats("--delete", "boat=-").out()).contains("selects 1 row");

        type("DELETE FROM boat");
        assertThat(boats("-", "--delete", "boat=-").err())
                .contains("standard input (-) comes once, and 2 arguments want it");
    }

    @Test
    void one_document_goes_to_standard_output_and_the_answer_beside_it() throws IOException {
        Program csv = Program.run("check", charter, "--report", "csv:-");
        assertThat(csv.out().lines().toList())
                .containsExactly(
                        "severity,finding,table,at,row,line,file,group,key,label,values,problem,hint",
                        "error,orphan,trip,trip_boat,2,3,rows/trips-b.csv,,4,,9,,");
        assertThat(csv.err()).contains("charter.yaml: not sound");
        Program sql = boats("-e", "DELETE FROM boat WHERE boat = 1", "--write-sql", "sqlite:-");
        assertThat(sql.out()).contains("DELETE FROM").doesNotContain("accepted");
        assertThat(sql.err()).contains("accepted").doesNotContain("written");
        Program drafted = Program.run("survey", in("rows"), "--write-charter", "-", "--quiet");
        assertThat(drafted.err()).isEmpty();
        type(drafted.out());
        assertThat(Program.run("vet", "-").out()).startsWith("rows: ");
        for (List<String> twice : List.of(
                List.of("check", charter, "--json", "--report", "csv:-"),
                List.of("check", charter, "--report", "json:-", "--report", "csv:-"))) {
            Program refused = Program.run(twice.toArray(String[]::new));
            assertThat(refused.status()).isEqualTo(ExitStatus.WRONG_USAGE);
            assertThat(refused.err()).contains("standard output");
        }
    }

    @Test
    void a_format_may_stand_before_any_name() throws IOException {
        Program run = Program.run("check", charter, "--report", "csv:" + in("faults.txt"));
        assertThat(run.err()).isEqualTo("written: " + in("faults.txt") + "\n");
        assertThat(Files.readString(folder.resolve("faults.txt"))).contains("error,orphan,trip");
        assertThat(Program.run("check", charter, "--report", in("faults.doc")).err())
                .contains(
                        "the ending says the format, or a word before it; there are json, csv, xlsx, html, md and xml");
    }

    @Test
    void tables_as_they_would_be_are_checked_at_once() throws IOException {
        Program run = boats("-e", "DELETE FROM boat WHERE boat = 2", "--into", in("new"), "--report", in("r.json"));
        assertThat(run.err())
                .isEqualTo("written: " + in("r.json") + " and " + in("new")
                        + " (2 tables as they would be, charter.yaml, undo.json); next: taxiomet check "
                        + in("new/charter.yaml") + "\n");
        Program check = Program.run("check", in("new/charter.yaml"), "--json");
        assertThat(check.json().at("/tables/0/rows").asInt()).isEqualTo(1);
        assertThat(check.json().at("/tables/1/rows").asInt()).isEqualTo(2);
        assertThat(check.json().at("/findings/0/rows").asInt()).isEqualTo(1);
        assertThat(Files.readString(folder.resolve("new/charter.yaml"))).contains("rows: \"rows/trips-*.csv\"");

        boats("-e", "UPDATE boat SET name = 'Egret' WHERE boat = 1", "--into", in("one"));
        assertThat(Files.readString(folder.resolve("one/charter.yaml")))
                .contains("rows: rows/boats.csv")
                .contains("rows: \"../rows/trips-*.csv\"");
        assertThat(Program.run("check", in("one/charter.yaml"), "--quiet").out())
                .contains("1 of 6 rows at fault");
        assertThat(Program.run("rehearse", "--undo", in("one/undo.json"), "--into", in("back"))
                        .err())
                .isEqualTo("written: " + in("back") + " (1 file as read before the rehearsal)\n");
        assertThat(folder.resolve("back/rows/boats.csv")).hasSameBinaryContentAs(folder.resolve("rows/boats.csv"));
    }

    @Test
    void a_survey_says_what_it_wrote_and_what_comes_next() {
        Program run = Program.run("survey", in("rows"), "--write-charter", in("first.yaml"));
        assertThat(run.err())
                .isEqualTo("written: " + in("first.yaml") + "; next: read it, correct it, and `taxiomet vet "
                        + in("first.yaml") + "`\n");
    }

    @Test
    void an_address_where_a_file_is_expected_is_known_for_what_it_is() throws IOException {
        String addressed = write("addressed.yaml", """
                charter: 1
                tables:
                  boat: {rows: "jdbc:postgresql://localhost/harbour", columns: {boat: integer}}
                """);
        for (List<String> arguments : List.of(
                List.of("check", "https://localhost/harbour.yaml"),
                List.of("survey", "https://localhost/harbour.csv"),
                List.of("check", addressed))) {
            Program run = Program.run(Map.of(), arguments.toArray(String[]::new));
            assertThat(run.status()).isIn(ExitStatus.WRONG_USAGE, ExitStatus.UNREADABLE);
            assertThat(run.err())
                    .contains("this is the address of a database")
                    .contains("by its address", "under `database`");
        }
        assertThat(Program.run("check", "postgresql://localhost:1/harbour").err())
                .startsWith("taxiomet: jdbc:postgresql://localhost:1/harbour: the server cannot be reached");
        Path absent = folder.resolve("harbour.db");
        Program sqlite = Program.run("vet", "jdbc:sqlite:" + absent);
        assertThat(sqlite.status()).isEqualTo(ExitStatus.UNREADABLE);
        assertThat(absent).as("nothing is made by looking").doesNotExist();
    }

    @Test
    void what_names_no_file_or_no_folder_is_refused() {
        assertThat(Program.run("check", charter, "--report", "csv:").err()).contains("--report names no file");
        assertThat(boats("-e", "DELETE FROM trip", "--write-sql", "sqlite:").err())
                .contains("--write-sql names no file");
        assertThat(Program.run("check", charter, "--evidence", "-").err())
                .contains("a folder cannot be standard output");
        assertThat(boats("-e", "DELETE FROM trip", "--into", "-").err()).contains("a folder cannot be standard output");
        assertThat(Path.of("-")).doesNotExist();
    }

    @Test
    void the_same_proposal_gives_the_same_script_whenever_it_is_rehearsed() {
        Set<String> scripts = new HashSet<>();
        for (int i = 0; i < 8; i++) {
            Program run = Program.run(
                    "rehearse",
                    "../demo/charter.yaml",
                    "../demo/proposals/one-person-twice.yaml",
                    "--write-sql",
                    "mariadb:-",
                    "--quiet");
            scripts.add(run.out());
        }
        assertThat(scripts).hasSize(1);
    }
}
