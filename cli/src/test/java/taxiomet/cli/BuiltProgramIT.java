package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The program as it was built and as users start it. */
class BuiltProgramIT {
    private static final Path DIST = Path.of(System.getProperty("taxiomet.dist"));

    @TempDir
    private Path folder;

    private record Run(int status, String out, String err) {}

    private Run run(String... arguments) throws IOException, InterruptedException {
        return run(Map.of(), arguments);
    }

    private Run run(Map<String, String> environment, String... arguments) throws IOException, InterruptedException {
        List<String> command =
                new ArrayList<>(List.of(DIST.resolve("bin/taxiomet").toString()));
        command.addAll(List.of(arguments));
        Path out = Files.createTempFile("out", null);
        Path err = Files.createTempFile("err", null);
        ProcessBuilder builder = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectInput(Path.of("/dev/null").toFile())
                .redirectOutput(out.toFile())
                .redirectError(err.toFile());
        builder.environment().remove("COLUMNS");
        builder.environment().put("TAXIOMET_JAVA_OPTS", System.getProperty("taxiomet.agent", ""));
        builder.environment().putAll(environment);
        Process process = builder.start();
        assertThat(process.waitFor(120, TimeUnit.SECONDS))
                .as("the program hangs")
                .isTrue();
        Run run = new Run(process.exitValue(), read(out), read(err));
        Files.delete(out);
        Files.delete(err);
        assertThat(run.err()).doesNotContain("\tat ").doesNotContain("Exception");
        return run;
    }

    private static String read(Path file) throws IOException {
        return new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
    }

