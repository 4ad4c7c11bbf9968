package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;
import taxiomet.cli.conformance.RandomCase.CellCase;
import taxiomet.cli.conformance.RandomCase.KeyCase;
import taxiomet.cli.conformance.RandomCase.LinkCase;
import taxiomet.cli.conformance.RandomCase.RowCase;
import taxiomet.cli.conformance.RandomCase.TableCase;

/**
 * The program and an embedded SQL database, given the same charter and rows, find the same faults at the same rows. {@code
 * -Dtaxiomet.cases=N} runs more cases, {@code -Dtaxiomet.seed=S} starts elsewhere.
 */
class ConformanceTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 400);
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 20_261_124L);
    private static final int QUOTA = 30;

    /** With what means cases are run in turn: the answer is the same. Tiny memory puts all keys into files. */
    private static final List<List<String>> MEANS = List.of(
            List.of(),
            List.of("--chunk", "5", "--memory", "1k", "--threads", "3"),
            List.of("--chunk", "64", "--threads", "4"),
            List.of("--chunk", "1", "--memory", "1k", "--threads", "2"));

    private final Map<String, Integer> seen = new TreeMap<>();

    @Test
    void the_program_and_a_database_find_the_same_rows(@TempDir Path folder) throws Exception {
        for (long seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
            RandomCase random = new RandomCase(seed);
            Path place = Files.createDirectory(folder.resolve("case" + seed));
            CaseFiles.write(random, place);
            List<String> words = new ArrayList<>(List.of(
                    "check",
                    place.resolve("charter.json").toString(),
                    "--evidence",
                    place.resolve("evidence").toString(),
                    "--json"));
            words.addAll(MEANS.get((int) (seed % MEANS.size())));
            Program program = Program.run(words.toArray(new String[0]));
            assertThat(program.status()).as("seed %d: %s", seed, program.err()).isIn(0, 1);
            try (SqlOracle oracle = new SqlOracle(random)) {
                assertThat(differences(rowsFound(place.resolve("evidence")), oracle.rows))
                        .as("rows, seed %d", seed)
                        .isEmpty();
                assertThat(differences(counts(program.json(), oracle.counts), oracle.counts))
                        .as("counts, seed %d", seed)
                        .isEmpty();
                note(random, oracle);
            }
        }
        System.out.println(
                "conformance: seeds " + FIRST_SEED + " to " + (FIRST_SEED + CASES - 1) + ", cases with " + seen);
        if (CASES >= 300) {
            assertThat(seen)
                    .hasSizeGreaterThan(45)
                    .allSatisfy((trait, cases) -> assertThat(cases).as(trait).isGreaterThanOrEqualTo(QUOTA));
        }
    }

    private static List<String> differences(Map<String, ?> program, Map<String, ?> database) {
        Set<String> names = new TreeSet<>(program.keySet());
        names.addAll(database.keySet());
        return names.stream()
                .filter(name -> !Objects.equals(program.get(name), database.get(name)))
                .map(name -> name + ": the program says " + program.get(name) + ", the database " + database.get(name))
                .toList();
    }

    /** All rows in the evidence, but for those of notes, which are no faults. */
    private static Map<String, Set<Long>> rowsFound(Path evidence) throws IOException {
        Map<String, Set<Long>> rows = new TreeMap<>();
        JsonNode result =
                new ObjectMapper().readTree(evidence.resolve("result.json").toFile());
        for (JsonNode finding : result.get("findings")) {
            if (finding.get("severity").asText().equals("note")) {
                continue;
            }
            String key = finding.get("finding").asText() + " "
                    + finding.get("table").asText() + "." + finding.get("at").asText();
            Set<Long> found = new TreeSet<>();
            long lines = 0;
            Path file = evidence.resolve(finding.get("evidence").asText());
            try (CsvReader<NamedCsvRecord> reader =
                    CsvReader.builder().ofNamedCsvRecord(file, StandardCharsets.UTF_8)) {
                for (NamedCsvRecord record : reader) {
                    found.add(Long.parseLong(record.getField("row")));
                    lines++;
                }
            }
            assertThat(lines).as(key).isEqualTo(finding.get("rows").asLong()).isEqualTo(found.size());
            rows.put(key, found);
        }
        return rows;
    }

    /** The counts that the database made, as the result gives them. */
    private static Map<String, Long> counts(JsonNode result, Map<String, Long> wanted) {
        Map<String, Long> counts = new TreeMap<>();
        for (JsonNode finding : result.get("findings")) {
            String at = " " + finding.get("table").asText() + "."
                    + finding.get("at").asText();
            if (finding.has("excess")) {
                counts.put("excess" + at, finding.get("excess").asLong());
                counts.put("groups" + at, finding.get("groups").asLong());
            }
        }
        for (JsonNode link : result.get("links")) {
            String at =
                    " " + link.get("child").asText() + "." + link.get("link").asText();
            for (String name : List.of("judged", "nulls", "half_nulls", "ill_typed")) {
                counts.put(name + at, link.get(name).asLong());
            }
        }
        for (JsonNode rule : result.get("rules")) {
            counts.put(
                    "rule_judged " + rule.get("table").asText() + "."
                            + rule.get("rule").asText(),
                    rule.get("judged").asLong());
        }
        wanted.forEach((name, count) -> counts.putIfAbsent(name, 0L));
        return counts;
    }

    /** Counts in how many cases each thing occurs that the quotas ask for. */
    private void note(RandomCase random, SqlOracle oracle) {
        Set<String> traits = new TreeSet<>();
        oracle.rows.keySet().forEach(what -> traits.add("finding: " + what.substring(0, what.lastIndexOf(' '))));
        for (TableCase table : random.tables) {
            table.columns.forEach(column -> {
                traits.add("type: " + column.type());
                column.extras().keySet().forEach(extra -> traits.add("column: " + extra));
            });
            for (LinkCase link : table.links) {
                boolean isSelf = random.tables.get(link.parent()) == table;
                traits.add("match: " + link.match());
                traits.add(link.columns().size() > 1 ? "link: composite" : "link: single");
                traits.add(isSelf ? "link: to itself" : "link: to another table");
                traits.add(
                        random.tables.get(link.parent()).primary == null
                                ? "link: to a unique key"
                                : "link: to a table with a primary key");
                if (link.children() != null) {
                    traits.add("children");
                }
                if (!isSelf
                        && random.tables.get(link.parent()).links.stream()
                                .anyMatch(l -> random.tables.get(l.parent()) == table)) {
                    traits.add("link: circle");
                }
            }
            if (!table.rules.isEmpty()) {
                traits.add("rules");
            }
            table.parentRules.forEach(rule ->
                    traits.add(rule.links().size() == 1 ? "rule: over a parent" : "rule: over a parent's parent"));
            table.childrenRules.forEach(rule -> {
                traits.add("rule: over children: " + rule.aggregate());
                traits.add(rule.parent() >= 0 ? "rule: over children and a parent" : "rule: over children alone");
            });
            table.unique.stream().filter(KeyCase::nullsEqual).forEach(key -> traits.add("key: nulls equal"));
            for (RowCase row : table.rows) {
                for (CellCase cell : row.cells()) {
                    traits.add(cell.text() == null ? cell.asWord() ? "cell: null word" : "cell: null" : "cell: text");
                    if (cell.text() != null
                            && List.of("", "007", "1.50", "20230205").contains(cell.text())) {
                        traits.add("cell: '" + cell.text() + "'");
                    }
                }
            }
        }
        traits.forEach(trait -> seen.merge(trait, 1, Integer::sum));
    }
}
