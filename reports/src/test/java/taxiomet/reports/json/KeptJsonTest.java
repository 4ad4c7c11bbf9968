package taxiomet.reports.json;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Severity;
import taxiomet.finding.FindingKind;
import taxiomet.finding.KeptResult;
import taxiomet.finding.KeptResult.KeptFinding;
import taxiomet.finding.KeptResult.KeptParents;
import taxiomet.finding.KeptResult.KeptRow;
import taxiomet.finding.KeptResult.KeptTable;
import taxiomet.reports.json.HealthReader.NoResult;

class KeptJsonTest {
    private static final Instant MADE = Instant.parse("2027-05-31T12:00:00Z");

    @TempDir
    private Path folder;

    @Test
    void what_is_kept_is_read_as_it_was() throws NoResult {
        long[] keys = new Random(18)
                .longs(5_000, 0, 1L << KeptParents.BITS)
                .distinct()
                .sorted()
                .toArray();
        KeptResult result = new KeptResult(
                MADE,
                "Harbour",
                "a mark",
                List.of(new KeptTable("boat", 12, 2)),
                List.of(
                        new KeptFinding(
                                FindingKind.ORPHAN,
                                Severity.ERROR,
                                "boat",
                                "boat_quay",
                                2,
                                1,
                                List.of(
                                        new KeptRow(-1, 0, 77, "veiled-1", false),
                                        new KeptRow(5, -9, 0, "(1, \"x\")", true))),
                        new KeptFinding(FindingKind.ODD_SPELLING, Severity.NOTE, "boat", "no", 3, 0, List.of())),
                List.of(new KeptParents("boat", "boat_quay", keys)));
        Path file = folder.resolve("kept.json.gz");
        KeptJson.write(result, new Provenance("taxiomet", Instant.EPOCH, "charter.yaml"), file);
        KeptResult read = KeptReader.read(file);
        assertThat(read.made()).isEqualTo(MADE);
        assertThat(read.keyMark()).isEqualTo("a mark");
        assertThat(read.tables()).isEqualTo(result.tables());
        assertThat(read.findings()).isEqualTo(result.findings());
        assertThat(read.parents().get(0).keys().toArray()).isEqualTo(keys);
        assertThat(read.parents().get(0).contains(keys[3])).isTrue();
        assertThat(read.parents().get(0).contains(keys[3] + 1)).isFalse();
    }

    private void assertNone(String content, String why) throws Exception {
        Path file = folder.resolve("other.json.gz");
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(file))) {
            out.write(content.getBytes(StandardCharsets.UTF_8));
        }
        assertThatThrownBy(() -> KeptReader.read(file))
                .isInstanceOf(NoResult.class)
                .hasMessageContaining(why);
    }

    @Test
    void other_documents_are_refused_in_words() throws Exception {
        assertNone("[]", "nothing that was kept");
        assertNone("{\"taxiomet\": \"check\"}", "nothing that was kept");
        assertNone("{\"taxiomet\": \"kept\", \"version\": 2}", "version 2");
        assertNone("{\"taxiomet\": \"kept\", \"version\": 1}", "it lacks `made`");
        assertNone("{\"rows\": [{\"finding\": 3, \"is\": \"1\", \"row\": \"x\"}]}", "cannot be read");
        assertNone(
                "{\"parents\": [{\"child\": \"a\", \"link\": \"b\", \"count\": 9, \"keys\": \"AA==\"}]}",
                "fewer keys than it says");
        assertNone("{\"tables\": {", "nothing that was kept");
        assertNone("{\"tables\": [{", "no JSON");
        Files.writeString(folder.resolve("plain.json"), "{}");
        assertThatThrownBy(() -> KeptReader.read(folder.resolve("plain.json"))).isInstanceOf(NoResult.class);
    }
}
