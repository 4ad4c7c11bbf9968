package taxiomet.reports;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** An output appears whole or not at all, and a kill loses nothing. */
class WholeOutputTest {
    /** The number of no process. */
    private static final String GONE = "999999999999999999";

    @TempDir
    private Path folder;

    private List<String> names() throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).sorted().toList();
        }
    }

    @Test
    void a_file_takes_its_place_when_it_is_complete() throws IOException {
        Path target = folder.resolve("report.json");
        Files.writeString(target, "old");
        try (WholeOutput output = new WholeOutput(target)) {
            Files.writeString(output.draft(), "new");
            assertThat(target).hasContent("old");
            output.complete();
        }
        assertThat(target).hasContent("new");
        assertThat(names()).containsExactly("report.json");
    }

    @Test
    void what_is_not_completed_leaves_no_trace() throws IOException {
        Path target = folder.resolve("report.json");
        Files.writeString(target, "old");
        try (WholeOutput output = new WholeOutput(target)) {
            Files.writeString(output.draft(), "half");
        }
        assertThat(target).hasContent("old");
        assertThat(names()).containsExactly("report.json");
    }

    @Test
    void a_folder_replaces_a_folder() throws IOException {
        Path target = folder.resolve("evidence");
        // What somebody else laid there stays: WrittenListTest.
        try (WholeOutput output = new WholeOutput(target)) {
            Files.createDirectory(output.draft());
            Files.writeString(output.draft().resolve("old.csv"), "old");
            output.complete();
        }
        try (WholeOutput output = new WholeOutput(target)) {
            Files.createDirectory(output.draft());
            Files.writeString(output.draft().resolve("new.csv"), "new");
            output.complete();
        }
        assertThat(target.resolve("new.csv")).hasContent("new");
        assertThat(target.resolve("old.csv")).doesNotExist();
        assertThat(names()).containsExactly("evidence");
    }

    @Test
    void what_a_killed_program_took_out_of_the_way_is_put_back() throws IOException {
        Path old = folder.resolve(".evidence.old-" + GONE);
        Files.createDirectory(old);
        Files.writeString(old.resolve("rows.csv"), "precious");
        WholeOutput.recover(folder.resolve("evidence"));
        assertThat(folder.resolve("evidence").resolve("rows.csv")).hasContent("precious");
        assertThat(names()).containsExactly("evidence");
    }

    @Test
    void where_the_new_one_stands_the_old_one_goes() throws IOException {
        Path old = folder.resolve(".evidence.old-" + GONE);
        Files.createDirectory(old);
        Files.createDirectory(folder.resolve("evidence"));
        Files.writeString(folder.resolve("evidence").resolve("rows.csv"), "new");
        WholeOutput.recover(folder.resolve("evidence"));
        assertThat(folder.resolve("evidence").resolve("rows.csv")).hasContent("new");
        assertThat(names()).containsExactly("evidence");
    }

    @Test
    void drafts_of_killed_programs_go_and_others_stay() throws IOException {
        Files.writeString(folder.resolve(".report.json.draft-" + GONE), "half");
        String living = ".report.json.draft-"
                + ProcessHandle.current().parent().orElseThrow().pid();
        Files.writeString(folder.resolve(living), "of another");
        Files.writeString(folder.resolve(".report.json.draft-x"), "of nobody");
        Files.writeString(folder.resolve(".other.json.draft-" + GONE), "of another file");
        try (WholeOutput output = new WholeOutput(folder.resolve("report.json"))) {
            Files.writeString(output.draft(), "new");
            output.complete();
        }
        assertThat(names())
                .containsExactlyInAnyOrder("report.json", living, ".report.json.draft-x", ".other.json.draft-" + GONE);
    }

    @Test
    void links_are_removed_and_not_followed() throws IOException {
        Path precious = folder.resolve("precious");
        Files.createDirectory(precious);
        Files.writeString(precious.resolve("rows.csv"), "stays");
        Path tree = folder.resolve("tree");
        Files.createDirectory(tree);
        Files.createSymbolicLink(tree.resolve("link"), precious);
        WholeOutput.removeTree(tree);
        assertThat(tree).doesNotExist();
        assertThat(precious.resolve("rows.csv")).hasContent("stays");
        WholeOutput.removeTree(tree);
    }

    @Test
    void messages_name_the_output_and_not_its_draft() {
        assertThat(WholeOutput.withoutDraft("/x/.report.json.draft-77")).isEqualTo("/x/report.json");
        assertThat(WholeOutput.withoutDraft("/x/.evidence.draft-77/orphans.csv"))
                .isEqualTo("/x/evidence/orphans.csv");
        assertThat(WholeOutput.withoutDraft("/x/report.json")).isEqualTo("/x/report.json");
    }

    @Test
    void a_place_that_is_taken_by_a_full_folder_is_an_error() throws IOException {
        Path target = folder.resolve("report.json");
        try (WholeOutput output = new WholeOutput(target)) {
            assertThatThrownBy(output::complete)
                    .isInstanceOf(OutputException.class)
                    .hasMessageContaining("report.json");
        }
        assertThat(names()).isEmpty();
    }
}
