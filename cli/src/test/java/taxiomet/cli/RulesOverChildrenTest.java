package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Rules over what children come to, from the charter to the answer of a check and of a rehearsal. */
class RulesOverChildrenTest {
    @TempDir
    private Path folder;

    @BeforeEach
    void writeTables() throws Exception {
        Files.writeString(folder.resolve("mix.csv"), "mix,kilos\n1,7.50\n2,3.00\n3,0\n");
        Files.writeString(folder.resolve("batch.csv"), "id,mix,kilos\n1,1,5.00\n2,1,2.5\n3,2,3.00\n");
        writeRule("kilos = coalesce(sum(batch.batch_mix.kilos), 0)");
    }

    private void writeRule(String rule) throws Exception {
        Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                tables:
                  mix:
                    rows: mix.csv
                    columns: {mix: integer, kilos: "numeric(9,2)"}
                    primary_key: mix
                    rules: {adds_up: "%s"}
                  batch:
                    rows: batch.csv
                    columns: {id: integer, mix: integer, kilos: "numeric(9,2)"}
                    primary_key: id
                    foreign_keys: {batch_mix: {columns: mix, references: mix, on_delete: cascade}}
                """.formatted(rule));
    }

    private Program run(String command, String... more) {
        List<String> words = new java.util.ArrayList<>(
                List.of(command, folder.resolve("charter.yaml").toString()));
        words.addAll(List.of(more));
        return Program.run(words.toArray(new String[0]));
    }

    @Test
    void both_sides_are_shown_where_they_differ() throws Exception {
        assertThat(run("check").status()).isZero();
        Files.writeString(folder.resolve("batch.csv"), "id,mix,kilos\n1,1,5.00\n2,1,2\n3,3,3.00\n4,3,much\n");
        Program check = run("check", "--evidence", folder.resolve("out").toString());
        assertThat(check.status()).isEqualTo(1);
        assertThat(check.out())
                .contains("7.50   sum(batch.batch_mix.kilos) is 7", "3.00   sum(batch.batch_mix.kilos) is null")
                .contains("1 row was not judged: a value of theirs or of their children is not of its");
        assertThat(Files.readString(folder.resolve("out/02-mix-adds_up-broken_rule.csv")))
                .contains("7.50", "the condition is false: sum(batch.batch_mix.kilos) is 7");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            DELETE FROM batch WHERE id = 2                 | broken rule at adds_up, table mix
            UPDATE batch SET mix = 3 WHERE id = 3          | broken rule at adds_up, table mix
            INSERT INTO batch (id, mix, kilos) VALUES (9, 2, 1) | broken rule at adds_up, table mix
            UPDATE mix SET kilos = 8 WHERE mix = 1         | broken rule at adds_up, table mix
            """)
    void a_rehearsal_is_not_refused_and_says_what_it_breaks(String change, String finding) {
        Program rehearsal = run("rehearse", "-e", change, "--json");
        assertThat(rehearsal.status()).isEqualTo(1);
        assertThat(rehearsal.json().get("answer").asText()).startsWith("accepted");
        assertThat(rehearsal.json().get("findings_added").get(0).get("finding").asText())
                .isEqualTo("broken rule");
        assertThat(rehearsal.json().get("findings_added").get(0).get("at").asText())
                .isEqualTo("adds_up");
    }

    @Test
    void a_change_that_keeps_the_sum_adds_nothing() {
        Program rehearsal = run(
                "rehearse",
                "-e",
                "UPDATE batch SET kilos = 2 WHERE id = 1",
                "-e",
                "UPDATE batch SET kilos = 5.5 WHERE id = 2",
                "-e",
                "DELETE FROM mix WHERE mix = 2",
                "--json");
        assertThat(rehearsal.status()).as(rehearsal.out()).isZero();
        assertThat(rehearsal.json().get("findings_added")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            sum(batch.batch_mx.kilos) > 0   | table `batch` has no link to `mix` that is called `batch_mx`; did you mean `batch_mix`?
            sum(batsh.batch_mix.kilos) > 0  | there is no table `batsh`; did you mean `batch`?
            sum(batch.batch_mix.kilo) > 0   | there is no column `kilo`; did you mean `kilos`?
            sum(batch.batch_mix) > 0        | sum takes the table of the children, its link and a column, as in sum(table.link.column)
            count(kilos) > 0                | count takes the table of the children, its link and perhaps a column, as in count(table.link)
            sum(kilos + 1) > 0              | sum takes the table of the children
            totl(batch.batch_mix) > 0       | there is no function `totl`
            """)
    void wrong_names_are_answered_with_what_was_meant(String rule, String problem) throws Exception {
        writeRule(rule);
        Program check = run("check");
        assertThat(check.status()).isEqualTo(2);
        assertThat(check.err()).contains(problem);
    }
}
