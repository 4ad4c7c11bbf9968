package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the checks mean, one small case at a time; the random cases of the conformance test cover their combinations. */
class MeaningsOfChecksTest {
    @TempDir
    private Path folder;

    private void file(String name, String... lines) throws IOException {
        Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
    }

    private JsonNode check(String... tables) throws IOException {
        file("charter.yaml", "charter: 1", "tables:\n  " + String.join("\n  ", tables));
        Program program = Program.run("check", folder.resolve("charter.yaml").toString(), "--json", "--examples", "50");
        assertThat(program.status()).as(program.err()).isIn(0, 1);
        return program.json();
    }

    /** Each finding as {@code kind at: rows}. */
    private static List<String> findings(JsonNode result) {
        List<String> findings = new ArrayList<>();
        for (JsonNode finding : result.get("findings")) {
            List<String> rows = new ArrayList<>();
            finding.get("examples").forEach(row -> rows.add(row.get("row").asText()));
            findings.add(
                    finding.get("finding").asText() + " " + finding.get("at").asText() + ": " + String.join(" ", rows));
        }
        return findings;
    }

    private static List<String> hints(JsonNode result) {
        List<String> hints = new ArrayList<>();
        for (JsonNode row : result.get("findings").get(0).get("examples")) {
            hints.add(row.has("hint") ? row.get("hint").get("text").asText() : "none");
        }
        return hints;
    }

    @Test
    void the_order_of_columns_in_a_composite_key_matters() throws IOException {
        file("p.csv", "a,b", "2,3", "3,2", "2,3");
        file("c.csv", "x,y", "2,3", "3,2", "3,3");
        JsonNode result = check(
                "p: {rows: p.csv, columns: {a: integer, b: integer}, primary_key: [a, b]}",
                "c: {rows: c.csv, columns: {x: integer, y: integer}, foreign_keys: {l: {columns: [y, x], references: p}}}");
        assertThat(findings(result)).containsExactly("duplicate primary_key: 1 3", "orphan l: 3");
    }

    @Test
    void values_are_compared_and_not_their_spelling() throws IOException {
        file("p.csv", "n,d,u", "007,20230205,{0F0E0D0C0B0A49088706050403020100}", "7.50,2024-02-29,");
        file(
                "c.csv",
                "n,d,u",
                "7.0,2023-02-05 00:00,0f0e0d0c-0b0a-4908-8706-050403020100",
                "75e-1,2024-02-29T00:00:00,");
        JsonNode result = check(
                "p: {rows: p.csv, columns: {n: 'numeric(6,2)', d: date, u: uuid}, primary_key: n, unique: {d: d, u: u}}",
                "c:",
                "  rows: c.csv",
                "  columns: {n: numeric, d: timestamp, u: uuid}",
                "  foreign_keys:",
                "    n: {columns: n, references: p}",
                "    d: {columns: d, references: {p: d}}",
                "    u: {columns: u, references: {p: u}}");
        assertThat(result.get("answer").asText())
                .as(findings(result).toString())
                .isEqualTo("sound");
    }

    @Test
    void an_ill_typed_value_equals_nothing_not_even_itself() throws IOException {
        file("p.csv", "a", "x", "x", "1");
        file("c.csv", "a", "x", "1");
        JsonNode result = check(
                "p: {rows: p.csv, columns: {a: integer}, primary_key: a}",
                "c: {rows: c.csv, columns: {a: integer}, foreign_keys: {l: {columns: a, references: p}}}");
        assertThat(findings(result)).containsExactly("type mismatch a: 1 2", "type mismatch a: 1", "orphan l: 1");
        assertThat(result.get("links").get(0).get("ill_typed").asLong()).isEqualTo(1);
    }

    @Test
    void a_faulty_parent_is_still_a_parent() throws IOException {
        file("p.csv", "a,b,up", "1,x,9", "1,2,", "2,2,1");
        file("c.csv", "a", "1", "2");
        JsonNode result = check(
                "p: {rows: p.csv, columns: {a: integer, b: integer, up: integer}, primary_key: a,"
                        + " foreign_keys: {up: {columns: up, references: p}}}",
                "c: {rows: c.csv, columns: {a: integer}, foreign_keys: {l: {columns: a, references: p}}}");
        assertThat(findings(result))
                .containsExactly("type mismatch b: 1", "duplicate primary_key: 1 2", "orphan up: 1");
    }

    @Test
    void the_three_matches_differ_where_something_is_null() throws IOException {
        file("p.csv", "a,b", "1,1", "2,2");
        file("c.csv", "a,b", "1,1", "1,2", "1,", "9,", ",");
        String parent = "p: {rows: p.csv, columns: {a: integer, b: integer}, primary_key: [a, b]}";
        String child =
                "c: {rows: c.csv, columns: {a: integer, b: integer}, foreign_keys: {l: {columns: [a, b], references: p, match: %s}}}";
        assertThat(findings(check(parent, child.formatted("simple")))).containsExactly("orphan l: 2");
        assertThat(findings(check(parent, child.formatted("full"))))
                .containsExactly("orphan l: 2", "half-null link l: 3 4");
        JsonNode partial = check(parent, child.formatted("partial"));
        assertThat(findings(partial)).containsExactly("orphan l: 2 4");
        JsonNode link = partial.get("links").get(0);
        assertThat(link.get("judged").asLong()).isEqualTo(4);
        assertThat(link.get("nulls").asLong()).isEqualTo(1);
        assertThat(link.get("half_nulls").asLong()).isEqualTo(2);
    }

