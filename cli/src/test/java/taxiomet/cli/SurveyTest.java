package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;

/** What a survey finds in tables of which nothing is declared. */
class SurveyTest {
    @TempDir
    private Path folder;

    private JsonNode survey(Path data) {
        Program program = Program.run("survey", data.toString(), "--json");
        assertThat(program.status()).as(program.err()).isZero();
        return program.json();
    }

    private void write(String file, String text) throws IOException {
        Files.writeString(folder.resolve(file), text);
    }

    private static Set<String> texts(JsonNode list) {
        Set<String> texts = new TreeSet<>();
        list.forEach(text -> texts.add(text.asText()));
        return texts;
    }

    private static JsonNode column(JsonNode survey, String table, String column) {
        return StreamSupport.stream(survey.get("tables").spliterator(), false)
                .filter(t -> t.get("table").asText().equals(table))
                .flatMap(t -> StreamSupport.stream(t.get("columns").spliterator(), false))
                .filter(c -> c.get("column").asText().equals(column))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void every_key_and_link_of_the_demo_is_proposed() throws Exception {
        JsonNode survey = survey(Path.of("../demo"));
        List<Map.Entry<String, Set<String>>> keys = new ArrayList<>();
        survey.get("keys").forEach(key -> keys.add(Map.entry(key.get("table").asText(), texts(key.get("columns")))));
        Set<String> links = new TreeSet<>();
        survey.get("links").forEach(link -> {
            if (link.get("chosen").asBoolean()) {
                links.add(link.get("child").asText()
                        + texts(link.get("columns"))
                        + link.get("parent").asText()
                        + texts(link.get("parent_columns")));
            }
        });
        Charter charter =
                Charters.read(Path.of("../demo/charter.yaml"), Optional.empty()).charter();
        for (Table table : charter.tables()) {
            for (Key key : table.keys()) {
                // Or what is contained in it: where the name alone is unique, so is every combination with it.
                assertThat(keys).anySatisfy(found -> {
                    assertThat(found.getKey()).isEqualTo(found(charter, table.name()));
                    assertThat(key.columns()).containsAll(found.getValue());
                });
            }
            table.links()
                    .forEach(link -> assertThat(links)
                            .contains(found(charter, table.name())
                                    + new TreeSet<>(link.columns())
                                    + found(charter, link.parent())
                                    + new TreeSet<>(link.parentColumns())));
        }
        assertThat(links).hasSizeLessThan(16);
    }

    /** A table is called by its file where nothing is declared. */
    private static String found(Charter charter, String table) {
        return charter.table(table).rows().path().replaceAll("(-\\*|\\.csv)$", "");
    }

    @Test
    void the_charter_that_it_writes_is_vetted_and_checked_at_once() throws IOException {
        Path charter = folder.resolve("first.yaml");
        Program survey = Program.run("survey", "../demo", "--write-charter", charter.toString(), "--quiet");
        assertThat(survey.status()).as(survey.err()).isZero();
        assertThat(Files.readString(charter))
                .contains("# the first column, named like a key")
                .contains("# (surname, first_name) would identify a row too")
                .contains("date but for 1 value (2019-02-29)")
                .contains("format: \"d.M.yyyy\"");
        Program vet = Program.run("vet", charter.toString(), "--json");
        assertThat(vet.json().get("answer").asText()).as(vet.out()).isEqualTo("sound");
        Program check = Program.run("check", charter.toString());
        assertThat(check.status()).as(check.err()).isEqualTo(1);
        assertThat(check.out())
                .contains("orphan at hives.hives_apiaries: 9 rows")
                .contains("duplicate at hives.primary_key: 2 rows")
                .contains("missing: n/a");
    }

    @Test
    void columns_are_seen_for_what_they_are() throws IOException {
        StringBuilder rows = new StringBuilder("code;amount;day;mixed;flag;stamp;nothing\n");
        for (int i = 1; i <= 40; i++) {
            rows.append("00")
                    .append(100 + i)
                    .append(';')
                    .append(i)
                    .append(",5;")
                    .append(i % 28 + 1)
                    .append(".03.2024;")
                    .append(i == 7 ? "ABC" : "x" + i)
                    .append(';')
                    .append(i % 2 == 0 ? "yes" : "no")
                    .append(";2024-03-01 10:")
                    .append(10 + i)
                    .append(";")
                    .append(i % 3 == 0 ? "n/a" : "")
                    .append('\n');
        }
        write("odd.csv", rows.toString());
        JsonNode survey = survey(folder);
        assertThat(column(survey, "odd", "code").get("type").asText()).isEqualTo("varchar(5)");
        assertThat(texts(column(survey, "odd", "code").get("remarks")))
                .contains("numbers with leading zeros: codes, taken for texts");
        assertThat(column(survey, "odd", "amount").get("type").asText()).isEqualTo("numeric(3,1)");
        assertThat(column(survey, "odd", "amount").get("decimal").asText()).isEqualTo(",");
        assertThat(column(survey, "odd", "day").get("format").asText()).isEqualTo("d.M.yyyy");
        assertThat(texts(column(survey, "odd", "mixed").get("remarks"))).contains("1 in another case");
        assertThat(column(survey, "odd", "flag").get("type").asText()).isEqualTo("varchar(3)");
        assertThat(column(survey, "odd", "stamp").get("type").asText()).isEqualTo("timestamp");
        assertThat(column(survey, "odd", "nothing").get("nulls").asInt()).isEqualTo(27);
        assertThat(texts(column(survey, "odd", "nothing").get("remarks"))).contains("may stand for nothing: n/a");
    }

    @Test
    void an_almost_key_is_shown_with_the_rows_that_break_it() throws IOException {
        StringBuilder rows = new StringBuilder("member_id,surname,phone\n");
        for (int i = 1; i <= 60; i++) {
            rows.append(i == 50 ? 49 : i)
                    .append(",Name")
                    .append(i % 20)
                    .append(",07")
                    .append(i == 8 ? 7 : i)
                    .append('\n');
        }
        write("members.csv", rows.toString());
        String text = Program.run("survey", folder.toString()).out().replaceAll("\\s+", " ");
        assertThat(text)
                .contains("rows are identified by (member_id), but for 1 repeated row (rows 49, 50)")
                .contains("(phone) would do too, but for 1 repeated row (rows 7, 8)");
    }

    @Test
    void keys_and_links_are_tried_by_hand() throws IOException {
        write("a.csv", "x,y\n1,1\n2,1\n3,2\n");
        write("b.csv", "z,x\n1,1\n2,1\n3,9\n4,\n");
        Program key = Program.run("survey", folder.toString(), "--key", "a=y", "--key", "a=x,y");
        assertThat(key.status()).isEqualTo(1);
        assertThat(key.out()).contains("a=y: not unique").contains("a=x,y: unique");
        Program link = Program.run("survey", folder.toString(), "--link", "b.x=a.y");
        assertThat(link.status()).isEqualTo(1);
        assertThat(link.out().replaceAll("\\s+", " "))
                .contains("b.x=a.y: not covered")
                .contains("2 of 3 judged rows of b have a parent; 1 null")
                .contains("a join over it would make 4 rows: each row of b would stand 2.0 times");
        Program wrong = Program.run("survey", folder.toString(), "--key", "a=xx");
        assertThat(wrong.status()).isEqualTo(2);
        assertThat(wrong.err()).contains("there is no column `xx`; did you mean `x`?");
    }

    @Test
    void all_tables_are_told_on_one_screen_and_each_in_full_where_it_is_asked_for() {
        String text = Program.run("survey", "../demo").out();
        assertThat(text)
                .containsPattern("hives +210  hive_id \\(almost\\) +2 +2 +3\n")
                .contains("(hive_id) is a key but for 1 repeated row (rows 118, 151)")
                .containsPattern("hives \\(apiary_id\\) +apiaries \\(apiary_id\\) +95.7% +0 to 4 +name\n")
                .doesNotContain("langstroth");
        String one = Program.run("survey", "../demo", "--only", "hives").out();
        assertThat(one).contains("langstroth (54)").doesNotContain("queens  190 rows");
        String all = Program.run("survey", "../demo", "--full").out();
        assertThat(all).contains("langstroth (54)").contains("queens  190 rows").doesNotContain("--full shows all");
        assertThat(Program.run("survey", "../demo", "--only", "hive").err()).contains("did you mean `hives`?");
        assertThat(Program.run("survey", "../demo", "--json", "--full").status())
                .isEqualTo(2);
    }

    @Test
    void of_many_tables_those_with_most_links_come_first() throws IOException {
        for (int table = 0; table < 30; table++) {
            StringBuilder rows =
                    new StringBuilder("t" + table + "_id,up_id\n".replace("up_id", table == 0 ? "x" : "t0_id"));
            for (int i = 1; i <= 40; i++) {
                rows.append(i).append(',').append(1 + i * 7 % 40).append('\n');
            }
            write("t" + table + "s.csv", rows.toString());
        }
        String text = Program.run("survey", folder.toString()).out();
        assertThat(text).containsPattern("t0s +40  t0_id +29").contains("tables with fewer links; --full shows all");
        assertThat(text.lines().count()).isLessThan(60);
        assertThat(Program.run("survey", folder.toString(), "--full").out()).contains("t29s");
    }

    @Test
    void a_sample_is_never_told_as_the_whole() throws IOException {
        StringBuilder rows = new StringBuilder("n,word\n");
        for (int i = 1; i <= 60_000; i++) {
            rows.append(i).append(",word ").append(i % 700).append('\n');
        }
        write("words.csv", rows.toString());
        Program sampled = Program.run("survey", folder.toString(), "--sample", "100");
        assertThat(sampled.out())
                .containsPattern("words +[0-9,]+\\+  n")
                .contains("only the first rows were looked at");
        JsonNode json = Program.run("survey", folder.toString(), "--sample", "100", "--json")
                .json();
        assertThat(json.get("tables").get(0).get("sampled").asBoolean()).isTrue();
        assertThat(json.get("tables").get(0).get("rows").asInt()).isBetween(100, 59_999);
        assertThat(Program.run("survey", folder.toString(), "--json")
                        .json()
                        .get("tables")
                        .get(0)
                        .get("rows")
                        .asInt())
                .isEqualTo(60_000);
        assertThat(Program.run("survey", folder.toString(), "--sample", "-1").status())
                .isEqualTo(2);
    }

    @Test
    void what_is_perhaps_a_link_is_a_declaration_behind_its_mark() throws IOException {
        Path charter = folder.resolve("draft.yaml");
        Program.run("survey", "../demo", "--write-charter", charter.toString());
        String draft = Files.readString(charter);
        assertThat(draft).contains("# perhaps, without the #: ");
        String on = draft.replaceAll("(?m)^( +)# (\\w+: \\{columns: .*references: .*\\})$", "$1$2");
        assertThat(on).isNotEqualTo(draft);
        Files.writeString(charter, on);
        // What is only perhaps so may make a circle; but it can be declared, and checked.
        JsonNode vetted = Program.run("vet", charter.toString(), "--json").json();
        vetted.get("findings")
                .forEach(finding -> assertThat(finding.get("severity").asText())
                        .as(finding.toString())
                        .isNotEqualTo("error"));
        assertThat(Program.run("check", charter.toString()).status()).isEqualTo(1);
    }

    @Test
    void what_is_said_does_not_depend_on_how_many_threads_said_it() throws IOException {
        StringBuilder rows = new StringBuilder("n,price,word\n");
        Random random = new Random(4);
        for (int i = 1; i <= 200_000; i++) {
            // Some values in many rows, but none in so many that it was sure to be seen at once.
            int price = random.nextInt(5) == 0 ? random.nextInt(900) : random.nextInt(60_000);
            rows.append(i)
                    .append(',')
                    .append(price)
                    .append(",word ")
                    .append(price % 30_000)
                    .append('\n');
        }
        write("prices.csv", rows.toString());
        JsonNode one = Program.run("survey", folder.toString(), "--threads", "1", "--json")
                .json();
        JsonNode several = Program.run("survey", folder.toString(), "--threads", "4", "--json")
                .json();
        assertThat(several.get("tables")).isEqualTo(one.get("tables"));
        assertThat(several.get("keys")).isEqualTo(one.get("keys"));
    }
}
