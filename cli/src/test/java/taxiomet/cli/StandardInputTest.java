package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charters.input.InputFile;

/** The rows of one table from standard input. */
class StandardInputTest {
    private static final InputStream USUAL = System.in;
    private static final String ROWS = "id;name\n1;Ada\n2;Bo\n2;Cy\n";

    @TempDir
    private Path folder;

    @AfterEach
    void putBack() {
        System.setIn(USUAL);
        InputFile.forgetStandardInput();
    }

    private static Program run(String input, String... words) {
        InputFile.forgetStandardInput();
        System.setIn(new ByteArrayInputStream(input.getBytes(StandardCharsets.UTF_8)));
        return Program.run(words);
    }

    private Path charter(String more) throws IOException {
        return Files.writeString(folder.resolve("c.yaml"), """
                charter: 1
                tables:
                  person:
                    rows: {file: "-", delimiter: ";"}
                    columns: {id: integer, name: text}
                    primary_key: id
                """ + more);
    }

    private static List<String> kept() throws IOException {
        try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return all.filter(path -> Files.exists(path.resolve("standard_input")))
                    .map(Path::toString)
                    .toList();
        }
    }

    @Test
    void rows_come_from_standard_input_and_are_read_as_often_as_they_must() throws IOException {
        Program check = run(ROWS, "check", charter("").toString());
        assertThat(check.status()).isEqualTo(1);
        assertThat(check.out())
                .contains("duplicate at person.primary_key: 2 rows")
                .contains("name");
        Program rehearsed = run(ROWS, "rehearse", charter("").toString(), "-e", "DELETE FROM person WHERE name = 'Cy'");
        assertThat(rehearsed.out()).contains("accepted").contains("mended");
        assertThat(kept()).isEmpty();
    }

    @Test
    void a_survey_of_it_writes_a_charter_that_reads_it_again() throws IOException {
        Path charter = folder.resolve("draft.yaml");
        Program survey = run(ROWS, "survey", "-", "--write-charter", charter.toString());
        assertThat(survey.out()).contains("standard input: 1 table, 3 rows");
        assertThat(charter).content().contains("rows: {file: \"-\", delimiter: \";\"}");
        assertThat(run(ROWS, "check", charter.toString()).status()).isZero();
        assertThat(run("id;name\n1;Ada\n3;Ada\n", "check", charter.toString()).status())
                .isEqualTo(1);
    }

    @Test
    void it_holds_one_thing_alone() throws IOException {
        String second = """
                  other:
                    rows: {file: "-"}
                    columns: {id: integer}
                """;
        assertThat(run(ROWS, "check", charter(second).toString()).err()).contains("both person and other name it");
        assertThat(run(Files.readString(charter("")), "check", "-").err())
                .contains("standard input holds the charter or the proposal already");
        assertThat(run("", "check", charter("").toString()).status()).isEqualTo(3);
        assertThat(kept()).isEmpty();
    }
}
