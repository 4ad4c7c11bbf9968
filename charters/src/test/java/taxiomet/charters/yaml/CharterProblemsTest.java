package taxiomet.charters.yaml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.assertj.core.api.InstanceOfAssertFactories;
import org.junit.jupiter.api.Test;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;

/** Every mistake in a charter is answered with its line, its column and what was probably meant, all in one run. */
class CharterProblemsTest {
    private static List<String> problemsOf(String charter) {
        return problemsOf("charter.yaml", charter);
    }

    private static List<String> problemsOf(String file, String charter) {
        CharterException e = catchThrowableOfType(
                CharterException.class,
                () -> CharterReader.read(Path.of(file), charter.getBytes(StandardCharsets.UTF_8)));
        assertThat(e).as("the charter should have been refused").isNotNull();
        return e.problems().stream().map(Problem::toString).toList();
    }

    /** Each expectation is a place and words that the problem there must hold, divided by bars; in the order of the places. */
    private static void assertProblems(String charter, String... expected) {
        List<String> problems = problemsOf(charter);
        assertThat(problems).as(String.join("\n", problems)).hasSize(expected.length);
        for (int i = 0; i < expected.length; i++) {
            String[] parts = expected[i].split("\\|", -1);
            assertThat(problems.get(i)).startsWith("charter.yaml:" + parts[0] + ": ");
            for (int j = 1; j < parts.length; j++) {
                assertThat(problems.get(i)).contains(parts[j]);
            }
        }
    }

    @Test
    void wrong_keys_and_kinds() {
        assertProblems(
                """
                charter: 2
                titel: Honey
                defaults:
                  files: {delimitr: ";", quote: "''", encoding: UTF7, header: maybe, null_words: NULL}
                  server: postgres
                  fils: 1
                tables:
                  keeper:
                    row: keepers.csv
                    columns:
                      keeper_id: intger
                      name: {typ: text}
                      born: {type: varchar(0), not_nul: yes}
                      email: {type: text, not_null: maybe, compare: ignore-case, severity: eror}
                      age: {type: smallint, length: 1-3, generated: sometimes, decimal: ";"}
                    primary_key: {colums: keeper_id}
                    label: []
                  hive: hives.csv
                  queen: {rows: queens.csv}
                """,
                "1:10|version `2`|`charter: 1`",
                "2:1|no key `titel`|`title`",
                "4:11|no key `delimitr`|`delimiter`",
                "4:33|one character",
                "4:49|no encoding `UTF7`|`UTF-8`",
                "4:63|`header` is yes, no, or a list",
                "4:82|`null_words` is a list|`NULL`",
                "5:11|`server` cannot be `postgres`|`postgresql`",
                "6:3|no key `fils`|`files`",
                "9:5|no key `row`|`rows`",
                "11:18|no type `intger`|`integer`",
                "12:14|no key `typ`|`type`",
                "13:20|has sizes that the type cannot have",
                "13:32|no key `not_nul`|`not_null`",
                "14:37|`not_null` is yes or no",
                "14:53|cannot be `ignore-case`|`ignore case`",
                "14:76|`severity` cannot be `eror`|`error`",
                "15:37|`length` is a range",
                "15:37|`length` is for texts",
                "15:53|`generated` cannot be `sometimes`|`by default`",
                "15:73|`decimal` cannot be `;`",
                "15:73|`decimal` is for numbers with a fraction",
                "16:19|no key `colums`|`columns`",
                "17:12|an empty list",
                "18:9|table `hive` is a mapping",
                "19:10|needs the key `columns`");
    }