    @BeforeEach
    void two_tables_with_an_orphan_and_a_duplicate() throws IOException {
        Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                title: Two tables
                tables:
                  keeper:
                    rows: keepers.csv
                    columns: {keeper_id: integer, name: text}
                    primary_key: keeper_id
                    label: name
                  apiary:
                    rows: apiaries.csv
                    columns: {apiary_id: integer, keeper_id: integer}
                    primary_key: apiary_id
                    foreign_keys:
                      apiary_keeper: {columns: keeper_id, references: keeper}
                    owner: keeper_id
                """);
        Files.writeString(folder.resolve("keepers.csv"), "keeper_id,name\n1,Ada\n2,Bram\n007,Celia\n7,Dorrit\n");
        Files.writeString(folder.resolve("apiaries.csv"), "apiary_id,keeper_id\n1,1\n2,7\n3,9\n");
    }

    @Test
    void check_finds_the_orphan_and_the_duplicate() throws Exception {
        Run run = run("check");
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.err()).isEmpty();
        assertThat(run.out())
                .startsWith("Two tables: not sound\n3 findings (2 errors, 1 note) in 2 tables; 3 of 7 rows at fault\n")
                .contains("error  duplicate at keeper.primary_key")
                .contains("error  orphan at apiary.apiary_keeper")
                .contains("note  odd spelling at keeper.keeper_id")
                .doesNotContain("\u001B");
        assertThat(run("check", "--only", "keeper", "--fail-on", "never").status())
                .isZero();
    }

    @Test
    void evidence_is_written_whole_and_replaced_only_by_force() throws Exception {
        assertThat(run("check", "--evidence", "faults", "--report", "all.csv", "--report", "all.json", "--quiet")
                        .status())
                .isEqualTo(1);
        try (Stream<Path> files = Files.list(folder.resolve("faults"))) {
            assertThat(files.map(f -> f.getFileName().toString()).sorted())
                    .containsExactly(
                            ".taxiomet-written",
                            "01-keeper-primary_key-duplicate.csv",
                            "02-apiary-apiary_keeper-orphan.csv",
                            "03-keeper-keeper_id-odd_spelling.csv",
                            "cover-note.txt",
                            "kept.json.gz",
                            "result.json");
        }
        assertThat(read(folder.resolve("faults/01-keeper-primary_key-duplicate.csv")))
                .isEqualToNormalizingNewlines("row,line,file,group,rule,at_fault,problem,hint,keeper_id,name\n"
                        + "3,4,keepers.csv,1,duplicate at primary_key,keeper_id,duplicate,,007,Celia\n"
                        + "4,5,keepers.csv,1,duplicate at primary_key,keeper_id,not as the first: name,,7,Dorrit\n");
        Run again = run("check", "--evidence", "faults");
        assertThat(again.status()).isEqualTo(2);
        assertThat(again.err()).contains("holds a result already");
        Files.writeString(folder.resolve("faults/mine.txt"), "mine");
        assertThat(run("check", "--evidence", "faults", "--force").err()).contains("did not write", "`mine.txt`");
        assertThat(read(folder.resolve("faults/mine.txt"))).isEqualTo("mine");
        assertThat(run("check", "--evidence", "faults", "--force", "--per-owner")
                        .status())
                .isEqualTo(1);
        assertThat(folder.resolve("faults/9/02-apiary-apiary_keeper-orphan.csv"))
                .exists();
        assertThat(folder.resolve("faults/without owner")).isDirectory();
        try (Stream<Path> files = Files.list(folder)) {
            assertThat(files.map(f -> f.getFileName().toString())).noneMatch(name -> name.startsWith("."));
        }
    }

    @Test
    void wrong_usage_is_answered_with_what_was_meant() throws Exception {
        assertThat(run("chek").err()).contains("check");
        assertThat(run("check", "--onyl", "x").status()).isEqualTo(2);
        Run table = run("check", "--only", "keepr");
        assertThat(table.status()).isEqualTo(2);
        assertThat(table.err()).contains("did you mean `keeper`?");
        assertThat(run("meaning", "orphen").err()).contains("did you mean orphan?");
        assertThat(run("meaning", "null", "in", "key").out()).contains("What to do:");
        assertThat(run().status()).isZero();
        assertThat(run().out()).contains("Commands:", "rehearse");
    }

    @Test
    void the_demo_runs_and_is_left_alone_when_it_was_changed() throws Exception {
        Run demo = run("demo");
        assertThat(demo.status()).as(demo.err()).isZero();
        assertThat(demo.out())
                .contains("Merrow Vale honey cooperative: not sound")
                .contains("What to try next:");
        assertThat(run("demo").status()).isZero();
        Path keepers = folder.resolve("taxiomet-demo/keepers.csv");
        Files.writeString(keepers, Files.readString(keepers) + "K-099,New,Keeper,,2024-01-01,true\n");
        Run changed = run("demo");
        assertThat(changed.status()).isEqualTo(2);
        assertThat(changed.err()).contains("was changed since it was copied");
        assertThat(Files.readString(keepers)).contains("K-099");
    }

    @Test
    void colours_and_width_follow_the_options() throws Exception {
        assertThat(run("check", "--color", "always").out()).contains("\u001B[1;31m");
        String narrow = run(Map.of("COLUMNS", "60"), "check").out();
        assertThat(narrow.lines()).allMatch(line -> line.length() <= 60);
    }

    @Test
    void help_version_manual_and_completion_are_there() throws Exception {
        assertThat(run("--version").out()).startsWith("taxiomet 0.");
        assertThat(run("--help").out())
                .contains("check")
                .contains("meaning")
                .contains("rehearse")
                .contains("demo")
                .contains("docket")
                .contains("sift")
                .contains("compare");
        assertThat(run("check", "--help").out()).contains("--evidence");
        assertThat(read(DIST.resolve("man/taxiomet-check.1"))).doesNotContain("chunk");
        assertThat(read(DIST.resolve("man/taxiomet-check.1")))
                .contains(".SH OPTIONS")
                .contains("\\-\\-evidence");
        assertThat(read(DIST.resolve("completion/taxiomet.bash"))).contains("--per-owner");
    }
}
