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

/** What vet says about declarations, each with its place. */
class VetTest {
    @TempDir
    private Path folder;

    private Program vet(String charter, String... options) throws IOException {
        Path file = folder.resolve("charter.yaml");
        Files.writeString(file, charter);
        List<String> arguments = new ArrayList<>(List.of("vet", file.toString()));
        arguments.addAll(List.of(options));
        return Program.run(arguments.toArray(new String[0]));
    }

    /** Each expectation is a weight, a place, and words of the problem and of the way out, divided by bars. */
    private void assertFindings(String charter, List<String> options, String... expected) throws IOException {
        List<String> all = new ArrayList<>(options);
        all.add("--json");
        Program program = vet(charter, all.toArray(new String[0]));
        assertThat(program.err()).isEmpty();
        List<String> found = new ArrayList<>();
        for (JsonNode finding : program.json().get("findings")) {
            String place = finding.get("place").asText().replaceAll(".*charter\\.yaml:", "");
            found.add(finding.get("severity").asText() + " " + place + " "
                    + finding.get("problem").asText() + " ; "
                    + finding.get("remedy").asText());
        }
        assertThat(found).as(String.join("\n", found)).hasSize(expected.length);
        for (int i = 0; i < expected.length; i++) {
            String[] parts = expected[i].split("\\|", -1);
            assertThat(found.get(i)).startsWith(parts[0] + " ");
            for (int j = 1; j < parts.length; j++) {
                assertThat(found.get(i)).contains(parts[j]);
            }
        }
    }

    private void assertFindings(String charter, String... expected) throws IOException {
        assertFindings(charter, List.of(), expected);
    }

    @Test
    void the_demo_is_sound() throws IOException {
        Program program = Program.run("vet", "../demo/charter.yaml", "--around", "hive", "--json");
        assertThat(program.status()).isZero();
        assertThat(program.json().get("answer").asText()).isEqualTo("sound");
        assertThat(program.json().get("around").get("dependants").toString())
                .isEqualTo("[{\"table\":\"visit\",\"steps\":1},{\"table\":\"harvest\",\"steps\":1},"
                        + "{\"table\":\"visit_treatment\",\"steps\":2}]");
        assertThat(program.json().get("many_to_many").toString())
                .isEqualTo("[{\"one\":\"visit\",\"other\":\"treatment\",\"through\":\"visit_treatment\"}]");
        assertThat(program.json().get("load_order").get(0).toString())
                .isEqualTo("[\"keeper\",\"queen\",\"treatment\",\"lot\"]");
        String text = Program.run("vet", "../demo/charter.yaml").out().replaceAll("\\s+", " ");
        assertThat(text)
                .contains(
                        "each row of hive points at exactly one row of apiary (by apiary_id); each row of apiary has from 1 to 40 rows of hive;"
                                + " deleting one of apiary that has some is refused")
                .contains("each row of queen points at one row of its own table or none (by mother_id)");
    }

    @Test
    void keys_and_defaults() throws IOException {
        assertFindings(
                """
                charter: 1
                tables:
                  parent:
                    rows: p.csv
                    columns:
                      parent_id: varchar(10)
                      born: {type: date, default: current_date}
                      size: {type: smallint, default: big}
                      kind: {type: char(1), values: [a, b], default: c}
                      no: {type: integer, generated: always, default: 7}
                      code: {type: varchar(4), length: 2.., default: x}
                    primary_key: parent_id
                    unique:
                      wide: [parent_id, born]
                      once: [born, size]
                      again: [size, born]
                  child:
                    rows: c.csv
                    columns: {id: integer, parent_id: varchar(10)}
                    primary_key: id
                    foreign_keys:
                      one: {columns: parent_id, references: parent}
                  alone: {rows: a.csv, columns: {x: text}}
                """,
                "error|8:30|`big` of `size` is no smallint|not a whole number",
                "error|9:45|`c` of `kind` is not among the values allowed",
                "error|11:45|`x` of `code` is not of the length declared",
                "warning|10:46|numbered by the database and has a default too",
                "warning|14:7|`wide` contains the primary key|leave it out",
                "warning|16:7|`again` says the same as unique key `once`",
                "warning|23:3|`alone` has no primary key|declare what identifies a row",
                "note|6:7|`parent_id` is a text and named like a number",
                "note|23:3|`alone` stands apart");
    }

