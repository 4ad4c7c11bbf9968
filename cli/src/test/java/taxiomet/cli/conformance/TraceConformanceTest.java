package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;
import taxiomet.cli.conformance.RandomCase.LinkCase;
import taxiomet.cli.conformance.RandomCase.TableCase;

/** What a trace says of a row is what plain SQL says: its parents, its children, and its faults, which a check of all rows finds too. */
class TraceConformanceTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 200);
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 16_700L);

    private final Map<String, Integer> seen = new TreeMap<>();

    @Test
    void a_row_has_the_parents_the_children_and_the_faults_that_sql_finds(@TempDir Path folder) throws Exception {
        for (long seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
            RandomCase random = new RandomCase(seed);
            Path place = Files.createDirectory(folder.resolve("case" + seed));
            CaseFiles.write(random, place);
            Random any = new Random(seed);
            try (SqlOracle oracle = new SqlOracle(random)) {
                for (TableCase table : random.tables) {
                    if (table.rows.isEmpty() || any.nextInt(3) > 0) {
                        continue;
                    }
                    int row = 1 + any.nextInt(table.rows.size());
                    JsonNode told = trace(place, table.name, row);
                    assertThat(faultsTold(told, table.name))
                            .as("faults of %s row %d, seed %d", table.name, row, seed)
                            .isEqualTo(faultsKnown(oracle, table.name, row));
                    if (table.rows.get(row - 1).malformed() == null) {
                        assertThat(relativesTold(told))
                                .as("relatives of %s row %d, seed %d", table.name, row, seed)
                                .isEqualTo(relativesKnown(random, oracle, table, row));
                    }
                }
            }
        }
        System.out.println("trace: seeds " + FIRST_SEED + " to " + (FIRST_SEED + CASES - 1) + ", seen " + seen);
        if (CASES >= 200) {
            assertThat(seen)
                    .containsKeys(
                            "own ancestor", "broken rule", "orphan", "duplicate", "too few children", "half-null link");
        }
    }

    private static JsonNode trace(Path place, String table, int row) {
        Program program = Program.run(
                "trace",
                place.resolve("charter.json").toString(),
                table,
                "--row",
                String.valueOf(row),
                "--json",
                "--chunk",
                "30",
                "--threads",
                "3");
        assertThat(program.status()).as(program.err()).isZero();
        return program.json().get("rows").get(0);
    }

    private Set<String> faultsTold(JsonNode row, String table) {
        Set<String> faults = new TreeSet<>();
        for (JsonNode fault : row.get("faults")) {
            if (!fault.get("severity").asText().equals("note")) {
                faults.add(fault.get("finding").asText() + " " + table + "."
                        + fault.get("at").asText());
                seen.merge(fault.get("finding").asText(), 1, Integer::sum);
            }
        }
        return faults;
    }

    private static Set<String> faultsKnown(SqlOracle oracle, String table, long row) {
        Set<String> faults = new TreeSet<>();
        oracle.rows.forEach((what, rows) -> {
            if (what.contains(" " + table + ".") && rows.contains(row)) {
                faults.add(what);
            }
        });
        return faults;
    }

    private static Map<String, Long> relativesTold(JsonNode row) {
        Map<String, Long> relatives = new TreeMap<>();
        row.get("parents")
                .forEach(parent -> relatives.put(
                        "parents over " + parent.get("link").asText(),
                        parent.get("rows").asLong()));
        row.get("children")
                .forEach(children -> relatives.put(
                        "children over " + children.get("table").asText() + "."
                                + children.get("link").asText(),
                        children.get("rows").asLong()));
        return relatives;
    }

    private static Map<String, Long> relativesKnown(RandomCase random, SqlOracle oracle, TableCase table, long row)
            throws Exception {
        Map<String, Long> relatives = new TreeMap<>();
        for (LinkCase link : table.links) {
            relatives.put("parents over " + link.name(), oracle.parents(table, link, row));
        }
        for (TableCase child : random.tables) {
            for (LinkCase link : child.links) {
                if (random.tables.get(link.parent()) == table) {
                    relatives.put("children over " + child.name + "." + link.name(), oracle.children(child, link, row));
                }
            }
        }
        return relatives;
    }
}