    @Test
    void names_that_do_not_resolve_and_declarations_that_do_not_fit() {
        assertProblems(
                """
                charter: 1
                tables:
                  apiary:
                    rows: apiaries.csv
                    columns:
                      apiary_id: integer
                      season: {type: smallint, length: 1..3}
                      name: {type: varchar(60), pattern: "[a-", format: dd.MM.yyyy}
                      opened_on: {type: date, format: "yyyy-bb"}
                      fee: {type: "numeric(6,2)", values: [1.50, "2.345", x]}
                      kind: {type: char(2), length: 5..2}
                    primary_key: [apiary_id, seson]
                    unique:
                      twice: [name, name]
                    label: nam
                    totals: [fee, nmae, fee +]
                    rules:
                      a: fee >= 0 and openedon is not null
                      b: name > 3
                      c: fee
                      d: lenght(name) > 2
                      e: fee >> 2
                      f: opened_on > '2023-02-30'
                      g: {condition: fee > 0, severty: warning}
                      h: name like fee
                      i: fee in 3
                  hive:
                    rows: hives.csv
                    columns: {hive_id: integer, apiary: integer, season: date, label: text}
                    primary_key: hive_id
                    foreign_keys:
                      to_apiary: {columns: apiary, references: apiary}
                      to_apiry: {columns: [apiary, season], references: apiry}
                      to_text: {columns: season, references: {apiary: fee}}
                      no_column: {columns: aipary, references: hive}
                      no_parent: {columns: apiary, references: {apiary: [apiaryid]}}
                      no_key: {columns: apiary, references: bare, on_delete: set nul}
                      acts: {columns: apiary, references: hive, on_delete: {set null: [label]}, match: ful}
                      range: {columns: apiary, references: hive, children: many, deferrable: later, enforced: perhaps}
                      half: {columns: apiary}
                      wide: {columns: [apiary, season], references: hive}
                      round: {columns: apiary, references: apiary, acyclic: yes}
                  bare: {rows: bare.csv, columns: {x: integer}}
                """,
                "7:40|`length` is for texts",
                "8:42|pattern cannot be read",
                "8:57|`format` is for dates",
                "9:39|format `yyyy-bb`",
                "10:50|`2.345`|would be rounded",
                "10:59|`x`|not a number",
                "11:37|ends before it begins",
                "12:30|no column `seson`|`season`",
                "14:21|`name` stands here twice",
                "15:12|no column `nam`|`name`",
                "16:19|no column `nmae`|`name`",
                "16:25|ends too early",
                "18:10|rule `a`|no column `openedon`|`opened_on`",
                "19:10|rule `b`|a text cannot be compared with a number",
                "20:10|rule `c`|a number stands where something true or false",
                "21:10|rule `d`|no function `lenght`|`length`",
                "22:10|rule `e`",
                "23:10|rule `f`|a day that no calendar has",
                "24:31|no key `severty`|`severity`",
                "25:10|rule `h`|a number stands where a text is needed",
                "26:10|rule `i`|IN needs a list",
                "33:57|no table `apiry`|`apiary`",
                "34:26|`season` is date|`apiary.fee` is numeric(6,2)|never be equal",
                "35:28|no column `aipary`|`apiary`",
                "36:58|no column `apiaryid`|`apiary_id`",
                "37:45|needs a primary key in table `bare`",
                "37:62|`on_delete` cannot be `set nul`|`set null`",
                "38:72|no column `label`|`apiary`",
                "38:88|`match` cannot be `ful`|`full`",
                "39:60|`children` is a range",
                "39:78|`deferrable` cannot be `later`|`immediate`",
                "39:95|`enforced` is yes or no",
                "40:13|needs the key `references`",
                "41:23|has 2 columns (apiary, season)|has 1 column (hive_id)",
                "42:61|`acyclic` is for a link of a table to itself");
    }

    @Test
    void rules_over_relatives_are_judged_word_by_word() {
        assertProblems(
                """
                charter: 1
                database: {url: "jdbc:postgresql:x"}
                tables:
                  hive:
                    rows: {table: coop.hive}
                    columns:
                      hive_id: {type: integer, personal: perhaps}
                      apiary_id: integer
                    primary_key: hive_id
                    foreign_keys:
                      hive_hive: {columns: apiary_id, references: hive}
                    rules:
                      parents: apiary_id > hive_hiv.apiary_id
                      above: apiary_id > hive_hive.hive_hive.apiry_id
                """,
                "7:42|`personal`",
                "13:16|there is no link `hive_hiv`|`hive_hive`",
                "14:14|there is no column `apiry_id`|`apiary_id`");
    }

    @Test
    void what_is_alike_names_columns_and_how_many_must_agree() {
        assertProblems(
                """
                charter: 1
                tables:
                  keeper:
                    rows: keepers.csv
                    columns: {id: integer, a: text, b: text, c: text, d: text, e: text, f: text, g: text, h: text}
                    alike:
                      one: {columns: [a, b], agree: 3}
                      two: {columns: [a, b], agree: most}
                      three: {columns: [a, bb]}
                      four: {columns: [a, b], never_differ: c}
                      five: {agree: 1}
                      six: {columns: [a, b], severity: error}
                      seven: [a, b, c, d, e, f, g, h, id]
                      eight: {columns: [a], agrees: 1}
                accept:
                  - {finding: likely double, at: on, rows: [1], reason: x}
                """,
                "7:37|`agree` is a number from 1 to 2",
                "8:37|`agree` is a number from 1 to 2",
                "9:28|no column `bb`|`b`",
                "10:45|`never_differ` names `c`|`columns`",
                "11:13|needs the key `columns`",
                "12:40|`severity`|warning",
                "13:7|at most 8 columns, and here are 9",
                "14:29|`agrees`|`agree`",
                "16:34|there is no rule for likely double `on`|`one`");
    }

    @Test
    void what_is_accepted_names_a_finding_a_place_rows_and_a_reason() {
        assertProblems(
                """
                charter: 1
                tables:
                  hive:
                    rows: hives.csv
                    columns: {hive_id: integer, apiary_id: integer, season: integer}
                    primary_key: [hive_id, season]
                    foreign_keys:
                      hive_hive: {columns: [apiary_id, season], references: hive}
                accept:
                  - {finding: orphn, at: hive_hive, rows: [[1, 2]], reason: x}
                  - {finding: orphan, at: hive_hiv, rows: [[1, 2]], reason: x}
                  - {finding: orphan, at: hive_hive, rows: [1], reason: x, until: soon}
                  - {finding: orphan, at: hive_hive, reason: x}
                  - {finding: orphan, at: hive.hive_hive, rows: [{key: [1, 2], holds: 3}]}
                  - orphan
                """,
                "10:15|`finding` cannot be `orphn`|`orphan`",
                "11:27|there is no link for orphan `hive_hiv`|`hive_hive`",
                "12:45|`rows` has 1 value|hive_id, season",
                "12:67|`until` is a day",
                "13:5|needs `rows` or `values`",
                "14:5|needs the key `reason`",
                "14:71|`holds` has 1 value",
                "15:5|an entry of `accept` is a mapping");
    }