    @Test
    void links_and_their_ends() throws IOException {
        assertFindings(
                """
                charter: 1
                tables:
                  keeper:
                    rows: k.csv
                    columns:
                      keeper_no: integer
                      name: varchar(20)
                      fee: "numeric(6,2)"
                      born: date
                      rank: {type: smallint, not_null: true}
                    primary_key: keeper_no
                    unique: {by_name: name, by_fee: fee, by_born: born, by_rank: rank}
                  hive:
                    rows: h.csv
                    columns:
                      hive_no: integer
                      keeper_no: integer
                      name: varchar(40)
                      fee: "numeric(7,3)"
                      born: timestamp
                      rank: integer
                      other: {type: integer, not_null: true}
                    primary_key: hive_no
                    unique: {only: keeper_no}
                    foreign_keys:
                      to_name: {columns: name, references: {keeper: name}}
                      to_fee: {columns: fee, references: {keeper: fee}}
                      to_born: {columns: born, references: {keeper: born}}
                      to_rank: {columns: rank, references: {keeper: rank}}
                      to_keeper: {columns: keeper_no, references: keeper}
                      to_same: {columns: keeper_no, references: {keeper: keeper_no}, enforced: no}
                      nulls:
                        columns: other
                        references: keeper
                        on_delete: set null
                        on_update: set default
                      default: {columns: rank, references: keeper, on_delete: set default}
                  stock:
                    rows: s.csv
                    columns: {stock_no: integer, hive_no: integer, shelf: integer}
                    primary_key: stock_no
                    unique: {of_hive: hive_no}
                    foreign_keys:
                      backwards: {columns: stock_no, references: {hive: rank}}
                      turned: {columns: stock_no, references: {hive: keeper_no}}
                """,
                "error|35:9|sets other to null, which may not be null|choose another action",
                "error|36:9|sets `other` to its default, and it has none and may not be null",
                "error|44:38|(rank) of `hive`, which is no key|wrong way round|`hive` (rank) references `stock`",
                "warning|26:17|varchar(40) and `keeper.name` is varchar(20): the child can hold values that no key has",
                "warning|27:16|numeric(7,3) and `keeper.fee` is numeric(6,2): their scales differ",
                "warning|28:17|timestamp and `keeper.born` is date",
                "warning|29:17|integer and `keeper.rank` is smallint: the child can hold numbers",
                "warning|31:7|`to_same` says the same as `to_keeper`|keep one",
                "warning|35:9|deleting a `keeper` reaches `hive` by two roads|no action over `to_name`, set null over `nulls`",
                "warning|37:52|sets `rank` to its default, and it has none: it would become null",
                "warning|45:35|`turned` leads from the primary key of `stock`|`hive` (keeper_no) references `stock`",
                "note|30:7|`to_keeper` is really one to one",
                "note|31:7|`to_same` is really one to one",
                "note|31:70|`to_same` is meant and not enforced",
                "note|44:7|`backwards` is really one to one",
                "note|45:7|`turned` is really one to one");
    }

