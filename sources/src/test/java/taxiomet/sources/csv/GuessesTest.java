package taxiomet.sources.csv;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.rows.SourceException;
import taxiomet.sources.DataFiles;
import taxiomet.sources.file.EncodingGuess;
import taxiomet.sources.file.FileContent;
import taxiomet.survey.profile.FoundTable;

/** What is guessed about files of which nothing is declared, and what is said about it. */
class GuessesTest {
    private static final Charset WESTERN = Charset.forName("windows-1252");

    @TempDir
    private Path folder;

    @ParameterizedTest
    @ValueSource(strings = {"id,name\n1,Ada\n", "id,name\n1,Zoë\n", "蜂\n", "\ufeffid\n1\n", ""})
    void sound_utf8_leaves_no_doubt(String text) {
        EncodingGuess guess = EncodingGuess.of(text.getBytes(StandardCharsets.UTF_8));
        assertThat(guess.encoding()).isEqualTo("UTF-8");
        assertThat(guess.remark()).isEmpty();
    }

    @Test
    void bytes_that_are_no_utf8_speak_for_another_encoding_and_that_is_said() {
        EncodingGuess guess = EncodingGuess.of("id,name\n1,Ada\n2,Zoë Møller\n".getBytes(WESTERN));
        assertThat(guess.encoding()).isEqualTo("windows-1252");
        assertThat(guess.remark().orElseThrow()).contains("2 bytes").contains("line 3");
    }

    @Test
    void one_stray_byte_among_many_sound_characters_does_not_turn_the_guess() {
        byte[] sound = "Zoë,Møller,Zoë,Møller\n".repeat(20).getBytes(StandardCharsets.UTF_8);
        sound[sound.length - 12] = (byte) 0xE9;
        EncodingGuess guess = EncodingGuess.of(sound);
        assertThat(guess.encoding()).isEqualTo("UTF-8");
        assertThat(guess.remark().orElseThrow()).contains("malformed");
    }

    @Test
    void a_mark_at_the_beginning_tells_the_encoding() {
        assertThat(EncodingGuess.of("\ufeffid\n".getBytes(StandardCharsets.UTF_16LE))
                        .encoding())
                .isEqualTo("UTF-16");
        assertThat(EncodingGuess.of("\ufeffid\n".getBytes(StandardCharsets.UTF_16BE))
                        .encoding())
                .isEqualTo("UTF-16");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '^', textBlock = """
                    {"a": 1}                               | JSON
                    [{"a": 1}]                             | JSON
                    [1, 2]                                 | JSON
                    CREATE TABLE hive (id int);            | a SQL script
                    -- a schema; INSERT INTO hive          | none
                    INSERT INTO hive VALUES (1);           | a SQL script
                    set foreign_key_checks = 0;            | a SQL script
                    <?xml version="1.0"?><a/>              | XML or HTML
                    <html><body>                           | XML or HTML
                    %PDF-1.4                               | a PDF document
                    PAR1xxxx                               | a Parquet file
                    SQLite format 3                        | an SQLite database
                    id,name                                | none
                    created table,2                        | none
                    [note],id                              | none
                    {x},id                                 | none
                    <5,id                                  | none
                    setup,id                               | none
                    """)
    void what_is_plainly_no_table_is_told_by_what_is_in_it(String text, String what) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        if (what.equals("none")) {
            assertThatCode(() -> FileContent.requireDelimitedText(Path.of("x.csv"), bytes))
                    .doesNotThrowAnyException();
        } else {
            assertThatThrownBy(() -> FileContent.requireDelimitedText(Path.of("x.csv"), bytes))
                    .isInstanceOf(SourceException.class)
                    .hasMessageContaining("this is " + what);
        }
    }

    private List<FoundTable> find() {
        return DataFiles.find(List.of(folder), Optional.empty(), Optional.empty())
                .tables();
    }

    @ParameterizedTest
    @ValueSource(chars = {',', ';', '\t', '|'})
    void the_delimiter_is_the_one_that_parts_every_line_alike(char delimiter) throws IOException {
        String text = "id,name,note\n1,Ada,\"a; b|c\"\n2,Bo,x\n".replace(',', delimiter);
        Files.writeString(folder.resolve("keeper.csv"), text);
        FoundTable table = find().get(0);
        assertThat(((DelimitedFiles) table.rows()).delimiter()).isEqualTo(delimiter);
        assertThat(table.columns()).containsExactly("id", "name", "note");
        assertThat(table.name()).isEqualTo("keeper");
    }

    @Test
    void files_that_differ_in_a_number_at_the_end_are_one_table() throws IOException {
        Files.writeString(folder.resolve("visit-2024.csv"), "id,day\n1,2\n");
        Files.writeString(folder.resolve("visit-2025.csv"), "id,day\n3,4\n");
        Files.writeString(folder.resolve("hive.csv"), "id,apiary\n3,4\n");
        Files.writeString(folder.resolve("visit-notes.csv"), "id,note\n3,4\n");
        assertThat(find().stream().map(FoundTable::name).toList())
                .containsExactlyInAnyOrder("visit", "hive", "visit-notes");
    }

    @Test
    void what_is_passed_over_is_named_and_what_was_asked_for_is_refused() throws IOException {
        Files.writeString(folder.resolve("hive.csv"), "id,apiary\n3,4\n");
        Path json = Files.writeString(folder.resolve("export.csv"), "{\"id\": 1}");
        DataFiles.Found found = DataFiles.find(List.of(folder), Optional.empty(), Optional.empty());
        assertThat(found.tables()).hasSize(1);
        assertThat(found.passedOver()).anyMatch(words -> words.contains("export.csv") && words.contains("JSON"));
        assertThatThrownBy(() -> DataFiles.find(List.of(json), Optional.empty(), Optional.empty()))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("JSON");
    }

    @Test
    void metadata_of_the_files_beside_it_is_no_table() throws IOException {
        Files.writeString(folder.resolve("hive.csv"), "id,apiary\n3,4\n");
        Path metadata = Files.writeString(
                folder.resolve("hive.csv-metadata.json"),
                "{\"@context\": [\"http://www.w3.org/ns/csvw\"], \"tables\": [{\"url\": \"hive.csv\"}]}");
        DataFiles.Found found = DataFiles.find(List.of(folder), Optional.empty(), Optional.empty());
        assertThat(found.tables().stream().map(FoundTable::name)).containsExactly("hive");
        assertThat(found.passedOver()).anyMatch(words -> words.contains("taxiomet vet " + metadata));
    }

    @Test
    void an_empty_folder_has_no_table() {
        assertThatThrownBy(this::find)
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("there is no table in it");
    }
}
