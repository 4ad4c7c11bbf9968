package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** The demo: each planted fault is found at its row, and nothing else. */
class DemoTest {
    private static final Path ROOT = Path.of("..");
    private static final Pattern LISTED =
            Pattern.compile("\\| ([a-z -]+) \\| (\\w+) \\| (\\w+) \\| ([^|]*[0-9]) \\|.*\\|");

    private static JsonNode check() {
        Program program =
                Program.run("check", ROOT.resolve("demo/charter.yaml").toString(), "--json", "--examples", "1000");
        assertThat(program.status()).as(program.err()).isEqualTo(1);
        return program.json();
    }

    @Test
    void the_planted_faults_are_found_and_nothing_else() throws IOException {
        Set<String> planted = new TreeSet<>();
        for (String line : Files.readAllLines(ROOT.resolve("demo/FAULTS.md"))) {
            Matcher fault = LISTED.matcher(line);
            if (fault.matches()) {
                for (String row : fault.group(4).split(", ", -1)) {
                    planted.add(fault.group(1) + " " + fault.group(2) + "." + fault.group(3) + " " + row);
                }
            }
        }
        Set<String> found = new TreeSet<>();
        for (JsonNode finding : check().get("findings")) {
            String what = finding.get("finding").asText() + " "
                    + finding.get("table").asText() + "." + finding.get("at").asText() + " ";
            boolean isInParts = finding.get("table").asText().equals("visit");
            for (JsonNode row : finding.get("examples")) {
                found.add(what
                        + (isInParts ? row.get("file").asText() + ":" : "")
                        + row.get("row").asLong());
            }
        }
        assertThat(planted).hasSizeGreaterThan(40);
        assertThat(found).isEqualTo(planted);
    }

    @Test
    void one_table_alone_is_judged_with_its_links() {
        Program program = Program.run("check", ROOT.resolve("demo/charter.yaml").toString(), "--only", "hive");
        assertThat(program.status()).as(program.err()).isEqualTo(1);
        assertThat(Program.run(
                                "check",
                                ROOT.resolve("demo/charter.yaml").toString(),
                                "--only",
                                "hive",
                                "--examples",
                                "0")
                        .out())
                .contains("3 values missing: 77 (7 rows), 0, 12b");
        assertThat(program.out())
                .contains("orphan at hive.hive_apiary: 9 rows")
                .contains("too few children at apiary.hive_apiary: 1 row")
                .doesNotContain("at keeper.");
    }

    @Test
    void hints_name_the_parent_that_was_meant() {
        String result = check().get("findings").toString();
        assertThat(result)
                .contains("perhaps K-008, in another case")
                .contains("perhaps K-008, but for blanks at an end")
                .contains("probably stands for nothing");
    }

    @Test
    void one_missing_apiary_explains_most_orphans() throws IOException {
        for (JsonNode finding : check().get("findings")) {
            if (finding.get("at").asText().equals("hive_apiary")
                    && finding.get("finding").asText().equals("orphan")) {
                JsonNode commonest = finding.get("commonest").get(0);
                assertThat(commonest)
                        .isEqualTo(new ObjectMapper().readTree("{\"values\": {\"apiary_id\": \"77\"}, \"rows\": 7}"));
                assertThat(finding.get("distinct").asInt()).isEqualTo(3);
                return;
            }
        }
        throw new AssertionError("no orphans at hive_apiary");
    }
}
