package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import picocli.CommandLine;
import picocli.CommandLine.Model.OptionSpec;
import taxiomet.cli.help.HelpPage;
import taxiomet.cli.help.Meanings;
import taxiomet.cli.option.OptionGroup;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;

/** Every option and every kind, in help, man pages, completion and the documents. */
class HelpTest {
    @TempDir
    private static Path folder;

    static List<String> commands() {
        return List.copyOf(all().getSubcommands().keySet());
    }

    private static CommandLine all() {
        PrintStream nowhere = new PrintStream(new ByteArrayOutputStream(), false, StandardCharsets.UTF_8);
        return Main.commandLine(Terminal.of(Map.of(), nowhere, nowhere));
    }

    private static List<OptionSpec> options(String command) {
        return all().getSubcommands().get(command).getCommandSpec().options().stream()
                .filter(option -> !option.hidden())
                .toList();
    }

    private static String made(String name) throws IOException {
        if (Files.notExists(folder.resolve("taxiomet.fish"))) {
            ManPages.main(new String[] {folder.toString()});
            Completion.main(new String[] {folder.toString()});
        }
        return Files.readString(folder.resolve(name));
    }

    @ParameterizedTest
    @MethodSource("commands")
    void an_option_stands_in_one_part_of_help_and_everywhere_else(String command) throws IOException {
        String help = Program.run("help", command).out();
        String page = made("taxiomet-" + command + ".1").replace("\\-", "-");
        String bash = made("taxiomet.bash");
        String zsh = made("_taxiomet");
        String fish = made("taxiomet.fish");
        String documents = Files.readString(Path.of("../README.md"))
                + Files.readString(Path.of("../docs/guide.md"))
                + Files.readString(Path.of("../docs/words.md"));
        var spec = all().getSubcommands().get(command).getCommandSpec();
        for (OptionSpec option : options(command)) {
            String name = option.longestName();
            assertThat(Arrays.stream(OptionGroup.values())
                            .flatMap(group -> group.of(spec).stream())
                            .filter(other -> other.longestName().equals(name)))
                    .as(name)
                    .hasSize(1);
            assertThat(help).contains(name);
            assertThat(page).contains(name);
            assertThat(bash).contains("'" + name + "'");
            assertThat(zsh)
                    .contains(
                            name + (option.arity().min() == 0 && option.arity().max() > 0 ? "=-[" : "["));
            assertThat(fish).contains(name.startsWith("--") ? " -l " + name.substring(2) + " " : " -s e ");
            assertThat(documents).as("documents name " + name).containsPattern("(?<![\\w-])" + name + "(?![\\w-])");
        }
        assertThat(help + page).doesNotContain("--chunk").doesNotContain("${");
    }

    @ParameterizedTest
    @ValueSource(ints = {40, 60, 80, 100})
    void help_fits_its_window_and_breaks_no_word(int width) {
        for (String command : commands()) {
            String help =
                    Program.run(Map.of("COLUMNS", "" + width), "help", command).out();
            assertThat(help.lines().filter(line -> !line.startsWith("  taxiomet") && !line.startsWith("Usage:")))
                    .allMatch(line -> line.length() <= Math.max(width, 55));
            assertThat(help).contains("Usage: taxiomet " + command);
            if (width >= 60) {
                String words = help.replaceAll("\\s+", " ");
                options(command).forEach(option -> assertThat(words).contains(HelpPage.description(option)));
            }
        }
    }

    @Test
    void each_kind_has_a_meaning_and_several_are_told_at_once() {
        Meanings meanings = new Meanings();
        for (String kind : Meanings.kinds()) {
            assertThat(meanings.of(kind)).as(kind).hasSizeGreaterThan(1);
            assertThat(Program.run("meaning", Meanings.asWord(kind)).out()).startsWith(kind + "\n");
        }
        Program several = Program.run("meaning", "key-taken", "null", "in", "key", "Rows_still_point_at_it");
        assertThat(several.out().lines().filter(line -> !line.startsWith(" ") && !line.isEmpty()))
                .containsExactly("key taken", "null in key", "rows still point at it");
        Program list = Program.run("meaning");
        assertThat(list.out()).contains("Kinds of finding").contains("Kinds of refusal");
        assertThat(Program.run("meaning", "orphans").err()).contains("did you mean orphan?");
    }

    @Test
    void completion_offers_words_as_users_type_them() throws IOException {
        for (String script : List.of(made("taxiomet.bash"), made("_taxiomet"), made("taxiomet.fish"))) {
            assertThat(script)
                    .contains("null-in-key")
                    .contains("rows-still-point-at-it")
                    .contains("deferrable")
                    .doesNotContain("DEFERRABLE")
                    .doesNotContain("ALWAYS")
                    .doesNotContain("LIBRARY");
        }
        assertThat(made("taxiomet.fish"))
                .contains("from vet' -l server -x -a 'postgresql mariadb sqlite sqlserver oracle'");
        assertThat(made("_taxiomet")).contains("'1:COMMAND:(" + String.join(" ", commands()) + ")'");
    }

    @Test
    void the_nearest_word_is_offered_for_one_that_is_unknown() {
        Stream.of(
                        List.of("chek", "did you mean check?"),
                        List.of("help", "rehearsal", "did you mean rehearse?"),
                        List.of("check", "--exampels", "2", "did you mean --examples?"))
                .forEach(line -> {
                    Program run = Program.run(line.subList(0, line.size() - 1).toArray(String[]::new));
                    assertThat(run.status()).isEqualTo(ExitStatus.WRONG_USAGE);
                    assertThat(run.err()).contains(line.get(line.size() - 1));
                });
    }
}