    @Test
    void circles_of_tables_and_rows_that_point_at_themselves_are_judged() throws IOException {
        file("a.csv", "id,b", "1,1", "2,3");
        file("b.csv", "id,a,self", "1,2,1", "2,9,3");
        JsonNode result = check(
                "a: {rows: a.csv, columns: {id: integer, b: integer}, primary_key: id, foreign_keys: {to_b: {columns: b, references: b}}}",
                "b: {rows: b.csv, columns: {id: integer, a: integer, self: integer}, primary_key: id,"
                        + " foreign_keys: {to_a: {columns: a, references: a}, self: {columns: self, references: b}}}");
        assertThat(findings(result)).containsExactlyInAnyOrder("orphan to_b: 2", "orphan to_a: 2", "orphan self: 2");
    }

    @Test
    void hints_look_for_the_parent_that_was_meant() throws IOException {
        file("p.csv", "k", "Heather", "0815-A", "Bråten", "12", "2023-02-05", "Meadow", "Meadaw");
        file(
                "c.csv",
                "k",
                "heather",
                "' Heather'",
                "815-A",
                "Bra\u030Aten",
                "12.0",
                "05.02.2023",
                "Haether",
                "Meadew",
                "n/a",
                "Sainfoin");
        JsonNode result = check(
                "p: {rows: p.csv, columns: {k: text}, primary_key: k}",
                "c: {rows: {file: c.csv, quote: \"'\"}, columns: {k: text}, foreign_keys: {l: {columns: k, references: p}}}");
        assertThat(hints(result))
                .containsExactly(
                        "perhaps Heather, in another case",
                        "perhaps Heather, but for blanks at an end",
                        "perhaps 0815-A, but for leading zeros",
                        "perhaps Bråten, in another Unicode form",
                        "perhaps 12, written otherwise",
                        "perhaps 2023-02-05, written otherwise",
                        "perhaps Heather, one keystroke away",
                        "perhaps Meadaw or Meadow, one keystroke away",
                        "probably stands for nothing",
                        "none");
    }

    @Test
    void a_rule_is_broken_when_it_is_false_and_not_when_it_is_unknown() throws IOException {
        file("t.csv", "a,b,c", "1,2,x", "2,1,x", ",1,x", "7,0,x", "z,1,x", "-7,2,X%");
        String table = "t: {rows: t.csv, columns: {a: integer, b: integer, c: text}, rules: {r: \"%s\"}}";
        JsonNode result = check(table.formatted("a < b"));
        assertThat(findings(result)).contains("broken rule r: 2 4");
        JsonNode rule = result.get("rules").get(0);
        assertThat(rule.get("judged").asLong()).isEqualTo(5);
        assertThat(rule.get("not_judged").asLong()).isEqualTo(1);
        assertThat(rule.get("unknown").asLong()).isEqualTo(1);
        assertThat(findings(check(table.formatted("a / b = -3 or a / b <= 2")))).contains("broken rule r: 4");
        assertThat(findings(check(table.formatted("c like 'x%' or c like '%!%' escape '!'"))))
                .noneMatch(f -> f.startsWith("broken"));
        assertThat(findings(check(table.formatted("b in (1, 2) and not b between 5 and 9"))))
                .contains("broken rule r: 4");
    }

    @Test
    void children_are_counted_for_every_parent_row() throws IOException {
        file("p.csv", "a", "1", "2", "3", "2");
        file("c.csv", "a", "1", "1", "1", "2", "9");
        JsonNode result = check(
                "p: {rows: p.csv, columns: {a: integer}, unique: {u: a}}",
                "c: {rows: c.csv, columns: {a: integer}, foreign_keys: {l: {columns: a, references: {p: a}, children: 1..2}}}");
        assertThat(findings(result))
                .containsExactly("duplicate u: 2 4", "orphan l: 5", "too few children l: 3", "too many children l: 1");
    }

    @Test
    void a_warning_fails_only_where_it_is_asked_to() throws IOException {
        file("t.csv", "a", "1", "1");
        file(
                "charter.yaml",
                "charter: 1",
                "tables:",
                "  t: {rows: t.csv, columns: {a: integer}, primary_key: {columns: a, severity: warning}}");
        String charter = folder.resolve("charter.yaml").toString();
        assertThat(Program.run("check", charter).status()).isZero();
        assertThat(Program.run("check", charter, "--fail-on", "warning").status())
                .isEqualTo(1);
        assertThat(Program.run("check", charter).out()).contains("not sound").contains("warning  duplicate");
    }

    @Test
    void duplicates_across_parts_name_file_and_row() throws IOException {
        file("t-1.csv", "a", "1", "2");
        file("t-2.csv", "a", "2", "3", "2");
        JsonNode result = check("t: {rows: 't-*.csv', columns: {a: integer}, primary_key: a}");
        JsonNode finding = result.get("findings").get(0);
        List<String> places = new ArrayList<>();
        finding.get("examples")
                .forEach(row -> places.add(
                        row.get("file").asText() + ":" + row.get("row").asText()));
        assertThat(places).containsExactly("t-1.csv:2", "t-2.csv:1", "t-2.csv:3");
        assertThat(finding.get("groups").asLong()).isEqualTo(1);
        assertThat(finding.get("excess").asLong()).isEqualTo(2);
    }
}
