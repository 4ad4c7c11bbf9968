package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** No output holds a value of a personal column, unless --reveal says so; pseudonyms join within a result, and not beyond it. */
class PersonalTest {
    private static final Path DEMO = Path.of("..", "demo");
    private static final Pattern PSEUDONYM = Pattern.compile("veiled-[0-9a-z]{10}");

    @TempDir
    private Path folder;

    private final Set<String> emails = new HashSet<>();

    @BeforeEach
    void copyDemo() throws IOException {
        try (Stream<Path> files = Files.walk(DEMO)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                Path copy = folder.resolve("demo").resolve(DEMO.relativize(file));
                Files.createDirectories(copy.getParent());
                Files.copy(file, copy);
            }
        }
        for (String line : Files.readAllLines(keepers())) {
            Stream.of(line.split(",", -1))
                    .filter(cell -> cell.toLowerCase(Locale.ROOT).contains("merrowvale"))
                    .forEach(cell -> emails.add(cell.replace("\"", "").toLowerCase(Locale.ROOT)));
        }
        assertThat(emails).hasSizeGreaterThan(20);
    }

    private Path keepers() {
        return folder.resolve("demo/keepers.csv");
    }

    private String charter() {
        return folder.resolve("demo/charter.yaml").toString();
    }

    private Program run(String command, String... more) {
        List<String> arguments = new ArrayList<>(List.of(command));
        arguments.addAll(List.of(more));
        return Program.run(arguments.toArray(new String[0]));
    }

    private void assertNothingTold(String told, String by) {
        String folded = told.toLowerCase(Locale.ROOT);
        assertThat(emails).as(by).noneMatch(folded::contains);
    }

    @Test
    void no_page_of_a_rehearsal_and_no_load_tells_a_personal_value() throws IOException {
        Path page = folder.resolve("rehearsal.html");
        run(
                "rehearse",
                charter(),
                "-e",
                "DELETE FROM keeper WHERE email = '" + emails.iterator().next() + "'",
                "-e",
                "UPDATE keeper SET email = 'new@merrowvale.example' WHERE keeper_id = 'K-003'",
                "--report",
                page.toString());
        assertNothingTold(Files.readString(page), "page of a rehearsal");
        assertNothingTold(run("check", charter(), "--load-order").out(), "load");
        assertNothingTold(run("map", charter(), "--json", "--count").out(), "map");
        for (String ending : List.of("csv", "md", "html")) {
            Path roster = folder.resolve("roster." + ending);
            Program listed = run("roster", charter(), "keeper", "--sort", "surname", "--report", roster.toString());
            assertNothingTold(listed.out() + listed.err() + Files.readString(roster), ending);
            Path below = folder.resolve("below." + ending);
            run(
                    "roster",
                    charter(),
                    "apiary",
                    "--through",
                    "hive_apiary",
                    "--columns",
                    "label,hive_id",
                    "--report",
                    below.toString());
            assertThat(below).isNotEmptyFile();
        }
        Program asked = run(
                "roster",
                charter(),
                "keeper",
                "--through",
                "visit_keeper",
                "--columns",
                "visit_keeper.email,visited_on");
        assertThat(asked.out()).contains("veiled-");
        assertNothingTold(asked.out() + asked.err(), "a parent's column");
    }

    private void assertNothingToldIn(Path output) throws IOException {
        try (Stream<Path> files = Files.walk(output)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                assertNothingTold(Files.readString(file), file.toString());
            }
        }
    }

    private void writeCharterOfMembers() throws IOException {
        Files.writeString(folder.resolve("c.yaml"), """
                charter: 1
                tables:
                  member:
                    rows: member.csv
                    columns: {login: {type: varchar(20), personal: yes}, age: integer}
                    primary_key: login
                """);
    }

    private static Set<String> pseudonyms(String text) {
        return PSEUDONYM.matcher(text).results().map(MatchResult::group).collect(Collectors.toSet());
    }

    @Test
    void no_form_of_a_check_tells_a_personal_value() throws IOException {
        List<String> forms = new ArrayList<>();
        for (List<String> options : List.of(
                List.of("--examples", "1000"),
                List.of("--json", "--examples", "1000", "--verbose"),
                List.of("--report", "csv:-"),
                List.of("--quiet"))) {
            Program program = run(
                    "check",
                    Stream.concat(Stream.of(charter()), options.stream()).toArray(String[]::new));
            assertNothingTold(program.out() + program.err(), options.toString());
            forms.add(program.out());
        }
        assertThat(pseudonyms(forms.get(0))).isNotEmpty();
        Path out = folder.resolve("out");
        run("check", charter(), "--evidence", out.toString(), "--per-owner", "--report", folder + "/r.json");
        assertNothingToldIn(out);
        assertNothingTold(Files.readString(folder.resolve("r.json")), "report");
        for (String ending : List.of("md", "xml", "html")) {
            Path report = folder.resolve("r." + ending);
            run("check", charter(), "--examples", "1000", "--report", report.toString());
            assertNothingTold(Files.readString(report), ending);
            assertThat(pseudonyms(Files.readString(report))).isNotEmpty();
        }
        Path workbook = folder.resolve("r.xlsx");
        run("check", charter(), "--report", workbook.toString());
        try (ZipFile zip = new ZipFile(workbook.toFile())) {
            for (ZipEntry part : Collections.list(zip.entries())) {
                assertNothingTold(
                        new String(zip.getInputStream(part).readAllBytes(), StandardCharsets.UTF_8), part.getName());
            }
        }
        assertThat(run("check", charter(), "--examples", "1000", "--reveal")
                        .out()
                        .toLowerCase(Locale.ROOT))
                .contains("osric.hollin@merrowvale.example")
                .doesNotContain("veiled-");
    }

    @Test
    void one_value_has_one_pseudonym_throughout_a_result_and_another_in_the_next() throws IOException {
        Path out = folder.resolve("out");
        Path json = folder.resolve("r.json");
        Program program = run(
                "check", charter(), "--examples", "1000", "--evidence", out.toString(), "--report", json.toString());
        Set<String> shown = pseudonyms(program.out());
        assertThat(pseudonyms(Files.readString(json))).containsAll(shown);
        StringBuilder evidence = new StringBuilder();
        try (Stream<Path> files = Files.walk(out)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                evidence.append(Files.readString(file));
            }
        }
        assertThat(pseudonyms(evidence.toString())).containsAll(shown);
        // Two keepers whose addresses differ in case alone, which the column does not look at; two findings show them.
        List<String> rows = program.out()
                .lines()
                .filter(line -> line.contains("K-005") || line.contains("K-012"))
                .filter(line -> line.contains("veiled-"))
                .toList();
        assertThat(rows).hasSize(4);
        assertThat(pseudonyms(String.join(" ", rows))).hasSize(1);
        assertThat(pseudonyms(run("check", charter(), "--examples", "1000").out()))
                .isNotEmpty()
                .doesNotContainAnyElementsOf(shown);
    }

    @Test
    void no_form_of_a_trace_tells_a_personal_value() throws IOException {
        for (String form : List.of("--json", "--verbose")) {
            for (String key : List.of("K-001", "K-008", "K-021", "K-8", "email=ivo.heron@merrow.example")) {
                Program traced = Program.run("trace", charter(), "keeper", key, "--down", "2", form);
                assertThat(traced.status()).as(traced.err()).isLessThan(2);
                assertNothingTold(traced.out() + traced.err().replace(key, ""), key);
            }
            Program all = Program.run("trace", charter(), "keeper", "--where", "email > ''", "--examples", "100", form);
            assertNothingTold(all.out() + all.err(), "all keepers");
        }
        assertThat(Program.run("trace", charter(), "keeper", "K-008", "--reveal")
                        .out())
                .contains("@");
    }

    @Test
    void a_malformed_row_is_hidden_whole() throws IOException {
        Files.writeString(
                keepers(), Files.readString(keepers()) + "K-900,Heron,Ivo,ivo.heron@merrowvale.example,2020-01-01\n");
        emails.add("ivo.heron");
        Program program = run("check", charter(), "--json", "--examples", "100");
        assertThat(program.out()).contains("its table has personal columns");
        assertNothingTold(program.out(), "json");
        assertNothingTold(run("check", charter()).out(), "text");
        assertThat(run("check", charter(), "--reveal").out()).contains("ivo.heron");
    }

    @Test
    void columns_that_a_link_joins_to_a_personal_one_are_personal_and_hints_are_pseudonyms() throws IOException {
        Files.writeString(folder.resolve("c.yaml"), """
                charter: 1
                tables:
                  member:
                    rows: member.csv
                    columns: {login: {type: varchar(20), personal: yes}, age: integer}
                    primary_key: login
                  loan:
                    rows: loan.csv
                    columns: {loan_id: integer, member_login: varchar(20)}
                    primary_key: loan_id
                    foreign_keys:
                      loan_member: {columns: member_login, references: member}
                """);
        Files.writeString(folder.resolve("member.csv"), "login,age\nmoorhen,41\nwagtail,17\n");
        Files.writeString(folder.resolve("loan.csv"), "loan_id,member_login\n1,moorhen\n2,moorhenn\n3,Wagtail\n");
        emails.addAll(Set.of("moorhen", "wagtail"));
        Program text = run("check", folder.resolve("c.yaml").toString());
        assertThat(text.status()).isEqualTo(1);
        assertThat(text.out().replaceAll("\\s+", " "))
                .contains("perhaps veiled-")
                .contains("one keystroke away")
                .contains("in another case");
        assertNothingTold(text.out() + text.err(), "text");
        assertNothingTold(
                run("check", folder.resolve("c.yaml").toString(), "--json").out(), "json");
        Program deleted = run(
                "rehearse", folder.resolve("c.yaml").toString(), "-e", "DELETE FROM member WHERE login = 'moorhen'");
        assertThat(deleted.status()).isEqualTo(1);
        assertThat(deleted.out()).contains("login = 'veiled-");
        assertNothingTold(deleted.out() + deleted.err(), "rehearsal");
    }

    @Test
    void no_form_of_a_rehearsal_tells_a_personal_value() throws IOException {
        List<String> changes = List.of(
                "DELETE FROM keeper WHERE email = 'una.dunmere@merrowvale.example'",
                "UPDATE keeper SET active = false WHERE email = 'una.dunmere@merrowvale.example'",
                "UPDATE keeper SET email = 'una@new.example' WHERE keeper_id = 'K-002'",
                "UPDATE keeper SET email = 'dorrit.kettlewick@merrowvale.example' WHERE keeper_id = 'K-002'",
                "INSERT INTO keeper VALUES ('K-777', 'Sedge', 'Ola', 'ola@new.example', '2020-01-01', true)");
        emails.addAll(Set.of("una@new.example", "ola@new.example"));
        for (String change : changes) {
            for (List<String> options : List.of(
                    List.<String>of(),
                    List.of("--json"),
                    List.of("--report", "csv:-"),
                    List.of("--why", "keeper", "K-002"))) {
                List<String> arguments = new ArrayList<>(List.of(charter(), "-e", change));
                arguments.addAll(options);
                Program program = run("rehearse", arguments.toArray(new String[0]));
                assertNothingTold(program.out() + program.err(), change + options);
            }
        }
        Program pseudonym = run(
                "rehearse", charter(), "-e", "UPDATE keeper SET email = 'veiled-0123456789' WHERE keeper_id = 'K-002'");
        assertThat(pseudonym.status()).isEqualTo(2);
        assertThat(pseudonym.err()).contains("is a pseudonym");
        Path into = folder.resolve("new");
        Program refused = run("rehearse", charter(), "-e", changes.get(2), "--into", into.toString());
        assertThat(refused.status()).isEqualTo(2);
        assertThat(refused.err()).contains("keeper.email is personal").contains("--reveal");
        assertThat(into).doesNotExist();
        assertThat(run("rehearse", charter(), "-e", changes.get(2), "--write-sql", "-")
                        .status())
                .isEqualTo(2);
        Program meant = run("rehearse", charter(), "-e", changes.get(2), "--into", into.toString(), "--reveal");
        assertThat(Files.readString(into.resolve("keepers.csv")))
                .as(meant.err())
                .contains("una@new.example");
        assertThat(Files.readString(into.resolve("charter.yaml"))).contains("personal: yes");
        // Where no row of a personal table is written, nothing is asked.
        Program others =
                run("rehearse", charter(), "-e", "DELETE FROM harvest WHERE harvest_id = 1", "--write-sql", "-");
        assertThat(others.err()).doesNotContain("--reveal");
    }

    @Test
    void evidence_names_rows_for_a_proposal_and_errors_tell_no_value() throws IOException {
        Path out = folder.resolve("out");
        run("check", charter(), "--evidence", out.toString());
        Path list;
        try (Stream<Path> files = Files.list(out)) {
            list = files.filter(file -> file.toString().contains("keeper_email"))
                    .findFirst()
                    .orElseThrow();
        }
        Program rehearsed = run("rehearse", charter(), "--delete", "keeper=" + list);
        assertThat(rehearsed.out()).as(rehearsed.err()).contains("selects 2 rows");
        assertNothingTold(rehearsed.out() + rehearsed.err(), "list");

        Files.writeString(
                folder.resolve("old.csv"),
                PSEUDONYM.matcher(Files.readString(list)).replaceAll("somebody@old.example"));
        Program outdated = run("rehearse", charter(), "--delete", "keeper=" + folder.resolve("old.csv"));
        assertThat(outdated.status()).isEqualTo(2);
        assertThat(outdated.err()).contains("row 5 no longer holds").contains("email is `(personal)`");
        assertNothingTold(outdated.out() + outdated.err(), "outdated");

        writeCharterOfMembers();
        Files.writeString(folder.resolve("member.csv"), "login,age\nmoorhen,41\nwagtail,17\n");
        Program why = run(
                "rehearse",
                folder.resolve("c.yaml").toString(),
                "-e",
                "DELETE FROM member",
                "--why",
                "member",
                "moorhem");
        assertThat(why.status()).isEqualTo(2);
        assertThat(why.err()).contains("there is no such row").doesNotContain("moorhen");
    }

    @Test
    void values_that_stand_where_names_should_are_not_told() throws IOException {
        writeCharterOfMembers();
        Files.writeString(folder.resolve("member.csv"), "moorhen,41\nwagtail,17\n");
        emails.addAll(Set.of("moorhen", "wagtail"));
        Program headless = run("check", folder.resolve("c.yaml").toString());
        assertThat(headless.status()).isEqualTo(3);
        assertThat(headless.err()).contains("does not name column `login`").contains("whether it is a header at all");
        assertNothingTold(headless.err(), "header");
        assertThat(run("check", folder.resolve("c.yaml").toString(), "--reveal").err())
                .contains("it names `moorhen`, `41`");
        Files.writeString(folder.resolve("list.csv"), "moorhen\n");
        Files.writeString(folder.resolve("member.csv"), "login,age\nmoorhen,41\n");
        Program list = run(
                "rehearse", folder.resolve("c.yaml").toString(), "--delete", "member=" + folder.resolve("list.csv"));
        assertThat(list.status()).isEqualTo(2);
        assertNothingTold(list.err(), "list");
    }

    @Test
    void a_personal_column_with_a_dot_in_its_name_is_asked_about_too() throws IOException {
        Files.writeString(folder.resolve("c.yaml"), """
                charter: 1
                tables:
                  member:
                    rows: member.csv
                    columns: {no: integer, "tel.": {type: varchar(20), personal: yes}}
                    primary_key: no
                """);
        Files.writeString(folder.resolve("member.csv"), "no,tel.\n1,moorhen-5\n2,\n");
        Program refused = run(
                "rehearse",
                folder.resolve("c.yaml").toString(),
                "-e",
                "DELETE FROM member WHERE no = 2",
                "--into",
                folder.resolve("new").toString());
        assertThat(refused.status()).isEqualTo(2);
        assertThat(refused.err()).contains("member.tel. is personal");
        assertThat(folder.resolve("new")).doesNotExist();
    }
}
