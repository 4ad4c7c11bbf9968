package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion.VersionFlag;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.terminal.ExitStatus;

/** Every JSON document that a command or an option writes, against its schema in docs/formats. */
class DocumentsTest {
    private static final Path FORMATS = Path.of("../docs/formats");
    private static final String CHARTER = "../demo/charter.yaml";
    private static final String MERGE = "../demo/proposals/one-person-twice.yaml";
    private static final String BLOCKED = "../demo/proposals/keeper-leaves.sql";

    @TempDir
    private Path folder;

    private static JsonNode require(String document, JsonNode json) throws IOException {
        var schema = JsonSchemaFactory.getInstance(VersionFlag.V202012)
                .getSchema(Files.readString(FORMATS.resolve(document + ".schema.json")));
        assertThat(schema.validate(json)).as(document).isEmpty();
        assertThat(json.path("taxiomet").asText()).isEqualTo(document);
        assertThat(json.path("program").asText()).startsWith("taxiomet ");
        assertThat(Instant.parse(json.path("made").asText()))
                .isBefore(Instant.now().plusSeconds(1));
        return json;
    }

    private static JsonNode require(String document, String... arguments) throws IOException {
        Program program = Program.run(arguments);
        assertThat(program.status()).as(program.err()).isLessThan(ExitStatus.UNREADABLE);
        return require(document, program.json());
    }

    private JsonNode file(String document, String name) throws IOException {
        return require(
                document, new ObjectMapper().readTree(folder.resolve(name).toFile()));
    }

    private String in(String name) {
        return folder.resolve(name).toString();
    }

    @Test
    void check_says_so_on_standard_output_in_a_report_and_among_evidence() throws IOException {
        JsonNode printed = require("check", "check", CHARTER, "--load-order", "--json");
        assertThat(printed.get("charter").asText()).isEqualTo(CHARTER);
        assertThat(printed.get("title").asText()).isEqualTo("Merrow Vale honey cooperative");
        assertThat(printed.get("answer").asText()).isEqualTo("not sound");
        Program.run("check", CHARTER, "--report", in("a.json"), "--evidence", in("faults"));
        assertThat(file("check", "a.json").get("counts")).isEqualTo(printed.get("counts"));
        file("check", "faults/result.json");
        require("check", "check", CHARTER, "--report", "json:-");
    }

    @Test
    void vet_gives_each_finding_a_kind() throws IOException {
        Files.writeString(folder.resolve("schema.sql"), """
                CREATE TABLE hive (hive_id text PRIMARY KEY);
                CREATE TABLE visit (
                  hive_id text NOT NULL REFERENCES hive ON DELETE SET NULL,
                  CHECK (hive_id SIMILAR TO 'a'));
                CREATE INDEX i ON visit (hive_id);
                """);
        JsonNode printed = require("vet", "vet", in("schema.sql"), "--json", "--server", "mariadb", "--around", "hive");
        assertThat(printed.get("findings").findValuesAsText("finding"))
                .contains("null not allowed", "no primary key", "number as text", "rule not read");
        Program.run("vet", CHARTER, "--report", in("vet.json"));
        assertThat(file("vet", "vet.json").get("answer").asText()).isEqualTo("sound");
    }

    @Test
    void map_with_and_without_what_a_check_found() throws IOException {
        Program.run("check", CHARTER, "--report", in("found.json"));
        require("map", "map", CHARTER, "--json", "--count");
        JsonNode around = require("map", "map", CHARTER, "--json", "--around", "hive", "--check", in("found.json"));
        assertThat(around.get("left_out").asInt()).isEqualTo(6);
        assertThat(around.at("/tables/1/health/faulty_rows").asInt()).isEqualTo(12);
        require("map", "map", CHARTER, "--report", "json:-");
    }

    @Test
    void trace_of_one_row_of_several_and_of_none() throws IOException {
        JsonNode hive = require("trace", "trace", CHARTER, "hive", "118", "--json", "--down", "2");
        assertThat(hive.at("/rows/0/twins/0/others").asInt()).isEqualTo(1);
        require("trace", "trace", CHARTER, "visit", "--row", "visits-2024.csv.gz:78", "--json");
        require("trace", "trace", CHARTER, "hive", "--where", "kind = 'warre'", "--json");
        require("trace", "trace", CHARTER, "hive", "61", "--report", "json:-");
        assertThat(require("trace", "trace", CHARTER, "keeper", "K-8", "--json")
                        .at("/near/keys/0/0")
                        .asText())
                .isEqualTo("K-008");
    }

