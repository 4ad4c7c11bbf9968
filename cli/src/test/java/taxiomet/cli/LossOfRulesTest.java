package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Nothing that a schema declares is lost in silence, no option is passed over, and no name moves the cursor. */
class LossOfRulesTest {
    private static final String VISITS = "CREATE TABLE visit (id integer PRIMARY KEY, year integer);";

    @TempDir
    private Path folder;

    @BeforeEach
    void rows() throws IOException {
        Files.writeString(folder.resolve("visit.csv"), "id,year\n1,1980\n2,1995\n");
    }

    private String schema(String table) throws IOException {
        return Files.writeString(folder.resolve("schema.sql"), table).toString();
    }

    private Program check(String table, String... more) throws IOException {
        String[] all = new String[4 + more.length];
        all[0] = "check";
        all[1] = schema(table);
        all[2] = "--rows";
        all[3] = folder.toString();
        System.arraycopy(more, 0, all, 4, more.length);
        return Program.run(all);
    }

    @Test
    void a_rule_over_a_column_called_year_is_judged() throws IOException {
        Program came = check("CREATE TABLE visit (id integer PRIMARY KEY, year integer, CHECK (year >= 1990));");
        assertThat(came.status()).isEqualTo(1);
        assertThat(came.out()).contains("broken rule").contains("1980");
    }

    @ParameterizedTest
    @ValueSource(strings = {"CHECK (odd(year))", "CHECK (year ~ '^1')", "EXCLUDE USING gist (year WITH =)"})
    void a_rule_that_is_not_read_makes_check_never_say_sound(String rule) throws IOException {
        Program came = check("CREATE TABLE visit (id integer PRIMARY KEY, year integer, " + rule + ");");
        assertThat(came.status()).isEqualTo(1);
        assertThat(came.out()).contains("rule not read").contains(rule.substring(0, 5));
        Program quiet = check("CREATE TABLE visit (id integer PRIMARY KEY, year integer, " + rule + ");", "--quiet");
        assertThat(quiet.status()).isEqualTo(1);
        assertThat(quiet.out()).startsWith("schema.sql: not sound").contains("1 error");
    }

    @Test
    void what_is_not_read_stands_in_the_json_with_its_line() throws IOException {
        JsonNode report = check(
                        "CREATE TABLE visit (id integer PRIMARY KEY,\n year integer,\n CHECK (odd(year)));", "--json")
                .json();
        JsonNode finding = report.get("findings").get(0);
        assertThat(finding.get("finding").asText()).isEqualTo("rule not read");
        assertThat(finding.toString()).contains("schema.sql:3:");
    }

    @Test
    void a_default_that_the_server_alone_can_work_out_is_refused_where_it_is_needed() throws IOException {
        String schema = schema("CREATE TABLE visit (id integer PRIMARY KEY, year integer DEFAULT nextval('s') + 1);");
        Program given = Program.run(
                "rehearse", schema, "--rows", folder.toString(), "-e", "INSERT INTO visit (id, year) VALUES (3, 2000)");
        assertThat(given.status()).as(given.err()).isZero();
        Program needed =
                Program.run("rehearse", schema, "--rows", folder.toString(), "-e", "INSERT INTO visit (id) VALUES (3)");
        assertThat(needed.status()).isNotZero();
        assertThat(needed.out()).contains("visit.year").contains("nextval");
    }

    @Test
    void statements_over_words_of_sql_need_no_quotes() throws IOException {
        String schema = schema(VISITS);
        Program came = Program.run(
                "rehearse",
                schema,
                "--rows",
                folder.toString(),
                "-e",
                "DELETE FROM visit WHERE year = 1980 AND id = 1");
        assertThat(came.status()).as(came.err()).isZero();
        assertThat(came.out()).contains("1");
    }

    @Test
    void what_meets_no_row_is_said_first_and_may_fail_the_run() throws IOException {
        String schema = schema(VISITS);
        String[] command = {
            "rehearse",
            schema,
            "--rows",
            folder.toString(),
            "-e",
            "DELETE FROM visit WHERE id = 99",
            "--fail-on",
            "warning"
        };
        Program came = Program.run(command);
        assertThat(came.status()).isEqualTo(1);
        assertThat(came.out().lines().limit(4)).anyMatch(line -> line.contains("no row"));
        command[7] = "error";
        assertThat(Program.run(command).status()).isZero();
    }

    @Test
    void a_row_asked_for_that_is_not_there_is_an_error() throws IOException {
        String schema = schema(VISITS);
        Program came = Program.run(
                "rehearse",
                schema,
                "--rows",
                folder.toString(),
                "-e",
                "DELETE FROM visit WHERE id = 1",
                "--why",
                "visit",
                "11");
        assertThat(came.status()).isEqualTo(2);
        assertThat(came.err()).contains("there is no such row").contains("did you mean 1");
    }

    @Test
    void every_statement_that_cannot_be_read_is_named_in_one_run() throws IOException {
        String schema = schema(VISITS);
        Path changes = Files.writeString(
                folder.resolve("changes.sql"), "DELETE FROM vist;\nDELETE FROM visit WHERE yer = 1;\nUPDATE visit;\n");
        Program came = Program.run("rehearse", schema, "--rows", folder.toString(), changes.toString());
        assertThat(came.status()).isEqualTo(2);
        assertThat(came.err())
                .contains("changes.sql:1")
                .contains("changes.sql:2")
                .contains("changes.sql:3");
    }

    @Test
    void names_in_messages_do_not_move_the_cursor() {
        Program came = Program.run("check", "no\u001b[2Jfile.yaml");
        assertThat(came.status()).isEqualTo(2);
        assertThat(came.err()).doesNotContain("\u001b").contains("\\u{1b}");
    }

    @ParameterizedTest
    @ValueSource(strings = {"--undo", "--compare-actions"})
    void options_that_do_not_go_together_are_refused(String option) throws IOException {
        String schema = schema(VISITS);
        Program came = Program.run(
                "rehearse",
                schema,
                "--rows",
                folder.toString(),
                "-e",
                "DELETE FROM visit",
                option,
                "x",
                "--why",
                "visit",
                "1");
        assertThat(came.status()).isEqualTo(2);
        assertThat(came.err()).isNotEmpty();
    }
}
