package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Rows that are probably one thing entered twice, on their way through the commands. */
class AlikeTest {
    private static final String PATIENTS = """
            pid,name,born,town,ward
            1,Ada Marrow,1984-03-12,Fen,W1
            2,Bo Thistle,1990-07-01,Mere,W1
            3,"MARROW, Ada",1984-12-03,,W1
            4,Cy Osier,2001-01-01,Fen,W1
            5,Bo Thistle,1991-07-01,Mere,W1
            """;

    @TempDir
    private Path folder;

    @BeforeEach
    void write_the_tables() throws IOException {
        Files.writeString(folder.resolve("patients.csv"), PATIENTS);
        Files.writeString(folder.resolve("wards.csv"), "ward\nW1\n");
        writeCharter("");
    }

    private void writeCharter(String accept) throws IOException {
        Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                title: Infirmary
                tables:
                  ward: {rows: wards.csv, columns: {ward: text}, primary_key: ward}
                  patient:
                    rows: patients.csv
                    columns: {pid: integer, name: {type: text, personal: yes}, born: date, town: text, ward: text}
                    primary_key: pid
                    foreign_keys:
                      patient_ward: {columns: ward, references: ward}
                    alike:
                      same_patient: {columns: [name, born, town], agree: 2, never_differ: born}
                """ + accept);
    }

    private Program run(String command, String... options) {
        List<String> arguments =
                new ArrayList<>(List.of(command, folder.resolve("charter.yaml").toString()));
        arguments.addAll(List.of(options));
        return Program.run(arguments.toArray(new String[0]));
    }

    @Test
    void check_warns_of_them_and_names_no_personal_value() {
        Program check = run("check");
        assertThat(check.status()).isZero();
        assertThat(check.out())
                .contains("2 of name, born and town agree, and born does not differ")
                .doesNotContain("Marrow");
        assertThat(run("check", "--fail-on", "warning").status()).isEqualTo(1);
        JsonNode finding = run("check", "--json").json().get("findings").get(0);
        assertThat(finding.get("finding").asText()).isEqualTo("likely double");
        assertThat(finding.get("rows").asLong()).isEqualTo(2);
        assertThat(finding.get("pairs").asLong()).isEqualTo(1);
        assertThat(finding.get("groups").asLong()).isEqualTo(1);
        assertThat(finding.get("examples").get(0).get("problem").asText())
                .isEqualTo("as row 3: name words in another order; born day and month changed round; town not in both");
    }

    @Test
    void a_rehearsal_says_which_a_change_adds_and_mends() {
        Program added = run(
                "rehearse",
                "--json",
                "--reveal",
                "-e",
                "INSERT INTO patient VALUES (6, 'Cy Osyer', '2001-01-01', 'Mere', 'W1')");
        assertThat(added.status()).as(added.err()).isEqualTo(1);
        assertThat(added.out()).contains("likely double");
        Program mended = run("rehearse", "--reveal", "-e", "DELETE FROM patient WHERE pid = 3");
        assertThat(mended.status()).isZero();
        assertThat(mended.out()).contains("findings mended").contains("likely double at patient.same_patient");
        Program untouched = run("rehearse", "--reveal", "-e", "UPDATE patient SET ward = NULL WHERE pid = 3");
        assertThat(untouched.out()).doesNotContain("likely double");
    }

    @Test
    void sift_sets_nobody_aside_for_likeness() throws IOException {
        Program sift = run("sift", "--into", folder.resolve("s").toString(), "--reveal");
        assertThat(sift.status()).as(sift.err()).isZero();
        assertThat(Files.readString(folder.resolve("s/sound/patients.csv"))).isEqualTo(PATIENTS);
    }

    @Test
    void two_things_are_borne_until_one_of_them_changes() throws IOException {
        writeCharter("""
                accept:
                  - {finding: likely double, at: same_patient, rows: [1, 3], reason: mother and daughter}
                """);
        Program check = run("check", "--fail-on", "warning");
        assertThat(check.status()).isZero();
        assertThat(check.out()).contains("mother and daughter");
    }

    @Test
    void a_docket_made_without_personal_values_is_read_back_with_them() throws IOException {
        Path docket = folder.resolve("docket.csv");
        String key = folder.resolve("key").toString();
        assertThat(run("docket", "--report", docket.toString(), "--key-file", key)
                        .status())
                .isZero();
        List<String> lines = Files.readAllLines(docket);
        String choice = "merge it into 1";
        assertThat(lines.get(2)).contains(choice);
        int at = List.of(lines.get(0).split(",")).indexOf("decision");
        assertThat(at).isPositive();
        lines.set(2, lines.get(2).replaceFirst("(comes from),", "$1," + choice));
        Files.write(docket, lines);
        Path into = folder.resolve("decided");
        Program rehearse = run("rehearse", docket.toString(), "--reveal", "--into", into.toString(), "--key-file", key);
        assertThat(rehearse.status()).as(rehearse.out() + rehearse.err()).isZero();
        assertThat(Files.readString(into.resolve("patients.csv"))).doesNotContain("MARROW");
    }

    @Test
    void trace_and_ddl_and_compare_know_the_rule() throws IOException {
        assertThat(run("trace", "patient", "3").out()).contains("likely double at same_patient: as row 1");
        assertThat(run("ddl", "--server", "postgresql").out()
                        + run("ddl", "--server", "postgresql").err())
                .contains("likely doubles of patient (same_patient)");
        Path earlier = folder.resolve("earlier.yaml");
        Files.copy(folder.resolve("charter.yaml"), earlier);
        Files.writeString(
                folder.resolve("charter.yaml"), Files.readString(earlier).replace("agree: 2", "agree: 3"));
        Program compare = Program.run(
                "compare", earlier.toString(), folder.resolve("charter.yaml").toString());
        assertThat(compare.out()).contains("same_patient").contains("name, born and town agree");
    }
}
