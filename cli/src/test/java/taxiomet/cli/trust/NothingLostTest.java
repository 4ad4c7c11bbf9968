package taxiomet.cli.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;

/** No option has the program remove or replace what somebody else wrote, or what the same run reads. */
class NothingLostTest {
    @TempDir
    private Path folder;

    private String charter;

    @BeforeEach
    void tables() throws IOException {
        Files.writeString(
                folder.resolve("pet.csv"), "id,name,vet\n1,Bo,CON\n2,,-rf\n3,,kept.json.gz\n4,,Con\n1,Al,a.\n");
        Files.writeString(folder.resolve("visit.csv"), "pet\n1\n");
        charter = Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                tables:
                  pet:
                    rows: pet.csv
                    columns: {id: integer, name: {type: text, not_null: true}, vet: text}
                    primary_key: id
                    owner: vet
                  visit:
                    rows: visit.csv
                    columns: {pet: integer}
                    foreign_keys: {visit_pet: {columns: pet, references: pet}}
                """).toString();
    }

    private Program run(String... words) {
        return Program.run(Map.of("HOME", folder.resolve("home").toString()), words);
    }

    private String at(String name) {
        return folder.resolve(name).toString();
    }

    @Test
    void force_removes_what_the_program_wrote_and_nothing_else() throws Exception {
        List<String[]> commands = List.of(
                new String[] {"sift", charter, "--into", at("sift")},
                new String[] {"check", charter, "--evidence", at("evidence")},
                new String[] {"check", charter, "--evidence", at("by-owner"), "--per-owner"},
                new String[] {"docket", charter, "--into", at("dockets"), "--per-owner"},
                new String[] {"roster", charter, "pet", "--per-heading", "csv", "--into", at("roster")},
                new String[] {"rehearse", charter, "-e", "DELETE FROM pet WHERE id = 2", "--into", at("after")});
        for (String[] command : commands) {
            Program first = run(command);
            assertThat(first.status())
                    .as(String.join(" ", command) + first.err())
                    .isBetween(0, 1);
            Path into = Path.of(
                    command[List.of(command).indexOf(command[0].equals("check") ? "--evidence" : "--into") + 1]);
            Path mine = Files.writeString(into.resolve("my notes.txt"), "hours of work");
            List<String> forced = new ArrayList<>(List.of(command));
            forced.add("--force");
            Program again = run(forced.toArray(new String[0]));
            assertThat(again.status()).as(again.err()).isEqualTo(first.status());
            assertThat(mine).hasContent("hours of work");
            assertThat(again.err()).contains("did not write", "`my notes.txt`");
        }
    }

    @Test
    void a_decided_docket_is_not_replaced() throws Exception {
        run("docket", charter, "--into", at("dockets"));
        Path docket = folder.resolve("dockets/docket.docket.csv");
        String decided = Files.readString(docket).replace("elsewhere", "elsewhere ");
        Files.writeString(docket, decided + "# looked at\n");
        Program again = run("docket", charter, "--into", at("dockets"), "--force");
        assertThat(again.status()).isEqualTo(3);
        assertThat(again.err()).contains("docket.docket.csv", "was changed since", "nothing was written");
        assertThat(docket).content().endsWith("# looked at\n");
    }

    @Test
    void no_output_takes_the_place_of_an_input() throws Exception {
        Files.createSymbolicLink(folder.resolve("other.csv"), folder.resolve("pet.csv"));
        Files.writeString(folder.resolve("change.sql"), "DELETE FROM pet WHERE id = 2;");
        Map<String, String> before = contents();
        for (String[] command : List.of(
                new String[] {"check", charter, "--report", "csv:" + at("pet.csv")},
                new String[] {"check", charter, "--report", "json:" + charter},
                new String[] {"check", charter, "--report", "csv:" + at("other.csv")},
                new String[] {"check", charter, "--report", "csv:" + at("./sub/../pet.csv")},
                new String[] {"rehearse", charter, at("change.sql"), "--write-sql", "sqlite:" + at("pet.csv")},
                new String[] {"rehearse", charter, at("change.sql"), "--write-sql", at("change.sql")},
                new String[] {
                    "rehearse", charter, "--delete", "pet=" + at("pet.csv"), "--report", "csv:" + at("pet.csv")
                },
                new String[] {"vet", charter, "--write-charter", charter},
                new String[] {"survey", at("pet.csv"), "--report", "json:" + at("pet.csv")},
                new String[] {"map", charter, "--report", "md:" + charter},
                new String[] {"docket", charter, "--report", "csv:" + at("pet.csv")},
                new String[] {"ddl", charter, "--server", "sqlite", "--report", "sql:" + at("pet.csv")})) {
            Files.createDirectories(folder.resolve("sub"));
            List<String> forced = new ArrayList<>(List.of(command));
            forced.add("--force");
            Program run = run(forced.toArray(new String[0]));
            assertThat(run.status()).as(String.join(" ", command) + run.err()).isEqualTo(2);
            assertThat(run.err()).contains("would replace what is read");
            assertThat(contents()).isEqualTo(before);
        }
    }

    @Test
    void a_folder_that_is_read_from_is_not_replaced() throws Exception {
        run("sift", charter, "--into", at("sift"));
        Program again = run("sift", at("sift/sound/charter.yaml"), "--into", at("sift"), "--force");
        assertThat(again.status()).isEqualTo(2);
        assertThat(again.err()).contains("would replace", "charter.yaml, which is read");
        assertThat(folder.resolve("sift/sound/pet.csv")).isNotEmptyFile();
    }

    private Map<String, String> contents() throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            Map<String, String> contents = new java.util.TreeMap<>();
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                contents.put(file.getFileName().toString(), Files.readString(file, StandardCharsets.UTF_8));
            }
            return contents;
        }
    }

    @Test
    void names_of_owners_make_files_on_every_system_and_a_list_says_whose_they_are() throws Exception {
        assertThat(run("check", charter, "--evidence", at("by-owner"), "--per-owner")
                        .status())
                .isEqualTo(1);
        try (Stream<Path> all = Files.list(folder.resolve("by-owner"))) {
            assertThat(all.map(each -> each.getFileName().toString()))
                    .allMatch(name -> name.startsWith(".taxiomet") || !name.matches("(?i)con|-.*|.*[.]"))
                    .contains("_CON", "_rf", "kept.json.gz-2", "a_", "_Con-2");
        }
        assertThat(folder.resolve("by-owner/owners.csv"))
                .content()
                .contains("_CON,CON,", "_Con-2,Con,", "_rf,'-rf,", "kept.json.gz-2,kept.json.gz,");
        assertThat(run("docket", charter, "--into", at("dockets"), "--per-owner")
                        .status())
                .isZero();
        assertThat(folder.resolve("dockets/owners.csv")).content().contains("_CON.docket,CON,", "_Con-2.docket,Con,");
    }

    @Test
    void a_line_of_another_owner_counts_only_when_it_is_said() throws Exception {
        Files.writeString(folder.resolve("pet.csv"), "id,name,vet\n1,,Ada\n2,,Ada\n3,,Bea\n4,,Bea\n");
        Files.writeString(folder.resolve("visit.csv"), "pet\n");
        run("docket", charter, "--into", at("dockets"), "--per-owner");
        run("docket", charter, "--report", at("all.csv"));
        List<String> ada = decided("dockets/Ada.docket.csv");
        List<String> bea = decided("dockets/Bea.docket.csv");
        List<String> all = decided("all.csv");
        String filled = at("filled.csv");
        Files.write(Path.of(filled), List.of(ada.get(0), ada.get(1), ada.get(2), bea.get(1)));
        Program refused = run("rehearse", charter, filled);
        assertThat(refused.status()).isEqualTo(1);
        assertThat(refused.out()).contains("of another owner", "for whom this docket was made", "2 rows deleted");
        Program taken = run("rehearse", charter, filled, "--any-owner");
        assertThat(taken.out()).contains("3 rows deleted").doesNotContain("of another owner");

        // What was laid before nobody in particular is no way round it, nor is a reference that is cut.
        Files.write(Path.of(filled), List.of(ada.get(0), ada.get(1), ada.get(2), all.get(3)));
        assertThat(run("rehearse", charter, filled).out()).contains("of another owner", "2 rows deleted");
        Files.write(Path.of(filled), all);
        assertThat(run("rehearse", charter, filled).out()).contains("4 rows deleted");
    }

    /** A docket in which all rows go. */
    private List<String> decided(String name) throws IOException {
        List<String> lines = Files.readAllLines(folder.resolve(name));
        List<String> decided = new ArrayList<>(List.of(lines.get(0)));
        List<String> columns = List.of(lines.get(0).split(","));
        int decision = columns.indexOf("decision");
        for (String line : lines.subList(1, lines.size())) {
            // Of these rows no cell before the decision has a comma in quotes but the whole row, which stands behind.
            String[] cells = line.split(",", -1);
            cells[decision] = "delete this row";
            decided.add(String.join(",", cells));
        }
        return decided;
    }
}