    @Test
    void documents_that_are_no_charter() {
        assertThat(problemsOf("")).singleElement().asString().contains("1:1: the charter is empty");
        assertThat(problemsOf("- a\n- b\n")).singleElement().asString().contains("a charter is a mapping, not a list");
        // Of a table that was taken for a charter nothing is told.
        assertThat(problemsOf("K-1,Ada Reed,1917-03-04\nK-2,Bo Reed,1920-01-01\n"))
                .singleElement()
                .asString()
                .contains("a charter is a mapping, not a text", "taxiomet survey")
                .doesNotContain("Reed", "1917");
        assertThat(problemsOf("Ada Reed: 1917-03-04\n"))
                .singleElement()
                .asString()
                .contains("this is no charter")
                .doesNotContain("Reed", "1917");
        assertThat(problemsOf("charter.json", "{\"charter\": 1, Reed}"))
                .singleElement()
                .asString()
                .doesNotContain("Reed");
        assertThat(problemsOf("charter: 1\ntables:\n\tx: 1\n"))
                .singleElement()
                .asString()
                .contains("charter.yaml:3:1: this is not YAML");
        assertThat(problemsOf("charter.json", "{\"charter\": 1,\n \"tables\": }"))
                .singleElement()
                .asString()
                .contains("charter.json:2:1", "this is not JSON");
        assertThat(problemsOf("charter: 1\ncharter: 1\ntables: {a: {rows: x, columns: {b: text}}}\n"))
                .singleElement()
                .asString()
                .contains("2:1: the key `charter` stands here twice, first in line 1");
        assertThat(problemsOf("charter: 1\n---\ncharter: 1\n"))
                .anyMatch(p -> p.contains("a second document begins here"));
        assertThat(problemsOf("[".repeat(10_000)))
                .singleElement()
                .asString()
                .contains("nested deeper than any charter");
        assertThat(problemsOf("""
                        a: &a [x,x,x,x,x,x,x,x,x,x]
                        b: &b [*a,*a,*a,*a,*a,*a,*a,*a,*a,*a]
                        c: &c [*b,*b,*b,*b,*b,*b,*b,*b,*b,*b]
                        d: &d [*c,*c,*c,*c,*c,*c,*c,*c,*c,*c]
                        e: &e [*d,*d,*d,*d,*d,*d,*d,*d,*d,*d]
                        f: &f [*e,*e,*e,*e,*e,*e,*e,*e,*e,*e]
                        """)).singleElement().asString().contains("anchors make this document larger");
        assertThat(problemsOf("charter: *x\n")).singleElement().asString().contains("1:10: there is no anchor `x`");
    }

    @Test
    void words_stay_texts_whatever_older_yaml_says() throws CharterException {
        var charter = CharterReader.read(Path.of("charter.yaml"), """
                charter: 1
                title: NO
                tables:
                  on: {rows: 010, columns: {12:30: text, y: {type: text, values: [NO, on, 010, 1.50]}}}
                """.getBytes(StandardCharsets.UTF_8))
                .charter();
        assertThat(charter.name()).isEqualTo("NO");
        assertThat(charter.tables().get(0).name()).isEqualTo("on");
        assertThat(charter.tables().get(0).rows().path()).isEqualTo("010");
        assertThat(charter.tables().get(0).columns().get(0).name()).isEqualTo("12:30");
        assertThat(charter.tables().get(0).columns().get(1).values()).containsExactly("NO", "on", "010", "1.50");
    }

    @Test
    void yes_and_no_are_truth_values_wherever_one_is_asked_for() throws CharterException {
        for (String yes : List.of("yes", "true", "Yes", "TRUE", "\"yes\"")) {
            assertThat(isRequired(yes)).as(yes).isTrue();
        }
        for (String no : List.of("no", "false", "NO", "False")) {
            assertThat(isRequired(no)).as(no).isFalse();
        }
        assertThat(problemsOf("charter: 1\ntables: {t: {rows: t.csv, columns: {a: {type: text, not_null: on}}}}"))
                .singleElement(InstanceOfAssertFactories.STRING)
                .contains("`not_null` is yes or no, not `on`");
    }

    private static boolean isRequired(String truth) throws CharterException {
        String charter = "charter: 1\ntables: {t: {rows: t.csv, columns: {a: {type: text, not_null: " + truth + "}}}}";
        return CharterReader.read(Path.of("charter.yaml"), charter.getBytes(StandardCharsets.UTF_8))
                .charter()
                .table("t")
                .column("a")
                .isRequired();
    }
}
