package taxiomet.charters.proposals;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.proposal.ProposalException;

/** An undo is read whole, or refused as what it is not: whatever stands in the file. */
class FilesOfProposalsTest {
    private static final String GOOD = """
            {"taxiomet": "undo", "version": 1, "files": [{"file": "hive.csv", "copy": {"sha256": "ab"}, "original": {"sha256": "cd"},
             "edits": [{"at": 3, "remove": 2, "put": "xy"}, {"at": 9, "remove": 0, "put_base64": "AP8="}], "more": [1, {"a": 2}]}]}
            """;

    @TempDir
    private Path folder;

    private List<UndoReader.FileUndo> read(String text) throws IOException {
        Path file = Files.writeString(folder.resolve("undo.json"), text);
        return new UndoReader(file).read();
    }

    @Test
    void edits_are_read_in_their_order() throws IOException {
        UndoReader.FileUndo undo = read(GOOD).get(0);
        assertThat(undo.place()).isEqualTo("hive.csv");
        assertThat(undo.copySha256()).isEqualTo("ab");
        assertThat(undo.originalSha256()).isEqualTo("cd");
        assertThat(undo.edits().get(0).at()).isEqualTo(3);
        assertThat(undo.edits().get(0).put()).isEqualTo(new byte[] {'x', 'y'});
        assertThat(undo.edits().get(1).put()).isEqualTo(new byte[] {0, (byte) 0xFF});
    }

    @Test
    void nothing_to_undo_is_an_undo_too() throws IOException {
        assertThat(read("{\"taxiomet\": \"undo\", \"version\": 1, \"files\": []}"))
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "{",
                "[]",
                "null",
                "7",
                "{}",
                "{\"files\": []}",
                "{\"taxiomet\": \"undo\", \"version\": 1}",
                "{\"taxiomet\": \"undo\", \"version\": 2, \"files\": []}",
                "{\"taxiomet\": \"check\", \"version\": 1, \"files\": []}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": {}}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [7]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": 7}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\", \"copy\": \"x\"}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\\u0000b\", \"copy\": {\"sha256\": \"a\"}, \"original\": {\"sha256\": \"a\"}}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\", \"copy\": {\"sha256\": \"a\"}, \"original\": {\"sha256\": \"a\"}, \"edits\": 3}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\", \"copy\": {\"sha256\": \"a\"}, \"original\": {\"sha256\": \"a\"}, \"edits\": [{}]}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\", \"copy\": {\"sha256\": \"a\"}, \"original\": {\"sha256\": \"a\"}, \"edits\": [{\"at\": -1, \"remove\": 0}]}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\", \"copy\": {\"sha256\": \"a\"}, \"original\": {\"sha256\": \"a\"}, \"edits\": [{\"at\": \"x\", \"remove\": 0}]}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\", \"copy\": {\"sha256\": \"a\"}, \"original\": {\"sha256\": \"a\"}, \"edits\": [{\"at\": 99999999999999999999, \"remove\": 0}]}]}",
                "{\"taxiomet\": \"undo\", \"version\": 1, \"files\": [{\"file\": \"a\", \"copy\": {\"sha256\": \"a\"}, \"original\": {\"sha256\": \"a\"}, \"edits\": [{\"at\": 1, \"remove\": 0, \"put_base64\": \"!!\"}]}]}"
            })
    void what_is_no_undo_is_refused_in_words(String text) {
        assertThatThrownBy(() -> read(text))
                .isInstanceOf(ProposalException.class)
                .hasMessageContaining("no undo that a rehearsal wrote");
    }

    @Test
    void brackets_without_end_are_refused_too() {
        assertThatThrownBy(() -> read("{\"a\": " + "[".repeat(100_000))).isInstanceOf(ProposalException.class);
    }

    @Test
    void a_file_that_is_not_there_is_named() {
        assertThatThrownBy(() -> new UndoReader(folder.resolve("none.json")).read())
                .isInstanceOf(ProposalException.class)
                .hasMessageContaining("none.json")
                .hasMessageContaining("there is no such file");
    }
}