    @Test
    void deletes_and_circles() throws IOException {
        assertFindings(
                """
                charter: 1
                tables:
                  code:
                    rows: c.csv
                    columns: {code: char(2), name: text}
                    primary_key: code
                  keeper:
                    rows: k.csv
                    columns: {keeper_no: integer, code: {type: char(2), not_null: true}}
                    primary_key: keeper_no
                    foreign_keys:
                      keeper_code: {columns: code, references: code, on_delete: cascade}
                  hive:
                    rows: h.csv
                    columns: {hive_no: integer, keeper_no: integer, fee: integer}
                    primary_key: hive_no
                    foreign_keys:
                      hive_keeper: {columns: keeper_no, references: keeper, on_delete: cascade}
                    totals: fee
                  visit:
                    rows: v.csv
                    columns: {visit_no: integer, hive_no: {type: integer, not_null: true}, keeper_no: integer}
                    primary_key: visit_no
                    foreign_keys:
                      visit_hive: {columns: hive_no, references: hive, on_delete: cascade}
                      visit_keeper: {columns: keeper_no, references: keeper, on_delete: set null}
                  egg:
                    rows: e.csv
                    columns: {egg_no: integer, hen_no: {type: integer, not_null: true}}
                    primary_key: egg_no
                    foreign_keys:
                      egg_hen: {columns: hen_no, references: hen, on_delete: cascade}
                  hen:
                    rows: n.csv
                    columns: {hen_no: integer, egg_no: {type: integer, not_null: true}}
                    primary_key: hen_no
                    foreign_keys:
                      hen_egg: {columns: egg_no, references: egg, on_delete: cascade}
                  step:
                    rows: s.csv
                    columns: {step_no: integer, before: {type: integer, not_null: true}}
                    primary_key: step_no
                    foreign_keys:
                      step_before: {columns: before, references: step}
                  attends:
                    rows: a.csv
                    columns:
                      attends_no: integer
                      keeper_no: {type: integer, not_null: true}
                      visit_no: {type: integer, not_null: true}
                    primary_key: attends_no
                    foreign_keys:
                      who: {columns: keeper_no, references: keeper}
                      what: {columns: visit_no, references: visit}
                """,
                "warning|12:54|a cascade starts at `code`, a table of codes",
                "warning|18:61|whose `fee` would be lost from the sums",
                "warning|18:61|`hive_keeper` may be null|set null would keep the rows",
                "warning|25:56|deleting a `keeper` reaches `visit` by two roads with different orders: set null over `visit_keeper`, cascade over `visit_hive`",
                "warning|32:7|`egg`, `hen` need one another in a circle|nothing can be loaded first",
                "warning|32:51|deletes go round in a circle of cascades through `egg`, `hen`",
                "warning|44:7|every row of `step` needs another one over link `step_before`",
                "warning|51:5|links `keeper` and `visit` under a key of its own: the same pair can stand twice|keeper_no, visit_no",
                "note|3:3|deleting one `code` can reach 3 tables, 3 steps deep: keeper, hive, visit",
                "note|7:3|deleting one `keeper` can reach 2 tables, 2 steps deep: hive, visit");
    }

    @Test
    void what_a_server_would_not_take() throws IOException {
        String charter = """
                charter: 1
                tables:
                  a:
                    rows: a.csv
                    columns: {x: {type: integer, default: 1}, y: {type: integer, not_null: true}}
                    primary_key: x
                    unique: {u: {columns: [x, y], nulls: equal}}
                  b:
                    rows: b.csv
                    columns: {x: {type: integer, default: 1}, y: {type: integer, default: 1}, z: integer}
                    primary_key: z
                    foreign_keys:
                      l1: {columns: x, references: a, on_delete: set default, on_update: cascade, deferrable: deferred}
                      l2: {columns: y, references: a, on_delete: cascade}
                      l3: {columns: [x, y], references: {a: [x, y]}, match: full, on_delete: {set null: [y]}}
                """;
        assertThat(refusals(charter, "postgresql")).isEmpty();
        assertThat(refusals(charter, "mariadb"))
                .containsExactly(
                        "13:39 MariaDB does not know set default",
                        "13:83 MariaDB has no deferrable links",
                        "15:54 MariaDB does not know match full",
                        "15:67 MariaDB writes all columns of a link: it cannot be told which",
                        "7:14 MariaDB takes nulls in a unique key for different ones");
        assertThat(refusals(charter, "sqlite"))
                .containsExactly(
                        "15:54 SQLite does not know match full",
                        "15:67 SQLite writes all columns of a link: it cannot be told which",
                        "7:14 SQLite takes nulls in a unique key for different ones");
        assertThat(refusals(charter, "oracle"))
                .contains("13:39 Oracle does not know set default", "13:63 Oracle has no on update");
        assertThat(refusals(charter, "sqlserver"))
                .contains(
                        "14:39 SQL Server takes no two cascade roads to one table: `b` is reached over `l1` and `l2`",
                        "13:83 SQL Server has no deferrable links");
    }

    private List<String> refusals(String charter, String server) throws IOException {
        List<String> found = new ArrayList<>();
        for (JsonNode finding :
                vet(charter, "--server", server, "--json").json().get("findings")) {
            if (finding.get("severity").asText().equals("error")) {
                found.add(finding.get("place").asText().replaceAll(".*charter\\.yaml:", "") + " "
                        + finding.get("problem").asText());
            }
        }
        found.sort(null);
        return found;
    }