    @Test
    void survey_and_what_it_tries() throws IOException {
        require("survey", "survey", "../demo", "--json");
        Program.run("survey", "../demo", "--report", in("survey.json"));
        file("survey", "survey.json");
        JsonNode trials = require(
                "trials",
                "survey",
                "../demo",
                "--json",
                "--key",
                "hives=hive_id",
                "--link",
                "hives.apiary_id=apiaries.apiary_id");
        for (JsonNode trial : trials.get("trials")) {
            require("check", trial.get("result"));
        }
    }

    @Test
    void sift_compare_and_what_is_kept() throws IOException {
        require("sift", "sift", CHARTER, "--into", in("sifted"), "--reveal", "--mend", "--json");
        file("sift", "sifted/sift.json");
        String key = in("key");
        Program.run("check", CHARTER, "--evidence", in("one"), "--key-file", key);
        Program.run("check", CHARTER, "--only", "keeper", "--evidence", in("two"), "--key-file", key);
        require("compare", "compare", in("one"), in("two"), "--json");
        require("compare", "compare", in("one"), in("two"), "--report", "json:-");
        require("compare", "compare", CHARTER, CHARTER, "--json");
        require("check", "check", CHARTER, "--since", in("two"), "--key-file", key, "--json");
        try (var in = new java.util.zip.GZIPInputStream(Files.newInputStream(folder.resolve("one/kept.json.gz")))) {
            require("kept", new ObjectMapper().readTree(in));
        }
        Program.run("docket", CHARTER, "--report", in("docket.csv"), "--key-file", key);
        Files.writeString(
                folder.resolve("docket.csv"),
                Files.readString(folder.resolve("docket.csv"))
                        .replaceFirst("is mended where it comes from,,,", "is mended where it comes from,what,,"));
        JsonNode rehearsal = require(
                "rehearsal",
                "rehearse",
                CHARTER,
                in("docket.csv"),
                "-e",
                "DELETE FROM hive WHERE hive_id = 61",
                "--json",
                "--key-file",
                key);
        assertThat(rehearsal.at("/docket/left_out/0/why").asText()).isEqualTo("unclear");
    }

    @Test
    void rehearse_with_each_option_that_prints() throws IOException {
        JsonNode merged = require("rehearsal", "rehearse", CHARTER, MERGE, "--json");
        assertThat(merged.get("answer").asText()).isEqualTo("accepted");
        assertThat(merged.get("changes")
                        .get(0)
                        .get("effects")
                        .get(0)
                        .get("examples")
                        .get(0)
                        .get("key"))
                .isEqualTo(new ObjectMapper().readTree("{\"keeper_id\": \"K-012\"}"));
        JsonNode blocked = require("rehearsal", "rehearse", CHARTER, BLOCKED, "--json");
        assertThat(blocked.get("answer").asText()).isEqualTo("blocked");
        JsonNode actions =
                require("actions", "rehearse", CHARTER, BLOCKED, "--json", "--compare-actions", "apiary_keeper");
        for (JsonNode action : actions.get("actions")) {
            require("rehearsal", action.get("result"));
        }
        require("ways", "rehearse", CHARTER, MERGE, "--json", "--why", "keeper", "K-012");
        require("ways", "rehearse", CHARTER, BLOCKED, "--json", "--why", "apiary", "7");
        require("problems", "rehearse", CHARTER, "-e", "DELETE FROM nobody", "--json");
        Program.run("rehearse", CHARTER, MERGE, "--report", in("merge.json"), "--into", in("merged"), "--reveal");
        file("rehearsal", "merge.json");
        file("undo", "merged/undo.json");
    }

    @Test
    void every_schema_is_of_a_document_that_is_read_or_written() throws IOException {
        Set<String> known = new TreeSet<>(List.of(
                "actions",
                "charter",
                "check",
                "compare",
                "kept",
                "map",
                "problems",
                "proposal",
                "rehearsal",
                "sift",
                "survey",
                "trace",
                "trials",
                "undo",
                "vet",
                "ways"));
        String overview = Files.readString(FORMATS.resolve("README.md"));
        List<String> there = new ArrayList<>();
        try (Stream<Path> files = Files.list(FORMATS)) {
            files.map(file -> file.getFileName().toString())
                    .filter(name -> name.endsWith(".schema.json"))
                    .forEach(name -> there.add(name.replace(".schema.json", "")));
        }
        assertThat(new TreeSet<>(there)).isEqualTo(known);
        known.forEach(name -> assertThat(overview).contains("(" + name + ".schema.json)"));
    }
}
