package taxiomet.reports;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Of a folder that is replaced goes what was written into it, and nothing else. */
class WrittenListTest {
    @TempDir
    private Path folder;

    private List<String> write(Path target, String... names) throws IOException {
        try (WholeOutput output = new WholeOutput(target)) {
            Files.createDirectory(output.draft());
            for (String name : names) {
                Path file = output.draft().resolve(name);
                Files.createDirectories(file.getParent());
                Files.writeString(file, "written: " + name + " " + names.length);
            }
            return output.complete();
        }
    }

    private static List<String> content(Path target) throws IOException {
        try (var all = Files.walk(target)) {
            return all.filter(each -> !each.equals(target))
                    .map(each -> target.relativize(each).toString())
                    .filter(name -> !name.startsWith("."))
                    .sorted()
                    .toList();
        }
    }

    @Test
    void what_others_laid_into_a_folder_stays_and_is_told() throws Exception {
        Path target = folder.resolve("out");
        assertThat(write(target, "a.csv", "sub/b.csv")).isEmpty();
        assertThat(WholeOutput.wrote(target)).isTrue();
        assertThat(WholeOutput.others(target)).isEmpty();
        Files.writeString(target.resolve("notes.txt"), "mine");
        Files.writeString(target.resolve("sub/mine.txt"), "mine too");
        Files.createDirectory(target.resolve("empty"));
        Path elsewhere = Files.writeString(folder.resolve("elsewhere.txt"), "far");
        Files.createSymbolicLink(target.resolve("link"), elsewhere);

        assertThat(write(target, "c.csv")).containsExactlyInAnyOrder("empty", "link", "notes.txt", "sub/mine.txt");
        assertThat(content(target)).containsExactly("c.csv", "empty", "link", "notes.txt", "sub", "sub/mine.txt");
        assertThat(target.resolve("notes.txt")).hasContent("mine");
        assertThat(elsewhere).hasContent("far");
        assertThat(content(folder)).noneMatch(name -> name.contains("old-") || name.contains("draft-"));
        assertThat(write(target, "d.csv")).hasSize(4);
    }

    @Test
    void what_was_changed_since_is_not_replaced_by_something_of_its_name() throws Exception {
        Path target = folder.resolve("out");
        write(target, "a.csv", "b.csv");
        Files.writeString(target.resolve("a.csv"), "decided by hand");
        assertThatThrownBy(() -> write(target, "a.csv"))
                .isInstanceOf(OutputException.class)
                .hasMessageContaining("a.csv")
                .hasMessageContaining("was changed since");
        assertThat(target.resolve("a.csv")).hasContent("decided by hand");
        assertThat(target.resolve("b.csv")).hasContent("written: b.csv 2");
        assertThat(write(target, "c.csv")).containsExactly("a.csv");
        assertThat(content(target)).containsExactly("a.csv", "c.csv");
    }

    @Test
    void a_program_that_was_killed_while_it_replaced_a_folder_has_lost_nothing() throws Exception {
        Path target = folder.resolve("out");
        write(target, "a.csv");
        Files.writeString(target.resolve("notes.txt"), "mine");
        Path old = folder.resolve(".out.old-999999999");
        Files.move(target, old);
        WholeOutput.recover(target);
        assertThat(content(target)).containsExactly("a.csv", "notes.txt");

        Files.move(target, old);
        write(folder.resolve("new"), "b.csv");
        Files.move(folder.resolve("new"), target);
        WholeOutput.recover(target);
        assertThat(content(target)).containsExactly("b.csv", "notes.txt");
        assertThat(old).doesNotExist();
    }

    @Test
    void a_folder_of_the_name_of_an_old_one_that_was_never_ours_stays() throws Exception {
        Path target = folder.resolve("out");
        write(target, "a.csv");
        Path theirs = Files.createDirectory(folder.resolve(".out.old-999999999"));
        Files.writeString(theirs.resolve("x.txt"), "theirs");
        WholeOutput.recover(target);
        assertThat(theirs.resolve("x.txt")).hasContent("theirs");
    }
}