    @Test
    void check_stops_on_errors_of_the_review() throws IOException {
        vet("""
                charter: 1
                tables:
                  a: {rows: a.csv, columns: {x: integer, y: integer}, primary_key: x}
                  b:
                    rows: b.csv
                    columns: {y: integer}
                    primary_key: y
                    foreign_keys: {l: {columns: y, references: {a: y}}}
                """);
        Program check = Program.run("check", folder.resolve("charter.yaml").toString());
        assertThat(check.status()).isEqualTo(2);
        assertThat(check.err()).contains("charter.yaml:8:36: link `l` points at (y) of `a`, which is no key");
    }

    @Test
    void a_schema_is_checked_against_the_rows_of_a_folder() throws IOException {
        Files.writeString(
                folder.resolve("schema.sql"),
                "CREATE TABLE keeper (id int PRIMARY KEY);\n"
                        + "CREATE TABLE hive (id int PRIMARY KEY, keeper_id int REFERENCES keeper, notes jsonb);\n");
        Path rows = Files.createDirectory(folder.resolve("rows"));
        Files.writeString(rows.resolve("keeper.csv"), "id\n1\n");
        Files.writeString(rows.resolve("hive.csv"), "id,keeper_id,notes\n1,1,{}\n2,5,{}\n");
        String schema = folder.resolve("schema.sql").toString();
        Program check = Program.run("check", schema, "--rows", rows.toString());
        assertThat(check.status()).isEqualTo(1);
        assertThat(check.out()).contains("orphan at hive.hive_keeper_id: 1 row").contains("missing: 5");
        assertThat(check.out()).contains("rule not read at hive.notes").contains("there is no type `jsonb` here");
        Program charter = vet("charter: 1\ntables: {t: {rows: t.csv, columns: {a: text}}}", "--rows", rows.toString());
        assertThat(charter.status()).isEqualTo(2);
        assertThat(charter.err()).contains("--rows goes with a SQL schema");
    }

    @Test
    void a_charter_that_is_written_anew_finds_the_same() throws IOException {
        Path demo = Files.createDirectory(folder.resolve("demo"));
        try (var files = Files.list(Path.of("../demo"))) {
            for (Path file : files.toList()) {
                Files.copy(file, demo.resolve(file.getFileName().toString()));
            }
        }
        Path anew = demo.resolve("anew.yaml");
        Program.run("vet", demo.resolve("charter.yaml").toString(), "--write-charter", anew.toString());
        assertThat(Files.readString(anew)).contains("rows: keepers.csv").contains("acyclic: yes");
        assertThat(Files.readString(anew)).contains("personal: yes");
        String before = Program.run("check", demo.resolve("charter.yaml").toString(), "--reveal")
                .out();
        // The commands that it names hold the name of the charter, and lines break there otherwise.
        assertThat(Program.run("check", anew.toString(), "--reveal")
                        .out()
                        .replace("anew.yaml", "charter.yaml")
                        .replaceAll("\\s+", " "))
                .isEqualTo(before.replaceAll("\\s+", " "));
    }

    @Test
    void a_charter_is_written_in_the_words_of_the_w3c_and_checked_by_them(@TempDir Path folder) throws IOException {
        Files.writeString(folder.resolve("hive.csv"), "id,apiary\n1,7\n1,8\nx,7\n");
        Files.writeString(folder.resolve("apiary.csv"), "id\n7\n");
        Path charter = Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                tables:
                  apiary: {rows: apiary.csv, columns: {id: integer}, primary_key: id}
                  hive:
                    rows: hive.csv
                    columns: {id: integer, apiary: integer}
                    primary_key: id
                    foreign_keys: {hive_apiary: {columns: apiary, references: apiary, on_delete: cascade}}
                """);
        Path metadata = folder.resolve("bees-metadata.json");
        Program written = Program.run("vet", charter.toString(), "--write-charter", metadata.toString());
        assertThat(written.err()).contains("what becomes of children (hive.hive_apiary)");
        Program check = Program.run("check", metadata.toString(), "--json");
        assertThat(check.json().get("findings"))
                .extracting(finding -> finding.get("finding").asText() + finding.get("rows"))
                .containsExactlyInAnyOrder("type mismatch1", "duplicate2", "orphan1");
        assertThat(Program.run("vet", charter.toString(), "--write-charter", "x.json")
                        .err())
                .contains("ends in .yaml")
                .contains("-metadata.json");
    }
}
