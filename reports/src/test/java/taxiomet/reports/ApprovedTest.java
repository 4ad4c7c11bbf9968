package taxiomet.reports;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.w3c.dom.NodeList;
import taxiomet.charter.Severity;
import taxiomet.reports.csv.CsvReport;
import taxiomet.reports.json.CheckJson;
import taxiomet.reports.json.RehearsalJson;
import taxiomet.reports.json.VetJson;
import taxiomet.reports.markdown.CheckMarkdown;
import taxiomet.reports.text.CheckText;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.text.RehearsalText;
import taxiomet.reports.text.VetText;
import taxiomet.reports.xml.CheckXml;

/**
 * Whole reports, held against files that a person has read and approved. A report that was changed on purpose is written anew with {@code
 * -Dtaxiomet.approve=true}, and read again.
 */
class ApprovedTest {
    private static final Path APPROVED = Path.of("src/test/resources/taxiomet/reports");

    @TempDir
    private Path folder;

    private static void require(String name, String text) throws IOException {
        if (Boolean.getBoolean("taxiomet.approve")) {
            Files.writeString(APPROVED.resolve(name), text);
            return;
        }
        try (InputStream in = ApprovedTest.class.getResourceAsStream(name)) {
            assertThat(in).as(name).isNotNull();
            assertThat(text).as(name).isEqualTo(new String(in.readAllBytes(), StandardCharsets.UTF_8));
        }
    }

    private static String joined(List<String> lines) {
        return String.join("\n", lines) + "\n";
    }

    private static void requireNoControls(String text) {
        assertThat(text.codePoints().filter(c -> c != '\n' && Character.isISOControl(c)))
                .isEmpty();
        assertThat(text).doesNotContain("\u202E");
    }

    @Test
    void a_check_as_markdown_in_which_no_cell_is_markup() throws IOException {
        Path file = folder.resolve("check.md");
        CheckMarkdown.write(MadeUp.check(), "rules/charter.yaml", file);
        String text = Files.readString(file);
        requireNoControls(text);
        assertThat(text.replaceAll("\\\\.", "")).doesNotContain("<").doesNotContain("](");
        require("check.md", text);
    }

    @Test
    void a_check_as_xml_that_any_reader_takes() throws Exception {
        Path file = folder.resolve("check.xml");
        CheckXml.write(MadeUp.check(), severity -> severity == Severity.ERROR, file);
        String text = Files.readString(file);
        requireNoControls(text);
        NodeList failures = DocumentBuilderFactory.newDefaultInstance()
                .newDocumentBuilder()
                .parse(file.toFile())
                .getElementsByTagName("failure");
        assertThat(failures.getLength()).isEqualTo((int) MadeUp.check().findings().stream()
                .filter(finding -> finding.severity() == Severity.ERROR)
                .count());
        require("check.xml", text);
    }

    @ParameterizedTest
    @ValueSource(ints = {40, 80, 140})
    void a_check_in_lines_of_every_width(int width) throws IOException {
        List<String> lines = new ArrayList<>();
        new CheckText(MadeUp.check(), new LinePaper(width, false, lines::add)).write();
        requireNoControls(joined(lines));
        require("check-" + width + ".txt", joined(lines));
    }

    @Test
    void colours_change_nothing_but_colours() {
        List<String> plain = new ArrayList<>();
        new CheckText(MadeUp.check(), new LinePaper(80, false, plain::add)).write();
        new RehearsalText(MadeUp.rehearsal(), Optional.empty(), new LinePaper(80, false, plain::add)).write();
        new VetText(MadeUp.vet(), path -> "schema.sql:3:1", new LinePaper(80, false, plain::add)).write();
        List<String> coloured = new ArrayList<>();
        new CheckText(MadeUp.check(), new LinePaper(80, true, coloured::add)).write();
        new RehearsalText(MadeUp.rehearsal(), Optional.empty(), new LinePaper(80, true, coloured::add)).write();
        new VetText(MadeUp.vet(), path -> "schema.sql:3:1", new LinePaper(80, true, coloured::add)).write();
        assertThat(joined(coloured)).contains("\u001B[");
        assertThat(joined(coloured).replaceAll("\u001B\\[[0-9;]*m", "")).isEqualTo(joined(plain));
    }

    @ParameterizedTest
    @ValueSource(ints = {40, 80, 140})
    void a_rehearsal_in_lines_of_every_width(int width) throws IOException {
        List<String> lines = new ArrayList<>();
        new RehearsalText(MadeUp.rehearsal(), Optional.empty(), new LinePaper(width, false, lines::add)).write();
        requireNoControls(joined(lines));
        require("rehearsal-" + width + ".txt", joined(lines));
    }

    @ParameterizedTest
    @ValueSource(ints = {40, 80, 140})
    void a_review_in_lines_of_every_width(int width) throws IOException {
        List<String> lines = new ArrayList<>();
        new VetText(MadeUp.vet(), path -> "schema.sql:3:1", new LinePaper(width, false, lines::add)).write();
        requireNoControls(joined(lines));
        require("vet-" + width + ".txt", joined(lines));
    }

    @Test
    void results_as_json() throws IOException {
        ByteArrayOutputStream check = new ByteArrayOutputStream();
        CheckJson.write(MadeUp.check(), MadeUp.PROVENANCE, List.of(), check);
        require("check.json", check.toString(StandardCharsets.UTF_8));
        ByteArrayOutputStream rehearsal = new ByteArrayOutputStream();
        new RehearsalJson(MadeUp.rehearsal(), Optional.empty(), MadeUp.PROVENANCE).write(rehearsal);
        require("rehearsal.json", rehearsal.toString(StandardCharsets.UTF_8));
        ByteArrayOutputStream vet = new ByteArrayOutputStream();
        new VetJson(MadeUp.vet(), MadeUp.PROVENANCE, path -> "schema.sql:3:1").write(vet);
        require("vet.json", vet.toString(StandardCharsets.UTF_8));
    }

    @Test
    void a_check_as_csv() throws IOException {
        Path file = folder.resolve("check.csv");
        CsvReport.write(MadeUp.check(), file, false);
        require("check.csv", Files.readString(file));
    }
}
